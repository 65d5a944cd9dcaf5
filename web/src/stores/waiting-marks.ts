import { isOver } from '@kevro/core';
import type { BodyOf, FittingView, RoundView, StepMark } from '@kevro/contract';

interface WaitingMark {
  body: BodyOf<'markStep'>;
  doneAt: string;
}

function marked(round: RoundView, waiting: readonly WaitingMark[]): RoundView {
  const { planId } = round.state;
  const own = waiting.filter(({ body }) => body.planId === planId);
  if (own.length === 0) return round;
  const steps = { ...round.state.steps };
  const marks: StepMark[] = [...round.marks];
  for (const { body, doneAt: at } of own) {
    const { seen: _, key: __, ...mark } = body;
    marks.push({ reason: '', asBuilt: null, measurementId: null, by: '', ...mark, at } as StepMark);
    // Said once more, it keeps its time.
    if (steps[mark.step]?.mark !== mark.mark) steps[mark.step] = { mark: mark.mark, at };
  }
  const plan = round.plans.find(({ id }) => id === planId);
  const built = plan?.steps.every(({ key }) => isOver(steps[key]?.mark)) ?? false;
  return { ...round, marks, state: { ...round.state, steps, built } };
}

/** A fitting with the ticks that wait on this device for the server, in the order in which they were made. What follows from them is said once they are stored. */
export const withWaitingMarks = (view: FittingView, waiting: readonly WaitingMark[]): FittingView =>
  waiting.length === 0
    ? view
    : {
        ...view,
        frames: view.frames.map((frame) => ({
          ...frame,
          rounds: frame.rounds.map((round) => marked(round, waiting)),
        })),
      };
