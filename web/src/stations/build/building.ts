import { computed } from 'vue';
import {
  asBuiltOf,
  expectedAfter,
  notedAsBuilt,
  readingAt,
  surpriseAfter,
  waitsOf,
  type BenchStep,
  type Building,
  type Expected,
  type Placement,
  type Surprise,
} from '@kevro/core';
import type { Measurement, StepMark } from '@kevro/contract';
import { useCatalogue } from '../../stores/catalogue';
import { useFitting } from '../../stores/fitting';

/** The build of the open fitting as it goes: what each step should read, what was read, and what sets. */
export function useBuilding() {
  const fitting = useFitting();
  const catalogue = useCatalogue();

  /** The measurement that the plan starts from: of a trim a check, else where the round starts. */
  const start = computed(() => fitting.round?.measurements.find(({ id }) => id === fitting.plan?.startId));
  const marks = computed<StepMark[]>(
    () => fitting.round?.marks.filter(({ planId }) => planId === fitting.plan?.id) ?? [],
  );
  const building = computed<Building | undefined>(() => {
    const { frame, plan } = fitting;
    if (!frame || !plan || !start.value) return undefined;
    const { specs, uncertainty, dress } = start.value;
    return {
      frame,
      before: specs,
      readings: uncertainty,
      dress,
      change: plan,
      steps: plan.steps,
      asBuilt: asBuiltOf(plan.steps, marks.value),
    };
  });
  const markOf = (step: BenchStep): StepMark | undefined =>
    marks.value.findLast((mark) => mark.step === step.key);
  const expected = (step: BenchStep): Expected | undefined =>
    building.value && expectedAfter(building.value, step.key);

  const readAt = (step: BenchStep): Measurement | undefined =>
    fitting.round && fitting.plan ? readingAt(fitting.round, fitting.plan.id, step.key) : undefined;
  const builtAt = (step: BenchStep): readonly Placement[] => notedAsBuilt(marks.value, step.key);
  function surprise(step: BenchStep): Surprise | undefined {
    const read = readAt(step);
    return building.value && read
      ? surpriseAfter(building.value, step.key, read.specs, read.uncertainty, catalogue.inUse)
      : undefined;
  }
  const waits = computed(() =>
    fitting.plan && fitting.round ? waitsOf(fitting.plan.steps, fitting.round.state.steps) : [],
  );
  return { start, markOf, builtAt, expected, readAt, surprise, waits };
}
