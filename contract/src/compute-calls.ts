import { call } from './call';
import * as compute from './compute';

/** The computation over HTTP. */
export const computeCalls = {
  predict: call(
    'post',
    '/compute/predict',
    'Specs after weight is put on or taken off',
    compute.predictAnswer,
    compute.predictBody,
  ),
  redress: call(
    'post',
    '/compute/redress',
    'Specs brought from one dress to another',
    compute.redressAnswer,
    compute.redressBody,
  ),
  shiftAxis: call(
    'post',
    '/compute/shift-axis',
    'Swing weight about another axis',
    compute.shiftAxisAnswer,
    compute.shiftAxisBody,
  ),
  plan: call(
    'post',
    '/compute/plan',
    'What to put where to reach a target',
    compute.planAnswer,
    compute.planBody,
  ),
  nearest: call(
    'post',
    '/compute/nearest',
    'Setups in order of noticeable steps',
    compute.nearestAnswer,
    compute.nearestBody,
  ),
  pendulum: call(
    'post',
    '/compute/pendulum',
    'Swing weight from a timed pendulum',
    compute.pendulumAnswer,
    compute.pendulumBody,
  ),
  twist: call(
    'post',
    '/compute/twist',
    'Twist weight from edge-on and face-on readings',
    compute.twistAnswer,
    compute.twistBody,
  ),
  reach: call(
    'post',
    '/compute/reach',
    'How close a frame can get to setups',
    compute.reachAnswer,
    compute.reachBody,
  ),
  chance: call(
    'post',
    '/compute/chance',
    'How likely a build passes its check, and what that depends on',
    compute.chanceAnswer,
    compute.chanceBody,
  ),
  trim: call(
    'post',
    '/compute/trim',
    'The least change to a build that was checked',
    compute.trimAnswer,
    compute.trimBody,
  ),
  lighten: call(
    'post',
    '/compute/lighten',
    'The same share off every placement',
    compute.lightenAnswer,
    compute.lightenBody,
  ),
  commonAim: call(
    'post',
    '/compute/common-aim',
    'One aim for the frames of a set',
    compute.commonAimAnswer,
    compute.commonAimBody,
  ),
  sensitivity: call(
    'post',
    '/compute/sensitivity',
    'What a gram does along the frame',
    compute.sensitivityAnswer,
    compute.sensitivityBody,
  ),
  parseSpecs: call(
    'post',
    '/compute/parse-specs',
    'One typed line understood',
    compute.parseSpecsAnswer,
    compute.parseSpecsBody,
  ),
};
