import { defineStore } from 'pinia';
import { computed } from 'vue';
import {
  bringTo,
  guideBands,
  guideMiddle,
  stepDistance,
  type BroughtSetup,
  type KnownSpecs,
  type StepDistance,
} from '@kevro/core';
import type { Beside, BesideKey } from '@kevro/contract';
import { besideName, besideTold } from '../words/beside';
import { useFitting } from './fitting';
import { useGuides } from './guides';

/** Something that can stand beside the frame in hand: its numbers in the dress and about the axis of that frame, and how far they are from it. */
export interface Compared extends StepDistance {
  id: string;
  name: string;
  /** Where it comes from. */
  told: string;
  specs: KnownSpecs;
  /** How it is strung, where somebody says. */
  strung?: string;
  /** How it was brought over, where it was said in another dress or about another axis. */
  brought?: BroughtSetup;
}

/** What tells one thing beside the frame from another, in the page only. */
export const besideId = (key: BesideKey): string =>
  key.kind === 'measured'
    ? `measured ${key.measurementId}`
    : key.kind === 'guide'
      ? `guide ${key.guide}`
      : `shape ${key.shape}`;
/** As it is sent: without its numbers. */
export function keyOf(beside: Beside | BesideKey): BesideKey {
  const { kind } = beside;
  if (kind === 'measured') return { kind, measurementId: beside.measurementId };
  return kind === 'guide' ? { kind, guide: beside.guide } : { kind, shape: beside.shape };
}

/** Measured frames, earlier rounds, guides and averages of shapes that are set beside the frame in hand. */
export const useBeside = defineStore('beside', () => {
  const fitting = useFitting();
  const guides = useGuides();

  const all = computed((): Compared[] => {
    const { frame, dress, measurement, view, record } = fitting;
    if (!frame || !dress || !measurement || !view || !record) return [];
    const { sport } = frame;
    const { axisCm } = measurement.specs;
    const brought = (one: Beside): { specs: KnownSpecs; brought?: BroughtSetup } => {
      if (one.kind === 'guide')
        return { specs: guideMiddle(guideBands(frame, one.guide, dress, guides.edited)) };
      const report =
        one.kind === 'measured'
          ? {
              shape: one.frame.shape,
              dress: one.measurement.dress,
              specs: one.measurement.specs,
              sourceKind: 'measured' as const,
            }
          : {
              shape: {
                sport: sport.sport,
                lengthCm: sport.shapes[one.shape]?.lengthCm ?? sport.lengthCm,
                shape: one.shape,
              },
              dress: sport.dress.bare,
              specs: sport.shapeAverages[one.shape] ?? {},
              sourceKind: 'published' as const,
            };
      const over = bringTo(report, dress, axisCm);
      return { specs: over.specs, brought: over };
    };
    return (
      view.beside
        // Another sport's frame, set beside another frame of the set, says nothing here.
        .filter((one) => one.kind !== 'measured' || one.frame.shape.sport === sport.sport)
        .map((one) => {
          const found = brought(one);
          return {
            id: besideId(one),
            name: besideName(one, record.id),
            told: besideTold(one),
            ...found,
            ...stepDistance(measurement.specs, found.specs, sport),
          };
        })
    );
  });
  return { all };
});
