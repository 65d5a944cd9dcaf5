import { z } from 'zod';
import { OPEN_MOST_BYTES, act, begin, call, listing, retiredBody } from './call';
import { paths as at } from './paths';
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
  sentAim,
  newFitting,
  newMark,
  newPlan,
  newRound,
  newSession,
  newSignOff,
  partIds,
  plan,
  reopenFitting,
  roundStart,
  session,
  signOff,
  todayQuery,
} from './records/fitting';
import {
  access,
  changedStaff,
  devices,
  letOthersIn,
  newPassphrase,
  newStaff,
  ownPassphrase,
  pairing,
  signIn,
  staffMember,
} from './records/access';
import { learning, rollAct } from './records/learning';
import { capture, newReading, ofCapture, setAside, storeCapture } from './records/capture';
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
  takenOutline,
} from './records/frame';
import {
  calibration,
  foundPort,
  heardLines,
  instrument,
  newCalibration,
  newInstrument,
  onStandIn,
  serialPort,
  takeReading,
} from './records/instrument';
import { correction, counting, measurement, newMeasurement } from './records/measurement';
import {
  PHOTO_TYPES,
  filmLink,
  filmPage,
  filmQuery,
  keepFilm,
  keptFilm,
  newFilmLink,
  removeFilm,
  sentFilm,
} from './records/film';
import { guideBandsOf, guideRow } from './records/guide';
import { addStarters, newPart, part, partRow, weighPart } from './records/part';
import {
  actOnProgramme,
  changeRow,
  changesQuery,
  day,
  linkMade,
  linkPage,
  linkSession,
  lookAgain,
  newBack,
  newLink,
  newLookAgain,
  newProgramme,
  learnedOfPlayer,
  learnedQuery,
  playerPage,
  programmeOutlook,
  programmeStep,
  sessionAnswer,
  searchAnswer,
  searchQuery,
  sessionRow,
} from './records/play';
import { armHistory, newPlayer, player, playerQuery } from './records/player';
import { editSeasonDate, newSeasonDate, seasonFile, seasonPage, seasonRead } from './records/season';
import { backups, beginShop, editShop, restoreQuery, restored, shop } from './records/shop';
import { dress } from './shapes';

const archivedBody = z.strictObject({ archived: z.boolean() });

export { BODY_MOST_BYTES, type Call, type ChangedKind, type ToldChange } from './call';

export const calls = {
  health: call(at.health, 'Whether the server is ready', z.strictObject({ status: z.literal('ok') })),
  ...computeCalls,
  shop: call(at.shop, 'The shop', shop),
  access: call(at.access, 'How this device stands toward the shop', access),
  signIn: {
    ...act(
      at.signIn,
      'device',
      'Let this device in, by the passphrase or by a code from the bench',
      z.strictObject({ signedIn: z.boolean() }),
      signIn,
    ),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  signOut: {
    ...act(at.signOut, 'device', 'Let this device in no more', z.strictObject({ signedIn: z.boolean() })),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  setPassphrase: {
    ...act(
      at.setPassphrase,
      'device',
      'Set the shop’s passphrase, on the bench machine; every other browser is signed out',
      z.strictObject({ set: z.literal(true) }),
      newPassphrase,
    ),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  letOthersIn: {
    ...act(
      at.letOthersIn,
      'device',
      'Listen for other devices of the network or stop it, on the bench machine',
      access,
      letOthersIn,
    ),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  pair: call(at.pair, 'A code that lets one device in, on the bench machine', pairing),
  devices: call(at.devices, 'Devices that are signed in, on the bench machine', devices),
  staff: call(at.staff, 'The people of the shop who sign in by name, for its owners', z.array(staffMember)),
  addStaff: {
    ...act(at.addStaff, 'device', 'Let somebody sign in by name', staffMember, newStaff),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  editStaff: {
    ...act(
      at.editStaff,
      'device',
      'Change somebody’s name or role, or say that they have left',
      staffMember,
      changedStaff,
    ),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  resetStaff: {
    ...act(
      at.resetStaff,
      'device',
      'Give somebody another passphrase; they are signed out everywhere',
      staffMember,
      newPassphrase,
    ),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  ownPassphrase: {
    ...act(
      at.ownPassphrase,
      'device',
      'Change one’s own passphrase; every other device of one’s own is signed out',
      z.strictObject({ set: z.literal(true) }),
      ownPassphrase,
    ),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  backups: call(at.backups, 'Backups that were made by themselves, the newest first', backups),
  restoreBackup: {
    ...at.restoreBackup,
    summary: 'Put a backup in the place of the shop, on the bench machine, and start again',
    answer: restored,
    body: undefined,
    query: restoreQuery,
    upload: ['application/zip'],
    changes: 'shop' as const,
  },
  today: listing(at.today, 'Fittings with their next step, newest first', fittingRow, todayQuery),
  editShop: act(
    at.editShop,
    'shop',
    'Change the shop’s name and how long a calibration counts',
    shop,
    editShop,
  ),
  beginShop: begin(
    at.beginShop,
    'shop',
    'Begin a new shop: its name, sports, tools and first parts',
    shop,
    beginShop,
  ),
  players: listing(at.players, 'Players, searched and sorted', player, playerQuery),
  player: call(at.player, 'One player', player),
  erasePlayer: act(
    at.erasePlayer,
    'player',
    'Take a person out of the shop for good; frames and builds stay',
    z.strictObject({
      erased: z.literal(true),
      ids: z
        .array(z.string())
        .describe('of what held words about them: a device may have drafts that are named by these'),
      finished: z
        .boolean()
        .describe('false: old copies in the files are cleared at the next start, on a full disk for one'),
    }),
    z.strictObject({ name: z.string().max(200).describe('the player’s name, as a second thought') }),
  ),
  armHistory: call(at.armHistory, 'The private arm history of a player', armHistory),
  addPlayer: begin(at.addPlayer, 'player', 'Add a player', player, newPlayer),
  editPlayer: act(at.editPlayer, 'player', 'Change a player', player, newPlayer),
  archivePlayer: act(at.archivePlayer, 'player', 'Archive a player, or bring one back', player, archivedBody),
  frames: listing(at.frames, 'Frames, searched and sorted, with their newest numbers', frameRow, frameQuery),
  models: listing(
    at.models,
    'Makes that the shop has had, searched, the usual first',
    knownModel,
    modelQuery,
  ),
  frame: call(at.frame, 'One frame with its measurements, strings and builds', framePage),
  addFrame: begin(at.addFrame, 'frame', 'Add a frame', frame, newFrame),
  editFrame: act(at.editFrame, 'frame', 'Change what a frame is and what is on it', frame, newFrame),
  archiveFrame: act(at.archiveFrame, 'frame', 'Archive a frame, or bring one back', frame, archivedBody),
  duplicateFrame: begin(
    at.duplicateFrame,
    'frame',
    'Another frame of the same make, for a pair',
    frame,
    z.strictObject({ tag: newFrame.shape.tag }),
  ),
  addStringing: begin(at.addStringing, 'frame', 'Note new strings', stringing, newStringing),
  editStringing: act(
    at.editStringing,
    'stringing',
    'Correct what was noted of strings',
    stringing,
    newStringing,
  ),
  retireStringing: act(
    at.retireStringing,
    'stringing',
    'Mark strings as noted by mistake, or count them again',
    stringing,
    retiredBody,
  ),
  capture: call(at.capture, 'The readings of a frame not stored yet', capture),
  setDress: act(
    at.setDress,
    'reading',
    'Say what is on the frame while it is measured',
    capture,
    z.strictObject({ dress, ...ofCapture }),
  ),
  addReading: act(
    at.addReading,
    'reading',
    'Add a typed or timed reading, or an estimate',
    capture,
    newReading,
  ),
  setAside: act(at.setAside, 'reading', 'Set a reading aside, or count it again', capture, setAside),
  dropCapture: act(
    at.dropCapture,
    'reading',
    'Begin the readings anew',
    capture,
    z.strictObject({ captureId: z.string() }),
  ),
  storeCapture: act(
    at.storeCapture,
    'frame',
    'Store the readings as one measurement',
    measurement,
    storeCapture,
  ),
  instruments: call(at.instruments, 'The instruments as they stand', z.array(instrument)),
  addInstrument: begin(at.addInstrument, 'instrument', 'Add an instrument', instrument, newInstrument),
  editInstrument: act(
    at.editInstrument,
    'instrument',
    'Change an instrument’s name and data sheet',
    instrument,
    newInstrument,
  ),
  ports: call(at.ports, 'The serial ports of the bench machine', z.array(foundPort)),
  hearPort: call(
    at.hearPort,
    'What a device sends: asked again and again while it is set up; the port is let go a few seconds after the last time',
    heardLines,
    serialPort,
  ),
  retireInstrument: act(
    at.retireInstrument,
    'instrument',
    'Retire an instrument, or bring one back',
    instrument,
    retiredBody,
  ),
  plugHere: act(
    at.plugHere,
    'instrument',
    'Say that an instrument is plugged in at this bench machine',
    instrument,
    z.strictObject({}),
  ),
  takeReading: call(at.takeReading, 'Take a reading; it arrives on the stream', instrument, takeReading),
  cancelReading: call(at.cancelReading, 'Give up the reading under way', instrument, z.strictObject({})),
  standIn: call(
    at.standIn,
    'What lies on a stand-in, and whether its cable is plugged in',
    instrument,
    z.strictObject({ on: onStandIn.nullable().optional(), plugged: z.boolean().optional() }),
  ),
  calibrations: call(at.calibrations, 'Calibrations, newest first', z.array(calibration)),
  calibrate: begin(at.calibrate, 'instrument', 'Calibrate a machine with rods', calibration, newCalibration),
  measurements: call(at.measurements, 'Measurements of a frame, newest first', z.array(measurement)),
  addMeasurement: begin(at.addMeasurement, 'frame', 'Store a measurement', measurement, newMeasurement),
  correctMeasurement: begin(
    at.correctMeasurement,
    'measurement',
    'Put a measurement right: a new one takes its place',
    measurement,
    correction,
  ),
  countMeasurement: act(
    at.countMeasurement,
    'measurement',
    'Mark a measurement as wrong, or count it again',
    measurement,
    counting,
  ),
  ...setupCalls,
  guides: call(at.guides, 'The guides of all sports, as the shop has them', z.array(guideRow)),
  editGuide: act(
    at.editGuide,
    'guide',
    'Change a guide; its id is the sport, a hyphen and its name',
    guideRow,
    guideBandsOf,
  ),
  restoreGuide: act(at.restoreGuide, 'guide', 'A guide as it ships', guideRow, z.strictObject({})),
  parts: call(at.parts, 'The parts of the shop, retired ones too', z.array(partRow)),
  addPart: begin(at.addPart, 'part', 'Add a part', part, newPart),
  editPart: act(at.editPart, 'part', 'Change a part; plans keep it as it was', part, newPart),
  addStarters: begin(
    at.addStarters,
    'part',
    'Add common parts with typical weights, or with what a sample weighed',
    z.array(part),
    addStarters,
  ),
  weighPart: act(at.weighPart, 'part', 'Say what a sample of a part weighed', part, weighPart),
  retirePart: act(at.retirePart, 'part', 'Retire a part, or bring one back', partRow, retiredBody),
  learning: call(at.learning, 'What checked builds taught of rolls and of the hand', learning),
  actOnRoll: begin(
    at.actOnRoll,
    'part',
    'Take the correction of a roll, take it back, or begin another roll',
    learning,
    rollAct,
  ),
  openFitting: begin(at.openFitting, 'fitting', 'Open a fitting', fittingView, newFitting),
  fitting: call(at.fitting, 'A fitting with all its rounds', fittingView),
  editFitting: act(at.editFitting, 'fitting', 'Another player, or other frames', fittingView, editFitting),
  removeFitting: act(
    at.removeFitting,
    'fitting',
    'Remove a fitting that was opened by mistake, while it is empty',
    z.strictObject({ removed: z.literal(true) }),
    z.strictObject({}),
  ),
  closeFitting: begin(at.closeFitting, 'fitting', 'Close a fitting', fittingView, closeFitting),
  reopenFitting: begin(
    at.reopenFitting,
    'fitting',
    'Open a closed fitting again where it was, or with a new round of each frame',
    fittingView,
    reopenFitting,
  ),
  beginRound: begin(at.beginRound, 'fitting', 'Begin the next round of a frame', fittingView, newRound),
  startRound: act(
    at.startRound,
    'fitting',
    'Make a measurement of the frame the start of its round',
    fittingView,
    roundStart,
  ),
  setReferences: act(
    at.setReferences,
    'fitting',
    'Setups set beside the frame',
    fittingView,
    z.array(z.string()).max(20),
  ),
  setParts: act(at.setParts, 'fitting', 'Say which parts plans of a fitting may use', fittingView, partIds),
  setBeside: act(
    at.setBeside,
    'fitting',
    'Measured frames, guides and classes of shapes set beside the frame, as setups are',
    fittingView,
    z.array(besideKey).max(8),
  ),
  setAim: begin(at.setAim, 'fitting', 'Set the aim', aim, sentAim),
  choosePlan: begin(at.choosePlan, 'fitting', 'Choose a plan', plan, newPlan),
  markStep: begin(at.markStep, 'fitting', 'Mark a bench step', fittingView, newMark),
  signOff: begin(
    at.signOff,
    'fitting',
    'Judge a check against the aim, and note what is on the frame now',
    signOff,
    newSignOff,
  ),
  calendar: {
    ...at.calendar,
    summary: 'What sets and cures in a fitting, as a calendar file (RFC 5545)',
    answer: z.string(),
    body: undefined,
    query: undefined,
    download: 'text/calendar',
  },
  templateSvg: {
    ...at.templateSvg,
    summary: 'The head at true scale with the pieces of a plan on it; one user unit is a mm',
    answer: z.string(),
    body: undefined,
    query: templateQuery,
    download: 'image/svg+xml',
  },
  templatePdf: {
    ...at.templatePdf,
    summary: 'The same on as many sheets as it takes, with a bar to check the printer by',
    answer: z.string(),
    body: undefined,
    query: templateQuery,
    download: 'application/pdf',
  },
  beginProgramme: begin(
    at.beginProgramme,
    'fitting',
    'Begin a programme; another one of the frame ends',
    fittingView,
    newProgramme,
  ),
  actOnProgramme: begin(
    at.actOnProgramme,
    'fitting',
    'Pause a programme, go on, play once more, say the day, or end it',
    fittingView,
    actOnProgramme,
  ),
  takeStep: begin(
    at.takeStep,
    'fitting',
    'Take the next step of a programme: a round with its aim and its plan',
    fittingView,
    programmeStep,
  ),
  programmeOutlook: call(
    at.programmeOutlook,
    'The next step of a programme, ready to be laid out with the parts of the shop',
    programmeOutlook,
  ),
  sessionAnswer: call(
    at.sessionAnswer,
    'What follows from the last session of a frame without a programme',
    sessionAnswer,
  ),
  goBack: begin(
    at.goBack,
    'fitting',
    'Back to what was on the frame earlier: a round with its aim and its plan',
    fittingView,
    newBack,
  ),
  makeLink: begin(
    at.makeLink,
    'fitting',
    'A link by which the player notes one session; earlier ones of the round end',
    linkMade,
    newLink,
  ),
  linkPage: call(at.linkPage, 'What a link is for', linkPage),
  filmPage: call(at.filmPage, 'Of which frame a link takes films or photos', filmPage),
  sendFilm: {
    ...at.sendFilm,
    summary: 'Send a film or a photo of the frame by a link',
    answer: sentFilm,
    body: undefined,
    query: filmQuery,
    upload: ['video/*', ...PHOTO_TYPES],
  },
  addFilm: {
    ...at.addFilm,
    summary: 'A film or a photo of the frame from this device, to be kept with a reading or its outline',
    answer: sentFilm,
    body: undefined,
    query: filmQuery,
    upload: ['video/*', ...PHOTO_TYPES],
  },
  keepFilm: act(
    at.keepFilm,
    'frame',
    'Keep a film with the reading that it gave',
    z.array(keptFilm),
    keepFilm,
  ),
  removeFilm: act(at.removeFilm, 'frame', 'Remove a film that was kept', z.array(keptFilm), removeFilm),
  takeOutline: act(at.takeOutline, 'frame', 'Give a frame its own outline', frame, takenOutline),
  removeOutline: act(
    at.removeOutline,
    'frame',
    'Take its own outline from a frame, with the photo',
    frame,
    z.strictObject({}),
  ),
  makeFilmLink: call(
    at.makeFilmLink,
    'A link by which a phone sends films or photos of a frame, for an hour',
    filmLink,
    newFilmLink,
  ),
  sentFilms: call(at.sentFilms, 'Films of a frame that have come and are not read yet', z.array(sentFilm)),
  sentFilm: {
    ...at.sentFilm,
    summary: 'A film that has come',
    answer: z.string(),
    body: undefined,
    query: undefined,
    download: 'video/*',
  },
  dropFilm: call(
    at.dropFilm,
    'Forget a film that was read',
    z.strictObject({ dropped: z.literal(true) }),
    z.strictObject({}),
  ),
  noteByLink: {
    ...begin(
      at.noteByLink,
      'session',
      'Note the session that a link is for',
      z.strictObject({ stored: z.literal(true) }),
      linkSession,
    ),
    bodyMostBytes: OPEN_MOST_BYTES,
  },
  learnedOfPlayer: {
    ...call(at.learnedOfPlayer, 'What sessions of players alike say', learnedOfPlayer),
    query: learnedQuery,
  },
  season: call(at.season, 'A player’s matches and rests, and what is to be done by when', seasonPage),
  seasonCalendar: {
    ...at.seasonCalendar,
    summary: 'A player’s season as a calendar file (RFC 5545)',
    answer: z.string(),
    body: undefined,
    query: undefined,
    download: 'text/calendar',
  },
  addSeasonDate: begin(at.addSeasonDate, 'player', 'Note matches or a rest', seasonPage, newSeasonDate),
  readSeason: {
    ...begin(at.readSeason, 'player', 'Read matches and rests from a calendar file', seasonRead, seasonFile),
    bodyMostBytes: 1_200_000,
  },
  editSeasonDate: act(at.editSeasonDate, 'season', 'Change matches or a rest', seasonPage, editSeasonDate),
  removeSeasonDate: act(
    at.removeSeasonDate,
    'season',
    'Take matches or a rest out of the calendar',
    seasonPage,
    z.strictObject({}),
  ),
  playerPage: call(at.playerPage, 'A player with frames, fittings and sessions', playerPage),
  frameSessions: call(
    at.frameSessions,
    'Sessions with a frame, whoever played it; the newest first, at most 500',
    z.array(sessionRow),
  ),
  day: call(at.day, 'Follow-ups and calibrations that are due', day),
  addLookAgain: begin(at.addLookAgain, 'follow-up', 'Set a day to look again', lookAgain, newLookAgain),
  doneLookAgain: act(
    at.doneLookAgain,
    'follow-up',
    'Mark a follow-up as done, or open it again',
    lookAgain,
    z.strictObject({ done: z.boolean() }),
  ),
  search: {
    ...at.search,
    summary: 'Search players, frames, fittings, setups, parts and instruments',
    answer: searchAnswer,
    body: undefined,
    query: searchQuery,
  },
  changes: listing(at.changes, 'Who changed what and when, the newest first', changeRow, changesQuery),
  countSession: act(
    at.countSession,
    'session',
    'Mark a session as noted by mistake, or count it again',
    session,
    counting,
  ),
  addSession: begin(at.addSession, 'fitting', 'Note what was played and felt', session, newSession),
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

/** Calls that change the shop. */
export type ActName = { [N in CallName]: Calls[N] extends { changes: string } ? N : never }[CallName];
export type ReadName = Exclude<CallName, ActName>;
/** The body of an act without the key of its form. */
export type ActBodyOf<N extends ActName> = WithoutKey<ReadBodyOf<N>>;
type WithoutKey<B> = B extends readonly unknown[] | undefined
  ? B
  : B extends unknown
    ? Omit<B, 'key'>
    : never;
