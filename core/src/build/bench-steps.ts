import type { Dress } from '../dress';
import type { Frame } from '../frame';
import type { Materials, Placement } from '../plan';
import { cutList, type Cut } from './cut-list';

export type Caution = 'lead' | 'blade' | 'solvent';

export type StepKind =
  | 'weigh-before'
  | 'strip-handle'
  | 'cut'
  | 'trial'
  | 'measure-trial'
  | 'fix-head'
  | 'fill-handle'
  | 'regrip'
  | 'final-check';

/** One step at the bench. `key` stays the same as long as the plan does, so that what is done can be kept. */
export interface BenchStep {
  key: string;
  kind: StepKind;
  cuts: Cut[];
  cautions: Caution[];
  /** Waiting before the next step, minutes. */
  waitMinutes?: number;
}

/** Silicone sets before a grip goes over it, minutes (common practice; the maker's label wins). */
const SILICONE_WAIT_MINUTES = 12 * 60;

/**
 * A plan as ordered bench steps: weigh, strip the handle, cut, trial with the weight on the outside, measure, then commit: head first for
 * swing weight, handle after for mass, grip back on, final check.
 * @param dress what is on the frame: an overgrip or grip must come off before the handle is filled
 * @example benchSteps(frame, placements, materials, { overgrips: 1 }).map((s) => s.kind)
 */
export function benchSteps(
  frame: Frame,
  placements: readonly Placement[],
  materials: Materials,
  dress: Dress,
): BenchStep[] {
  const cuts = cutList(frame, placements, materials);
  const head = cuts.filter((cut) => cut.widthMm !== undefined).sort((a, b) => b.massG - a.massG);
  const handle = cuts.filter((cut) => cut.widthMm === undefined);
  const tapeCautions: Caution[] = materials.tape.material === 'lead' ? ['lead'] : [];
  const gripped = (dress.overgrips ?? 0) > 0 || (dress.baseGrip !== undefined && dress.baseGrip !== 'none');
  const silicone = materials.filling.material === 'silicone';
  const step = (kind: StepKind, more: Partial<BenchStep> = {}): BenchStep => ({
    key: kind,
    kind,
    cuts: [],
    cautions: [],
    ...more,
  });
  const perCut = (kind: StepKind, list: Cut[], cautions: Caution[]): BenchStep[] =>
    list.map((cut) => step(kind, { key: `${kind}:${cut.zone}`, cuts: [cut], cautions }));

  const steps = [step('weigh-before')];
  if (handle.length > 0 && gripped) steps.push(step('strip-handle', { cautions: ['blade'] }));
  if (head.length > 0) steps.push(step('cut', { cuts: head, cautions: ['blade', ...tapeCautions] }));
  if (cuts.length > 0) steps.push(step('trial', { cuts, cautions: tapeCautions }), step('measure-trial'));
  steps.push(...perCut('fix-head', head, [...tapeCautions, 'solvent']));
  const filled = perCut('fill-handle', handle, silicone ? ['solvent'] : []);
  const last = filled.at(-1);
  if (last && silicone) last.waitMinutes = SILICONE_WAIT_MINUTES;
  steps.push(...filled);
  if (handle.length > 0 && gripped) steps.push(step('regrip'));
  steps.push(step('final-check'));
  return steps;
}
