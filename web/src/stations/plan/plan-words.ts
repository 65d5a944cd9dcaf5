import { SPEC_KEYS, type Aim, type KnownSpecs, type Materials, type Placement } from '@kevro/core';
import { SPEC_NAMES, ZONE_NAMES } from '../../words';

const grams = (massG: number): string => `${Number(massG.toFixed(1))} g`;
const SHORT_DIGITS = { massG: 1, balanceCm: 2, swingWeight: 1, twistWeight: 2 } as const;
const SHORT_UNIT = { massG: ' g', balanceCm: ' cm', swingWeight: '', twistWeight: '' } as const;

/** «shoulders 4.5 g, butt 6 g» */
export const placesWords = (placements: readonly Placement[]): string =>
  placements.length === 0
    ? 'nothing to put on'
    : placements.map((p) => `${ZONE_NAMES[p.zone].toLowerCase()} ${grams(p.massG)}`).join(', ');

/** «misses swing weight by 9»: the spec that is furthest outside, in tolerances; empty where all are inside. */
export function missWords(aim: Aim, deviation: KnownSpecs): string {
  let worst: { key: (typeof SPEC_KEYS)[number]; off: number; times: number } | undefined;
  for (const key of SPEC_KEYS) {
    const target = aim[key];
    const off = deviation[key];
    if (!target || target.priority === 'free' || off === undefined) continue;
    const times = Math.abs(off) / target.tolerance;
    if (times > 1 + 1e-6 && (!worst || times > worst.times)) worst = { key, off, times };
  }
  if (!worst) return '';
  const amount = Math.abs(worst.off).toFixed(SHORT_DIGITS[worst.key]);
  return `misses ${SPEC_NAMES[worst.key].toLowerCase()} by ${amount}${SHORT_UNIT[worst.key]}`;
}

/** «2 strips of 8.5 cm, tungsten tape 6 mm» */
export function pieceWords(placement: Placement, materials: Materials, inHandle: boolean): string {
  const span = (placement.spanCm ?? 0).toFixed(1);
  if (inHandle) return `${span} cm of ${materials.filling.name}`;
  const layers = placement.layers ?? 1;
  const strips = (placement.mirrored ? 2 : 1) * layers;
  const stacked = layers > 1 ? `, ${layers} layers` : '';
  return `${strips === 1 ? '1 strip' : `${strips} strips`} of ${span} cm${stacked}, ${materials.tape.name}`;
}
