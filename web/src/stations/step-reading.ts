import type { Measurement, PlanRecord, RoundView } from '@kevro/contract';

/** What was read at a bench step of a plan: by the last of its marks that has a reading; put right, the one that took its place. */
export function readingOf(
  round: RoundView,
  { id: planId }: PlanRecord,
  step: string,
): Measurement | undefined {
  const mark = round.marks.findLast(
    (one) => one.planId === planId && one.step === step && one.measurementId !== null,
  );
  let found = round.measurements.find(({ id }) => id === mark?.measurementId);
  while (found && found.supersededBy !== null) {
    const { supersededBy } = found;
    found = round.measurements.find(({ id }) => id === supersededBy);
  }
  return found?.counts ? found : undefined;
}
