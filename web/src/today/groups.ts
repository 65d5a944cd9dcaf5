import type { FittingRow } from '@kevro/contract';

type Frame = FittingRow['frames'][number];
/** What a frame of a fitting waits for, in the order in which a day is looked through. */
export const GROUPS = ['work', 'setting', 'to-play', 'hand-over', 'rest', 'closed'] as const;
export type Group = (typeof GROUPS)[number];

export const GROUP_TITLES: Record<Group, string> = {
  work: 'To do',
  setting: 'Drying and curing',
  'to-play': 'To be played, with a session to note',
  'hand-over': 'Ready to hand over',
  rest: 'Nothing left to do',
  closed: 'Closed',
};

/** Checked and in no programme it can go; in a programme it is to be played and noted. */
export function groupOf({ closed }: Pick<FittingRow, 'closed'>, { next, programme }: Frame): Group {
  if (closed) return 'closed';
  if (!next) return 'rest';
  if (next.until) return 'setting';
  if (next.because !== 'not-played') return 'work';
  return programme ? 'to-play' : 'hand-over';
}

export interface Entry {
  row: FittingRow;
  frame: Frame;
  /** The first frame of its fitting in its group. */
  first: boolean;
}
/** Frames of fittings by what they wait for; those of one fitting stay together, the newest fitting first. */
export function grouped(rows: readonly FittingRow[]): { group: Group; entries: Entry[] }[] {
  const groups = new Map<Group, Entry[]>(GROUPS.map((group) => [group, []]));
  for (const row of rows)
    for (const frame of row.frames) {
      const entries = groups.get(groupOf(row, frame));
      entries?.push({ row, frame, first: entries.at(-1)?.row !== row });
    }
  return [...groups].flatMap(([group, entries]) => (entries.length > 0 ? [{ group, entries }] : []));
}

/** «2 h 10 min», «25 min», «under a minute». */
export function leftWords(until: string, now: number): string {
  const minutes = Math.ceil((Date.parse(until) - now) / 60_000);
  if (minutes <= 1) return 'under a minute left';
  const hours = Math.floor(minutes / 60);
  return `${hours > 0 ? `${hours} h ` : ''}${minutes % 60 > 0 || hours === 0 ? `${minutes % 60} min ` : ''}left`;
}
