import type { FaultCode, Problem } from '../fault';
import { SPECS, SPEC_KEYS, type KnownSpecs, type SpecKey, type SpecTraits } from '../spec';
import type { SportData } from '../sport';
import { specProblems, type AxisSpecs } from './specs';

const round = (value: number): string => String(Number(value.toPrecision(2)));

/**
 * What is wrong with specs of which some are known: a setup, or what a maker states. At least one must be known; each must be possible on a
 * frame of this length and sport, and together they must be able to go together.
 * @param lengthCm the frame's length, cm @param path where in the input they stand
 * @example statedProblems({ massG: -5 }, sportData('tennis'), 68.58)[0].code // 'mass-negative'
 */
export function statedProblems(
  { axisCm, ...known }: KnownSpecs & { axisCm?: number },
  sport: SportData,
  lengthCm: number,
  path = 'specs',
): Problem[] {
  if (SPEC_KEYS.every((key) => known[key] === undefined)) return [{ code: 'nothing-stated', path }];
  // What is not known is such as goes with anything: a balance at the axis, or hardly beside one at the butt.
  const {
    massG = 1e-3,
    balanceCm = Math.max(1e-6, axisCm ?? sport.axisCm),
    swingWeight = 1e6,
    ...twist
  } = known;
  const whole: AxisSpecs = { massG, balanceCm, swingWeight, ...twist, axisCm: axisCm ?? sport.axisCm };
  const problems = specProblems(whole, lengthCm, path);
  for (const key of ['swingWeight', 'twistWeight'] as const) {
    const value = known[key];
    const said = problems.some((p) => p.path === `${path}.${key}`);
    if (value !== undefined && !(value > 0) && !said)
      problems.push({ code: 'not-positive', path: `${path}.${key}` });
  }
  if (problems.length > 0) return problems;
  for (const key of SPEC_KEYS) {
    problems.push(...unlikely(sport, key, known[key], `${path}.${key}`));
  }
  return problems;
}

/** A value that no frame of the sport comes near. */
export function unlikely(sport: SportData, key: SpecKey, value: number | undefined, path: string): Problem[] {
  const usual = sport.usual[key];
  const { unit, stated: [least, most] = [0, Infinity] }: SpecTraits = SPECS[key];
  if (value === undefined || usual === undefined || (value >= least * usual && value <= most * usual))
    return [];
  const range = `between ${round(least * usual)} and ${round(most * usual)} ${unit}`;
  return [{ code: 'unlikely', path, values: { range } }];
}

const isWrong = ({ code }: Problem): boolean => code !== 'unlikely';

/**
 * Why a setup of which some specs are known cannot be; undefined where it can. What is only unlikely may be.
 * @param mostCm how long a frame may be
 */
export function setupProblem(
  setup: KnownSpecs & { axisCm?: number },
  sport: SportData,
  mostCm: number,
): FaultCode | undefined {
  const { massG, balanceCm, swingWeight, ...twist } = setup;
  // The usual case, quickly: thousands are asked about at once.
  if (massG !== undefined && balanceCm !== undefined && swingWeight !== undefined)
    return specProblems({ axisCm: sport.axisCm, ...twist, massG, balanceCm, swingWeight }, mostCm).find(
      isWrong,
    )?.code;
  return statedProblems(setup, sport, mostCm).find(isWrong)?.code;
}

/**
 * What is wrong with a maker's statement: its specs, and a give-or-take that belongs to no value, is not positive, or is as large as the value.
 * @example makerProblems({ specs: { massG: 300 }, tolerance: { balanceCm: 0.5 } }, sport, 68.58)[0].code // 'tolerance-without-value'
 */
export function makerProblems(
  { specs, tolerance }: { specs: KnownSpecs; tolerance: KnownSpecs },
  sport: SportData,
  lengthCm: number,
  path = 'nominal',
): Problem[] {
  const band = SPEC_KEYS.flatMap((key): Problem[] => {
    const width = tolerance[key];
    const value = specs[key];
    const at = `${path}.tolerance.${key}`;
    if (width === undefined) return [];
    if (!(width > 0)) return [{ code: 'tolerance-not-positive', path: at }];
    if (value === undefined) return [{ code: 'tolerance-without-value', path: at }];
    return width < value ? [] : [{ code: 'tolerance-too-large', path: at }];
  });
  const alone = band.some(({ code }) => code === 'tolerance-without-value');
  const stated = statedProblems(specs, sport, lengthCm, `${path}.specs`);
  return [...stated.filter(({ code }) => code !== 'nothing-stated' || !alone), ...band];
}
