import type { Placement } from '../part';
import { placementsAfter, type Change } from '../plan';
import { asBuiltOf, type BuiltMark } from './as-built';
import type { BenchStep } from './bench-steps';

/** A plan as far as it says what lies on a frame after it. */
export interface BuiltPlan extends Pick<Change, 'placements' | 'removals'> {
  id: string;
  /** The plan whose build it corrects. */
  trims: string | null;
  steps: readonly BenchStep[];
}
/** The plans of a round and the marks on their steps, each in the order of arrival. */
export interface BuiltRound<P extends BuiltPlan> {
  plans: readonly P[];
  marks: readonly (BuiltMark & { planId: string })[];
}

/** The plans that one stands on, the first built one first, itself last. @example trimChain(round, trim).map(({ id }) => id) // ['plan', 'trim'] */
export function trimChain<P extends BuiltPlan>({ plans }: BuiltRound<P>, plan: P): P[] {
  const chain = [plan];
  for (let base = plan.trims; base !== null;) {
    const found = plans.find(({ id }) => id === base);
    // A plan can only correct one that was there before it.
    if (!found || chain.includes(found)) break;
    chain.unshift(found);
    base = found.trims;
  }
  return chain;
}

/**
 * What lies on a frame after builds: as it was built where that was noted, else as it was planned. Pieces get ids of their own, so that what is noted on the
 * frame already stays once.
 * @param there what is noted on the frame @param chain the builds, the first one first: see {@link trimChain}
 * @example weightsAfter(frame.weights, [plan], round).map(({ id }) => id) // ['plan1-p1']
 */
export function weightsAfter<P extends BuiltPlan>(
  there: readonly Placement[],
  chain: readonly P[],
  { marks }: Pick<BuiltRound<P>, 'marks'>,
): Placement[] {
  return chain.reduce<Placement[]>(
    (weights, plan) => {
      const own = `${plan.id}-`;
      const built = asBuiltOf(
        plan.steps,
        marks.filter(({ planId }) => planId === plan.id),
      );
      const placements = plan.placements.flatMap((p): Placement[] => {
        const laid = built.has(p.id) ? built.get(p.id) : p;
        return laid ? [{ ...laid, id: `${own}${p.id}` }] : [];
      });
      const before = weights.filter(({ id }) => !id.startsWith(own));
      return placementsAfter(before, { ...plan, swaps: [], parts: [], placements });
    },
    [...there],
  );
}
