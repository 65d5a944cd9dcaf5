import express, { type Router } from 'express';
import {
  Fault,
  NO_CHANGE,
  SPORTS,
  USUAL_QUANTUM_G,
  aimProblems,
  asSpot,
  asAimed,
  chanceOfBuild,
  chanceToPass,
  enoughReadings,
  judgeable,
  toCheck,
  edgeOnCorrection,
  guardsOf,
  lightenSpots,
  nextStep,
  ofSpot,
  paddleShapes,
  parseSpecs,
  pendulum,
  predict,
  redress,
  requireSpecs,
  sensitivity,
  settleFrame,
  shiftAxis,
  twistFromReadings,
  withAxis,
  type Change,
  type Frame,
  type SpotPlacement,
  type Specs,
  type Sport,
} from '@kevro/core';
import { calls, guardSentence, sentence, shapeSentence, stepSentence, type AnswerOf } from '@kevro/contract';
import { whileCallerStays } from '../compute/caller';
import { computePlans, type Compute } from '../compute/compute';
import { chanceInstruments, instrumentsSaid, readingsSaid } from '../compute/instruments-said';
import { badInput } from '../problem';
import { answer } from './route';

/** Where no sport is named, the axis that tennis and badminton share. */
const USUAL_AXIS_CM = SPORTS.tennis.axisCm;
/** Where no frame is named, a balance may lie anywhere a frame of any sport reaches. */
const LONGEST_CM = 100;

/** The sport is said twice where a frame stands beside it: it must be one. */
const sportsDiffer = (sport: Sport) => ({
  code: 'not-among-choices' as const,
  message: sentence('not-among-choices', { choices: sport }),
});

const onUsualAxis = (specs: Specs, path: string) =>
  requireSpecs(withAxis(specs, USUAL_AXIS_CM), LONGEST_CM, path);

/** Answers a call whose body may be a long list: its bytes are counted as they come, and read in a thread. */
function onBytes<N extends 'nearest' | 'reach'>(
  router: Router,
  name: N,
  work: (bytes: Uint8Array) => Promise<AnswerOf<N>>,
): void {
  const { path, bodyMostBytes } = calls[name];
  const bytes = express.raw({ limit: bodyMostBytes, type: () => true });
  router.post(path, bytes, whileCallerStays, async (request, response) => {
    const body: unknown = request.body;
    response.json(await work(body instanceof Uint8Array ? body : new Uint8Array()));
  });
}

const changeOf = (frame: Frame, spots: readonly SpotPlacement[]): Change => ({
  ...NO_CHANGE,
  placements: spots.map((spot, i) => ofSpot(frame, spot, `p${i}`)),
});

export function computeRoutes(router: Router, compute: Compute): void {
  answer(router, 'predict', ({ body }) => predict(body.shape, body.specs, body.additions));

  answer(router, 'redress', ({ body }) => {
    const { specs, uncertainty } = redress(body.shape, body.specs, body.from, body.to);
    return { specs, uncertainty };
  });

  answer(router, 'shiftAxis', ({ body }) => ({
    specs: shiftAxis(onUsualAxis(body.specs, 'specs'), body.toAxisCm),
  }));

  answer(router, 'plan', async ({ body }) => {
    const frame = settleFrame(body.shape);
    const { start, uncertainty, sameInstruments, ...asked } = body;
    const locked = asked.locked?.map((spot, i) => ofSpot(frame, spot, `locked${i}`));
    const instruments = instrumentsSaid(frame.sport, { start, uncertainty, sameInstruments });
    const plans = await computePlans(compute, { ...asked, locked, instruments });
    return {
      plans: plans.map(({ swaps: _, removals: __, score: ___, placements, ...plan }) => ({
        ...plan,
        placements: placements.map((placement) => asSpot(frame, placement)),
      })),
    };
  });

  answer(router, 'chance', ({ body }) => {
    const { shape, specs, target, placements, densityShare, placingCm } = body;
    const frame = settleFrame(shape);
    const change = changeOf(frame, placements);
    const found = chanceOfBuild({ shape, specs, target }, change, {
      care: { densityShare, placingCm },
      instruments: chanceInstruments(frame.sport, body),
      readings: readingsSaid(body.readings),
    });
    const { chance, truly, spread, contributions } = found;
    return { chance, truly, spread, contributions };
  });

  answer(router, 'readings', ({ body }) => {
    const { shape, specs, target, placements, wanted } = body;
    const frame = settleFrame(shape);
    const instruments = instrumentsSaid(frame.sport, body);
    const build = toCheck({ shape, specs, target }, changeOf(frame, placements ?? []), { instruments });
    // Where nothing is placed, what is planned comes out as aimed.
    const asked = placements ? build : { ...build, after: asAimed(build.before, target) };
    const { readings, reached } = enoughReadings(asked, wanted);
    return {
      readings,
      chance: chanceToPass(asked, readings).chance,
      reached,
      judgeable: judgeable(asked),
    };
  });

  answer(router, 'trim', async ({ body: { placements, ...request } }) => {
    const frame = settleFrame(request.shape);
    const built = placements.map((spot, i) => ofSpot(frame, spot, `p${i}`));
    const trims = await compute('trimPlans', { ...request, placements: built });
    return {
      trims: trims.map((trim) => ({
        ...trim,
        changes: trim.changes.map(({ index = null, placement: _, ...change }) => ({ index, ...change })),
      })),
    };
  });

  answer(router, 'nextStep', ({ body: { sport, ...body } }) => {
    if (sport !== body.shape.sport) throw badInput([{ path: 'shape.sport', ...sportsDiffer(sport) }]);
    const proposal = nextStep(body);
    return { ...proposal, sentence: stepSentence(sport, proposal) };
  });

  answer(router, 'lighten', ({ body: { placements, share, quantumG = USUAL_QUANTUM_G } }) => ({
    placements: lightenSpots(placements, share, quantumG),
  }));

  answer(router, 'commonAim', async ({ body: { frames, keys } }) => {
    const set = await compute('planSet', frames, keys);
    return {
      target: set.target,
      frames: set.frames.map(({ addedG, placements, specs, withinTolerance }, i) => {
        const { id, shape } = frames[i] as (typeof frames)[number];
        const frame = settleFrame(shape);
        return { id, addedG, placements: placements.map((p) => asSpot(frame, p)), specs, withinTolerance };
      }),
    };
  });

  answer(router, 'sensitivity', ({ body }) => ({
    points: sensitivity(body.shape, body.specs, body.massG),
  }));

  onBytes(router, 'nearest', (bytes) => compute('nearestOf', bytes));
  onBytes(router, 'reach', (bytes) => compute('reachOf', bytes));

  answer(router, 'pendulum', ({ body }) => pendulum({ ...body, axisCm: body.axisCm ?? USUAL_AXIS_CM }));

  answer(router, 'twist', ({ body }) => {
    const { faceOn, edgeOn, readingUncertainty, frame } = body;
    if (!frame) return twistFromReadings(faceOn, edgeOn, readingUncertainty);
    const settled = settleFrame(frame.shape);
    const correction = edgeOnCorrection(settled, frame.massG, frame.axisCm ?? settled.sport.axisCm);
    return twistFromReadings(faceOn, edgeOn, readingUncertainty, correction);
  });

  answer(router, 'guards', ({ body: { sport, ...body } }) => {
    if (sport !== body.shape.sport) throw badInput([{ path: 'shape.sport', ...sportsDiffer(sport) }]);
    const { lengthCm, sport: data } = settleFrame(body.shape);
    const own = requireSpecs(withAxis(body.specs, data.axisCm), lengthCm);
    const problems = aimProblems(body.target, lengthCm, own);
    if (problems.length > 0) throw new Fault(...problems);
    return {
      guards: guardsOf(body).map((guard) => ({
        code: guard.code,
        strength: guard.strength,
        sentence: guardSentence(guard),
        ...(guard.at ? { at: guard.at } : {}),
      })),
    };
  });

  answer(router, 'shapeAdvice', ({ body }) => ({
    shapes: paddleShapes(body).map(({ shape, reasons }) => ({ shape, reasons: reasons.map(shapeSentence) })),
  }));

  answer(router, 'parseSpecs', ({ body }) => parseSpecs(body.text, body.sport));
}
