import { SPECS, capital } from '@kevro/core';
import { call } from './call';
import { paths as at } from './paths';
import * as compute from './compute';

/** A list of 100,000 setups, as the caller brings it along. */
const LIST_MOST_BYTES = 32 * 1024 * 1024;

/** As many pieces as a call takes, written out. */
const PIECES_MOST_BYTES = 160 * 1024;
const withPieces = <C extends object>(one: C) => ({ ...one, bodyMostBytes: PIECES_MOST_BYTES });

/** The computation over HTTP. */
export const computeCalls = {
  predict: withPieces(
    call(at.predict, 'Specs after weight is put on or taken off', compute.predictAnswer, compute.predictBody),
  ),
  redress: call(
    at.redress,
    'Specs brought from one dress to another',
    compute.redressAnswer,
    compute.redressBody,
  ),
  shiftAxis: call(
    at.shiftAxis,
    `${capital(SPECS.swingWeight.name)} about another axis`,
    compute.shiftAxisAnswer,
    compute.shiftAxisBody,
  ),
  plan: withPieces(
    call(at.plan, 'What to put where to reach a target', compute.planAnswer, compute.planBody),
  ),
  nearest: {
    ...call(at.nearest, 'Setups in order of noticeable steps', compute.nearestAnswer, compute.nearestBody),
    bodyMostBytes: LIST_MOST_BYTES,
  },
  pendulum: call(
    at.pendulum,
    `${capital(SPECS.swingWeight.name)} from a timed pendulum`,
    compute.pendulumAnswer,
    compute.pendulumBody,
  ),
  twist: call(
    at.twist,
    `${capital(SPECS.twistWeight.name)} from edge-on and face-on readings`,
    compute.twistAnswer,
    compute.twistBody,
  ),
  reach: {
    ...call(at.reach, 'How close a frame can get to setups', compute.reachAnswer, compute.reachBody),
    bodyMostBytes: LIST_MOST_BYTES,
  },
  readings: withPieces(
    call(
      at.readings,
      'How often to read each spec so that the check passes',
      compute.readingsAnswer,
      compute.readingsBody,
    ),
  ),
  chance: withPieces(
    call(
      at.chance,
      'How likely a build passes its check, and what that depends on',
      compute.chanceAnswer,
      compute.chanceBody,
    ),
  ),
  trim: withPieces(
    call(at.trim, 'The least change to a build that was checked', compute.trimAnswer, compute.trimBody),
  ),
  nextStep: call(
    at.nextStep,
    'The next step of a programme, from all that was changed and felt',
    compute.nextStepAnswer,
    compute.nextStepBody,
  ),
  lighten: withPieces(
    call(at.lighten, 'The same share off every placement', compute.lightenAnswer, compute.lightenBody),
  ),
  commonAim: call(
    at.commonAim,
    'One aim for the frames of a set',
    compute.commonAimAnswer,
    compute.commonAimBody,
  ),
  sensitivity: call(
    at.sensitivity,
    'What a gram does along the frame',
    compute.sensitivityAnswer,
    compute.sensitivityBody,
  ),
  guards: call(at.guards, 'What speaks against an aim', compute.guardsAnswer, compute.guardsBody),
  shapeAdvice: call(
    at.shapeAdvice,
    'Shapes of paddle that suit a wish, best first',
    compute.shapeAdviceAnswer,
    compute.shapeAdviceBody,
  ),
  parseSpecs: call(
    at.parseSpecs,
    'One typed line understood',
    compute.parseSpecsAnswer,
    compute.parseSpecsBody,
  ),
};
