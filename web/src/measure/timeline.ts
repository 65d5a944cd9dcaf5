import { partWeight } from '../words/part-weight';
import { ALL_SPEC_KEYS, type AnySpecKey } from '@kevro/core';
import type { FramePage, Measurement, Stringing } from '@kevro/contract';
import { howWords } from './quantities';
import { counted } from '../words/counted';
import { isDayAlone, shopDay } from '../words/days';
import { dressWords } from '../words/dress';
import { stringWords } from '../words/strings';
import { PURPOSE_NAMES, SCHOOL_NAMES } from '../words';

export interface Happening {
  key: string;
  at: string;
  kind: 'measured' | 'strings' | 'build';
  title: string;
  text: string;
  to?: string;
  /** What can be put right. */
  measurement?: Measurement;
  stringing?: Stringing;
  /** Why it does not count; nothing where it does. */
  fault?: string;
}

/**
 * Lists that are each in the order of arrival, the last first, as one: by the day of the shop, and of one day the strings, which have no time, after the rest.
 * Each list keeps its own order, so that a clock that was set back puts nothing out of it.
 */
function mergedByDay(...lists: Happening[][]): Happening[] {
  const left = lists.map((list) => [...list]);
  const all: Happening[] = [];
  const order = (h: Happening): string => shopDay(h.at) + (isDayAlone(h.at) ? '' : h.at);
  for (;;) {
    const heads = left.filter((list) => list.length > 0);
    if (heads.length === 0) return all;
    const latest = heads.reduce((best, list) =>
      order(list[0] as Happening) > order(best[0] as Happening) ? list : best,
    );
    all.push(latest.shift() as Happening);
  }
}
/** Why a measurement does not count: «corrected: read with the dampener in». */
export const faultWords = ({ supersededBy, why }: Measurement): string =>
  `${supersededBy === null ? 'wrong' : 'corrected'}: ${why}`;

/** All that happened to a frame, newest first. @param show a spec as the fitter reads it, with its unit */
export function timeline(page: FramePage, show: (key: AnySpecKey, value: number) => string): Happening[] {
  const { measurements, stringings, builds } = page;
  const measured = measurements.map((m): Happening => {
    const mark = (key: AnySpecKey): string => (m.estimated.includes(key) ? ' est.' : '');
    const specs = ALL_SPEC_KEYS.flatMap((key) => {
      const value = m.specs[key];
      return value === undefined ? [] : [show(key, value) + mark(key)];
    });
    const { leftRight } = m;
    const sides = leftRight
      ? [`left/right ${leftRight.massG > 0 ? '+' : '−'}${Math.abs(leftRight.massG).toFixed(1)} g`]
      : [];
    const purpose = m.purpose === 'found' ? '' : PURPOSE_NAMES[m.purpose];
    const instead = m.supersedes === null ? '' : `corrected: ${m.why}`;
    const text = [purpose, instead, dressWords(m.dress, page.frame.shape.sport), m.note, howWords(m.how)]
      .filter(Boolean)
      .join(' · ');
    return {
      key: m.id,
      at: m.takenAt,
      kind: 'measured',
      title: [...specs, ...sides].join(' · '),
      text,
      measurement: m,
      ...(m.counts ? {} : { fault: faultWords(m) }),
    };
  });
  const strings = stringings.map((s): Happening => ({
    key: s.id,
    at: s.strungOn,
    kind: 'strings',
    title: stringWords(s),
    text: '',
    stringing: s,
    ...(s.retired ? { fault: 'discarded' } : {}),
  }));
  const built = builds.map((b): Happening => ({
    key: b.planId,
    at: b.createdAt,
    kind: 'build',
    title: `${partWeight(b.addedG)} planned, ${b.byHand ? 'changed by hand' : SCHOOL_NAMES[b.school]}`,
    text: `fitting of ${b.playerName}, round ${b.round}, ${b.stepsDone === 0 ? 'not begun' : counted(b.stepsDone, 'bench step done', 'bench steps done')}`,
    to: `/fittings/${b.fittingId}/build?frame=${page.frame.id}`,
  }));
  return mergedByDay(measured, strings, built);
}
