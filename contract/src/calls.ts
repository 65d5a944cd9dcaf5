import { z } from 'zod';
import * as compute from './compute';
import { aim, fittingRow, fittingView, newAim, newFitting, newPlan, plan } from './records/fitting';
import { frame, newFrame } from './records/frame';
import { measurement, newMeasurement } from './records/measurement';
import { newPart, parts } from './records/part';
import { newPlayer, player } from './records/player';
import { newSetup, setup } from './records/setup';
import { shop } from './records/shop';

/** One call of the API. The server routes by these, the page is typed by them, and the OpenAPI document lists them. */
export interface Call {
  method: 'get' | 'post' | 'put';
  path: string;
  summary: string;
  body?: z.ZodType;
  answer: z.ZodType;
}

const call = <B extends z.ZodType | undefined, A extends z.ZodType>(
  method: Call['method'],
  path: string,
  summary: string,
  answer: A,
  body?: B,
) => ({ method, path, summary, answer, body: body as B });

export const calls = {
  health: call('get', '/health', 'Whether the server is ready', z.strictObject({ status: z.literal('ok') })),
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
  parseSpecs: call(
    'post',
    '/compute/parse-specs',
    'One typed line understood',
    compute.parseSpecsAnswer,
    compute.parseSpecsBody,
  ),
  shop: call('get', '/shop', 'The shop', shop),
  today: call('get', '/today', 'Open fittings with their next step', z.array(fittingRow)),
  players: call('get', '/players', 'All players', z.array(player)),
  addPlayer: call('post', '/players', 'Add a player', player, newPlayer),
  frames: call('get', '/frames', 'All frames', z.array(frame)),
  addFrame: call('post', '/frames', 'Add a frame', frame, newFrame),
  measurements: call(
    'get',
    '/frames/:id/measurements',
    'Measurements of a frame, newest first',
    z.array(measurement),
  ),
  addMeasurement: call(
    'post',
    '/frames/:id/measurements',
    'Store a measurement',
    measurement,
    newMeasurement,
  ),
  setups: call('get', '/setups', 'The library of setups', z.array(setup)),
  addSetup: call('post', '/setups', 'Add a setup', setup, newSetup),
  parts: call('get', '/parts', 'Tapes and fillings of the shop', parts),
  addPart: call('post', '/parts', 'Add a part', parts, newPart),
  openFitting: call('post', '/fittings', 'Open a fitting', fittingView, newFitting),
  fitting: call('get', '/fittings/:id', 'A fitting with all that stands', fittingView),
  setReferences: call(
    'put',
    '/fittings/:id/references',
    'Setups set beside the frame',
    fittingView,
    z.array(z.string()).max(20),
  ),
  setAim: call('post', '/fittings/:id/aims', 'Set the aim', aim, newAim),
  choosePlan: call('post', '/fittings/:id/plans', 'Choose a plan', plan, newPlan),
  markStep: call(
    'put',
    '/fittings/:id/steps',
    'Mark a bench step done or not done',
    fittingView,
    z.strictObject({ planId: z.string(), step: z.string().min(1).max(80), done: z.boolean() }),
  ),
} as const;

export type Calls = typeof calls;
export type CallName = keyof Calls;
export type BodyOf<N extends CallName> = Calls[N]['body'] extends z.ZodType
  ? z.input<Calls[N]['body']>
  : undefined;
export type ReadBodyOf<N extends CallName> = Calls[N]['body'] extends z.ZodType
  ? z.output<Calls[N]['body']>
  : undefined;
export type AnswerOf<N extends CallName> = z.output<Calls[N]['answer']>;
