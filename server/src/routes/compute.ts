import type { Router } from 'express';
import {
  SPORTS,
  asSpot,
  nearest,
  parseSpecs,
  pendulum,
  predict,
  reach,
  redress,
  requireSpecs,
  settleFrame,
  shiftAxis,
  twistFromReadings,
  withAxis,
  type Specs,
} from '@kevro/core';
import type { PlanRunner } from '../compute/plan-runner';
import { answer } from './route';

/** Where no sport is named, the axis that tennis and badminton share. */
const USUAL_AXIS_CM = SPORTS.tennis.axisCm;
/** Where no frame is named, a balance may lie anywhere a frame of any sport reaches. */
const LONGEST_CM = 100;

const onUsualAxis = (specs: Specs, path: string) =>
  requireSpecs(withAxis(specs, USUAL_AXIS_CM), LONGEST_CM, path);

export function computeRoutes(router: Router, runPlan: PlanRunner): void {
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
    const plans = await runPlan(body);
    return {
      plans: plans.map(({ swaps: _, removals: __, placements, ...plan }) => ({
        ...plan,
        placements: placements.map((placement) => asSpot(frame, placement)),
      })),
    };
  });

  answer(router, 'nearest', ({ body }) => {
    const own = onUsualAxis(body.specs, 'specs');
    const others = body.setups.map(({ id, specs }, i) => ({
      id,
      specs: shiftAxis(onUsualAxis(specs, `setups.${i}.specs`), own.axisCm),
    }));
    return {
      nearest: nearest(own, others).map(({ id, distanceSteps, steps }) => ({ id, distanceSteps, steps })),
    };
  });

  answer(router, 'pendulum', ({ body }) => pendulum({ ...body, axisCm: body.axisCm ?? USUAL_AXIS_CM }));

  answer(router, 'twist', ({ body }) => twistFromReadings(body.faceOn, body.edgeOn, body.readingUncertainty));

  answer(router, 'reach', ({ body }) => ({ reach: reach(body.shape, body.specs, body.setups) }));

  answer(router, 'parseSpecs', ({ body }) => parseSpecs(body.text, body.sport));
}
