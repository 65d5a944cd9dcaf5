import { dressChange, signedParts } from '../dress';
import type { Frame } from '../frame';
import { SPEC_KEYS, swingAbout, total, type MassSums, type SpecKey } from '../mass';
import type { Problem } from '../fault';
import { sportData, type Dress, type Guide, type GuideName, type Sport } from '../sport';
import { G_CM2_PER_KG_CM2 } from '../units';

/** A band to draw: an open end is infinite. */
export type Bands = Partial<Record<SpecKey, readonly [number, number]>>;

/** The guides of a sport, in the order in which it names them. @example guidesOf('tennis')[0] // 'junior-26' */
export const guidesOf = (sport: Sport): GuideName[] => Object.keys(sportData(sport).guides) as GuideName[];

/** What a change of dress adds to a spec; undefined for the balance, whose change depends on the frame. */
function moved(key: SpecKey, sums: MassSums, axisCm: number): number | undefined {
  switch (key) {
    case 'massG':
      return sums.massG;
    case 'balanceCm':
      return undefined;
    case 'swingWeight':
      return swingAbout(sums, axisCm);
    case 'twistWeight':
      return sums.twistGCm2 / G_CM2_PER_KG_CM2;
  }
}

/** Guides as a shop has changed them, by sport and name; what is not among them is as it ships. */
export type EditedGuides = Partial<Record<Sport, Partial<Record<GuideName, Guide>>>>;

/** A guide of a sport, as the shop has it. @example guideOf('tennis', 'advanced').swingWeight?.from // 318 */
export const guideOf = (sport: Sport, name: GuideName, edited: EditedGuides = {}): Guide =>
  edited[sport]?.[name] ?? sportData(sport).guides[name] ?? {};

/** What is wrong with a guide: an end that is no positive number, or a band that ends before it begins; and a guide without any band. */
export function guideProblems(guide: Guide, path = 'guide'): Problem[] {
  const problems: Problem[] = [];
  for (const key of SPEC_KEYS) {
    const { from, to } = guide[key] ?? {};
    for (const [end, value] of Object.entries({ from, to }))
      if (value !== undefined && !(value > 0))
        problems.push({ code: 'not-positive', path: `${path}.${key}.${end}` });
    if (from !== undefined && to !== undefined && !(from < to))
      problems.push({ code: 'band-backwards', path: `${path}.${key}.to` });
  }
  if (SPEC_KEYS.every((key) => guide[key]?.from === undefined && guide[key]?.to === undefined))
    problems.push({ code: 'nothing-stated', path });
  return problems;
}

/**
 * A guide's bands brought to the dress of the frame in hand, each from the dress that it is said for. Nothing where the frame's sport has no such guide; a
 * balance is given only for the dress that it is said for.
 * @param edited guides that the shop has changed
 * @example guideBands(frame, 'advanced', { baseGrip: 'synthetic', strings: true }).swingWeight // [318, 340]
 */
export function guideBands(frame: Frame, name: GuideName, dress: Dress, edited?: EditedGuides): Bands {
  const guide = guideOf(frame.sport.sport, name, edited);
  const bands: Bands = {};
  for (const key of SPEC_KEYS) {
    const band = guide[key];
    if (!band) continue;
    const parts = signedParts(dressChange(frame, band.dress, dress));
    const more = parts.length === 0 ? 0 : moved(key, total(parts.map((p) => p.sums)), frame.sport.axisCm);
    if (more === undefined) continue;
    bands[key] = [(band.from ?? -Infinity) + more, (band.to ?? Infinity) + more];
  }
  return bands;
}
