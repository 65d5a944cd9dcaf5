import { lyingOn, partNamed, partRule, type Caution, type Placement } from '../part';
import { newStrings, type Change } from '../plan';
import type { Dress } from '../sport';

/** The kinds of steps at the bench, in their order; a new one is one entry here and one row of words. See docs/add-a-bench-step.md. */
export const STEP_KINDS = [
  'weigh-before',
  'strip-handle',
  'take-off',
  'cut',
  'trial',
  'measure-trial',
  'fix-head',
  'seal',
  'set-in',
  'fill-handle',
  'wrap-handle',
  'swap',
  'regrip',
  'restring',
  'final-check',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** Steps in which a piece is put on for good. */
export const LAYING: readonly StepKind[] = ['fix-head', 'set-in', 'fill-handle', 'wrap-handle'];

/** One step at the bench. `key` stays the same as long as the plan does, so that what is done can be kept. */
export interface BenchStep {
  key: string;
  kind: StepKind;
  /** The placements it is about; of a removal what is taken off. */
  placementIds: string[];
  cautions: Caution[];
  /** Waiting before the next step, minutes. */
  waitMinutes?: number | undefined;
}

/** Over lead on a child's frame go thin clear coats, each dry before the next: common practice, and no swing weight to speak of. */
export const COATS = 4;
const COAT_DRIES_MINUTES = 30;

/** For whom and when a plan is built. */
export interface BenchCase {
  /** The change corrects a build that was just checked: nothing is weighed before, nor tried. */
  trim?: boolean;
  /** The player is a child: lead gets a sealing coat. */
  child?: boolean;
  /** How long new strings settle before the check, minutes: the shop's time. */
  settleMinutes?: number | undefined;
}

/**
 * A plan as ordered bench steps: weigh, strip the handle, take off what goes, cut, trial with the weight on the outside, measure, then commit: head first for
 * swing weight, handle after for mass, grips back on, new strings, final check.
 * @param dress what is on the frame: a grip must come off before anything goes into or around the handle
 * @example benchSteps({ ...NO_CHANGE, placements, parts }, { overgrips: 1 }).map((s) => s.kind)
 */
export function benchSteps(
  change: Change,
  dress: Dress,
  { trim = false, child = false, settleMinutes }: BenchCase = {},
): BenchStep[] {
  const { placements, swaps, removals, parts } = change;
  const ruleOf = ({ partId }: Placement) => {
    const part = partNamed(parts, partId);
    return part ? { part, rule: partRule(part) } : undefined;
  };
  const fixed = (placement: Placement) => {
    const part = ruleOf(placement)?.part;
    return part ? lyingOn(part, placement.path).fixing : 'set-in';
  };
  const cautionsOf = (of: readonly Placement[]): Caution[] => [
    ...new Set(of.flatMap((p) => ruleOf(p)?.rule.cautions(ruleOf(p)?.part as never) ?? [])),
  ];
  const heaviestFirst = placements.toSorted((a, b) => b.massG - a.massG);
  const tape = heaviestFirst.filter((p) => fixed(p) === 'fix-head');
  const cut = heaviestFirst.filter((p) => fixed(p) === 'fix-head' || fixed(p) === 'wrap-handle');
  const inHandle = placements.filter((p) => fixed(p) === 'fill-handle' || fixed(p) === 'wrap-handle');
  const offHandle = removals.filter(({ of }) => of.path === 'handle');
  const gripped = (dress.overgrips ?? 0) > 0 || (dress.baseGrip !== undefined && dress.baseGrip !== 'none');
  const ids = (of: readonly Placement[]): string[] => of.map(({ id }) => id);

  const step = (kind: StepKind, of: readonly Placement[] = [], cautions: Caution[] = []): BenchStep => ({
    key: kind,
    kind,
    placementIds: ids(of),
    cautions,
  });
  const each = (kind: StepKind, more: Caution[] = []): BenchStep[] =>
    placements
      .filter((p) => fixed(p) === kind)
      .toSorted((a, b) => (kind === 'fix-head' ? b.massG - a.massG : 0))
      .map((p) => ({
        ...step(kind, [p], [...new Set([...cautionsOf([p]), ...more])]),
        key: `${kind}:${p.id}`,
      }));

  const steps = trim ? [] : [step('weigh-before')];
  const opensHandle = gripped && (inHandle.length > 0 || offHandle.length > 0);
  if (opensHandle) steps.push(step('strip-handle', [], ['blade']));
  if (removals.length > 0) {
    const off = removals.map(({ of }) => of);
    steps.push(step('take-off', off, [...cautionsOf(off), 'blade']));
  }
  if (cut.length > 0) steps.push(step('cut', cut, ['blade', ...cautionsOf(cut)]));
  if (placements.length > 0 && !trim)
    steps.push(step('trial', heaviestFirst, cautionsOf(tape)), step('measure-trial'));
  steps.push(...each('fix-head', ['solvent']));
  const lead = tape.filter((p) => cautionsOf([p]).includes('lead'));
  if (child && lead.length > 0)
    for (let coat = 1; coat <= COATS; coat++)
      steps.push({
        ...step('seal', lead, ['solvent']),
        key: `seal:${coat}`,
        waitMinutes: COAT_DRIES_MINUTES,
      });
  steps.push(...each('set-in'));
  const filled = each('fill-handle');
  const waits = placements
    .filter((p) => fixed(p) === 'fill-handle')
    .map((p) => ruleOf(p)?.rule.waitMinutes?.(ruleOf(p)?.part as never) ?? 0);
  const last = filled.at(-1);
  if (last && Math.max(...waits) > 0) last.waitMinutes = Math.max(...waits);
  steps.push(...filled, ...each('wrap-handle'));
  if (swaps.some(({ what }) => what !== 'strings')) steps.push(step('swap'));
  if (opensHandle) steps.push(step('regrip'));
  if (newStrings(swaps))
    steps.push({
      ...step('restring', [], ['blade']),
      ...(settleMinutes ? { waitMinutes: settleMinutes } : {}),
    });
  steps.push(step('final-check'));
  return steps;
}
