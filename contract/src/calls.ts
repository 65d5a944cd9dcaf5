import { z } from 'zod';
import { call, listing, retiredBody } from './call';
import { computeCalls } from './compute-calls';
import { setupCalls } from './setup-calls';
import {
  aim,
  besideKey,
  closeFitting,
  editFitting,
  fittingRow,
  fittingView,
  templateQuery,
  newAim,
  newFitting,
  newMark,
  newPlan,
  newRound,
  newSession,
  newSignOff,
  plan,
  roundStart,
  session,
  signOff,
  todayQuery,
} from './records/fitting';
import { access, devices, newPassphrase, pairing, signIn } from './records/access';
import { learning, rollAct } from './records/learning';
import { capture, newReading, setAside, storeCapture } from './records/capture';
import {
  frame,
  framePage,
  frameQuery,
  frameRow,
  knownModel,
  modelQuery,
  newFrame,
  newStringing,
  stringing,
} from './records/frame';
import {
  calibration,
  instrument,
  newCalibration,
  newInstrument,
  onStandIn,
  takeReading,
} from './records/instrument';
import { correction, counting, measurement, newMeasurement } from './records/measurement';
import { guideBandsOf, guideRow } from './records/guide';
import { newPart, part, partRow } from './records/part';
import { armHistory, newPlayer, player, playerQuery } from './records/player';
import { backups, editShop, shop } from './records/shop';
import { dress } from './shapes';

const archivedBody = z.strictObject({ archived: z.boolean() });

export type { Call } from './call';

export const calls = {
  health: call('get', '/health', 'Whether the server is ready', z.strictObject({ status: z.literal('ok') })),
  ...computeCalls,
  shop: call('get', '/shop', 'The shop', shop),
  access: call('get', '/access', 'How this device stands toward the shop', access),
  signIn: call(
    'post',
    '/sign-in',
    'Let this device in, by the passphrase or by a code from the bench',
    z.strictObject({ signedIn: z.boolean() }),
    signIn,
  ),
  signOut: call('post', '/sign-out', 'Let this device in no more', z.strictObject({ signedIn: z.boolean() })),
  setPassphrase: call(
    'put',
    '/passphrase',
    'Set the shop’s passphrase, on the bench machine; every device is signed out',
    z.strictObject({ set: z.literal(true) }),
    newPassphrase,
  ),
  pair: call('post', '/pairings', 'A code that lets one device in, on the bench machine', pairing),
  devices: call('get', '/devices', 'Devices that are signed in, on the bench machine', devices),
  backups: call('get', '/backups', 'Backups that were made by themselves, the newest first', backups),
  today: listing('/today', 'Fittings with their next step, newest first', fittingRow, todayQuery),
  editShop: call('put', '/shop', 'Change the shop’s name and how long a calibration counts', shop, editShop),
  players: listing('/players', 'Players, searched and sorted', player, playerQuery),
  player: call('get', '/players/:id', 'One player', player),
  erasePlayer: call(
    'post',
    '/players/:id/erase',
    'Take a person out of the shop for good; frames and builds stay',
    z.strictObject({ erased: z.literal(true) }),
    z.strictObject({ name: z.string().max(200).describe('the player’s name, as a second thought') }),
  ),
  armHistory: call('get', '/players/:id/arm-history', 'The private arm history of a player', armHistory),
  addPlayer: call('post', '/players', 'Add a player', player, newPlayer),
  editPlayer: call('put', '/players/:id', 'Change a player', player, newPlayer),
  archivePlayer: call(
    'put',
    '/players/:id/archived',
    'Archive a player, or bring one back',
    player,
    archivedBody,
  ),
  frames: listing('/frames', 'Frames, searched and sorted, with their newest numbers', frameRow, frameQuery),
  models: listing(
    '/models',
    'Makes that the shop has had, searched, the usual first',
    knownModel,
    modelQuery,
  ),
  frame: call('get', '/frames/:id', 'One frame with its measurements, strings and builds', framePage),
  addFrame: call('post', '/frames', 'Add a frame', frame, newFrame),
  editFrame: call('put', '/frames/:id', 'Change what a frame is and what is on it', frame, newFrame),
  archiveFrame: call(
    'put',
    '/frames/:id/archived',
    'Archive a frame, or bring one back',
    frame,
    archivedBody,
  ),
  duplicateFrame: call(
    'post',
    '/frames/:id/duplicate',
    'Another frame of the same make, for a pair',
    frame,
    z.strictObject({ tag: newFrame.shape.tag }),
  ),
  addStringing: call('post', '/frames/:id/stringings', 'Note new strings', stringing, newStringing),
  editStringing: call('put', '/stringings/:id', 'Correct what was noted of strings', stringing, newStringing),
  retireStringing: call(
    'put',
    '/stringings/:id/retired',
    'Mark strings as noted by mistake, or count them again',
    stringing,
    retiredBody,
  ),
  capture: call('get', '/frames/:id/capture', 'The readings of a frame not stored yet', capture),
  setDress: call(
    'put',
    '/frames/:id/capture',
    'Say what is on the frame while it is measured',
    capture,
    z.strictObject({ dress }),
  ),
  addReading: call(
    'post',
    '/frames/:id/readings',
    'Add a typed or timed reading, or an estimate',
    capture,
    newReading,
  ),
  setAside: call('put', '/frames/:id/set-aside', 'Set a reading aside, or count it again', capture, setAside),
  dropCapture: call(
    'post',
    '/frames/:id/capture/drop',
    'Begin the readings anew',
    capture,
    z.strictObject({ captureId: z.string() }),
  ),
  storeCapture: call(
    'post',
    '/frames/:id/capture/store',
    'Store the readings as one measurement',
    measurement,
    storeCapture,
  ),
  instruments: call('get', '/instruments', 'The instruments as they stand', z.array(instrument)),
  addInstrument: call('post', '/instruments', 'Add an instrument', instrument, newInstrument),
  editInstrument: call(
    'put',
    '/instruments/:id',
    'Change an instrument’s name and data sheet',
    instrument,
    newInstrument,
  ),
  retireInstrument: call(
    'put',
    '/instruments/:id/retired',
    'Retire an instrument, or bring one back',
    instrument,
    retiredBody,
  ),
  takeReading: call(
    'post',
    '/instruments/:id/read',
    'Take a reading; it arrives on the stream',
    instrument,
    takeReading,
  ),
  cancelReading: call(
    'post',
    '/instruments/:id/cancel',
    'Give up the reading under way',
    instrument,
    z.strictObject({}),
  ),
  standIn: call(
    'put',
    '/instruments/:id/stand-in',
    'What lies on a stand-in, and whether its cable is plugged in',
    instrument,
    z.strictObject({ on: onStandIn.nullable().optional(), plugged: z.boolean().optional() }),
  ),
  calibrations: call(
    'get',
    '/instruments/:id/calibrations',
    'Calibrations, newest first',
    z.array(calibration),
  ),
  calibrate: call(
    'post',
    '/instruments/:id/calibrations',
    'Calibrate a machine with rods',
    calibration,
    newCalibration,
  ),
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
  correctMeasurement: call(
    'post',
    '/measurements/:id/correct',
    'Put a measurement right: a new one takes its place',
    measurement,
    correction,
  ),
  countMeasurement: call(
    'put',
    '/measurements/:id/counts',
    'Mark a measurement as wrong, or count it again',
    measurement,
    counting,
  ),
  ...setupCalls,
  guides: call('get', '/guides', 'The guides of all sports, as the shop has them', z.array(guideRow)),
  editGuide: call(
    'put',
    '/guides/:id',
    'Change a guide; its id is the sport, a hyphen and its name',
    guideRow,
    guideBandsOf,
  ),
  restoreGuide: call('post', '/guides/:id/restore', 'A guide as it ships', guideRow, z.strictObject({})),
  parts: call('get', '/parts', 'The parts of the shop, retired ones too', z.array(partRow)),
  addPart: call('post', '/parts', 'Add a part', part, newPart),
  editPart: call('put', '/parts/:id', 'Change a part; plans keep it as it was', part, newPart),
  retirePart: call('put', '/parts/:id/retired', 'Retire a part, or bring one back', partRow, retiredBody),
  learning: call('get', '/learning', 'What checked builds taught of rolls and of the hand', learning),
  actOnRoll: call(
    'post',
    '/learning/rolls/:id',
    'Take the correction of a roll, take it back, or begin another roll',
    learning,
    rollAct,
  ),
  openFitting: call('post', '/fittings', 'Open a fitting', fittingView, newFitting),
  fitting: call('get', '/fittings/:id', 'A fitting with all its rounds', fittingView),
  editFitting: call('put', '/fittings/:id', 'Another player, or other frames', fittingView, editFitting),
  removeFitting: call(
    'post',
    '/fittings/:id/remove',
    'Remove a fitting that was opened by mistake, while it is empty',
    z.strictObject({ removed: z.literal(true) }),
    z.strictObject({}),
  ),
  closeFitting: call('post', '/fittings/:id/close', 'Close a fitting', fittingView, closeFitting),
  reopenFitting: call(
    'post',
    '/fittings/:id/reopen',
    'Open a closed fitting again, with a new round of each frame',
    fittingView,
    z.strictObject({}),
  ),
  beginRound: call('post', '/fittings/:id/rounds', 'Begin the next round of a frame', fittingView, newRound),
  startRound: call(
    'put',
    '/fittings/:id/start',
    'Make a measurement of the frame the start of its round',
    fittingView,
    roundStart,
  ),
  setReferences: call(
    'put',
    '/fittings/:id/references',
    'Setups set beside the frame',
    fittingView,
    z.array(z.string()).max(20),
  ),
  setBeside: call(
    'put',
    '/fittings/:id/beside',
    'Measured frames, guides and classes of shapes set beside the frame, as setups are',
    fittingView,
    z.array(besideKey).max(8),
  ),
  setAim: call('post', '/fittings/:id/aims', 'Set the aim', aim, newAim),
  choosePlan: call('post', '/fittings/:id/plans', 'Choose a plan', plan, newPlan),
  markStep: call('post', '/fittings/:id/marks', 'Mark a bench step', fittingView, newMark),
  signOff: call(
    'post',
    '/fittings/:id/sign-offs',
    'Judge a check against the aim, and note what is on the frame now',
    signOff,
    newSignOff,
  ),
  calendar: {
    method: 'get' as const,
    path: '/fittings/:id/calendar.ics',
    summary: 'What sets and cures in a fitting, as a calendar file (RFC 5545)',
    answer: z.string(),
    body: undefined,
    query: undefined,
    download: 'text/calendar',
  },
  templateSvg: {
    method: 'get' as const,
    path: '/fittings/:id/template.svg',
    summary: 'The head at true scale with the pieces of a plan on it; one user unit is a mm',
    answer: z.string(),
    body: undefined,
    query: templateQuery,
    download: 'image/svg+xml',
  },
  templatePdf: {
    method: 'get' as const,
    path: '/fittings/:id/template.pdf',
    summary: 'The same on as many sheets as it takes, with a bar to check the printer by',
    answer: z.string(),
    body: undefined,
    query: templateQuery,
    download: 'application/pdf',
  },
  addSession: call('post', '/fittings/:id/sessions', 'Note what was played and felt', session, newSession),
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
export type QueryOf<N extends CallName> = Calls[N]['query'] extends z.ZodType
  ? z.input<Calls[N]['query']>
  : undefined;
export type ReadQueryOf<N extends CallName> = Calls[N]['query'] extends z.ZodType
  ? z.output<Calls[N]['query']>
  : undefined;
