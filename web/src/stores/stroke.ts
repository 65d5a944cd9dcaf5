import { defineStore } from 'pinia';
import { strokeOf, type Sport, type SportData, type Stroke, type StrokeName } from '@kevro/core';
import { useKept } from '../ui/kept';

/** The stroke that sweet spots are drawn for, in each sport the one that was looked at last. */
export const useStroke = defineStore('stroke', () => {
  const chosen = useKept<Partial<Record<Sport, StrokeName>>>('kevro-strokes', {});
  const of = (sport: SportData): Stroke => strokeOf(sport, chosen.value[sport.sport]);
  const choose = (sport: Sport, name: StrokeName): void => {
    chosen.value = { ...chosen.value, [sport]: name };
  };
  return { of, choose };
});
