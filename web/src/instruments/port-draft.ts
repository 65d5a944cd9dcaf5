import type { LinePattern, LineRead, Saying } from '@kevro/core';
import { serialPort, type SerialLink } from '@kevro/contract';
import type { Typed } from '../ui/typed';

/** A device at a port while it is set up: its lines are not understood until something known was put on it. */
export interface PortDraft extends Omit<SerialLink, 'pattern'> {
  pattern: LinePattern | null;
  known: Typed;
}

export const portDraftOf = (link: SerialLink | null | undefined): PortDraft => {
  // Chosen from a list: an empty path is no port yet.
  const { path: _, ...usual } = serialPort.parse({ path: '-' });
  return { path: '', ...usual, ends: '', pattern: null, ...link, known: null };
};

/** The link that a draft comes to; null while its lines are not understood. */
export const linkOf = ({ known: _, pattern, ...port }: PortDraft): SerialLink | null =>
  pattern && port.path !== '' ? { ...port, pattern } : null;

export const SAYING_WORDS: Record<Saying, string> = {
  steady: 'steady',
  moving: 'still moving',
  tared: 'net, after a tare',
  over: 'overload',
  under: 'underload',
  other: 'nothing that matters',
  useless: 'not a reading: leave the line out',
};

const UNREAD_WORDS: Record<Extract<LineRead, { kind: 'unread' }>['why'], string> = {
  empty: 'empty',
  characters: 'unreadable characters',
  numbers: 'another number of numbers',
  width: 'broken line',
  word: 'unknown word',
  unit: 'no unit that is known',
  useless: 'left out',
  range: 'out of range',
};

/** What Kevro reads from a line: «200.1 g, steady», «overload», «unknown word PCS». @param show a value with its unit */
export function readWords(read: LineRead, show: (value: number) => string): string {
  if (read.kind === 'unread') return [UNREAD_WORDS[read.why], read.word].filter(Boolean).join(' ');
  if (read.kind !== 'value') return SAYING_WORDS[read.kind];
  const { value, steady, tared } = read;
  const said = [steady === false ? 'still moving' : steady ? 'steady' : '', tared ? 'net' : ''];
  return [show(value), ...said].filter(Boolean).join(', ');
}
