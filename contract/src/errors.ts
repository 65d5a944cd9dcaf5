import { SPECS, type BrokenLimit, type FaultCode, type Problem } from '@kevro/core';

type Values = Record<string, number | string>;

/** Thrown inside a sentence that lacks a value: the plain sentence is said instead. */
class Lacking extends Error {}

const one = (value: number | string | undefined, digits = 1): string => {
  if (value === undefined) throw new Lacking();
  return typeof value === 'number' ? value.toFixed(digits) : value;
};

interface Entry {
  status: number;
  sentence: (v: Values) => string;
}

/** @param plain what is said where a value is missing that the sentence names; needed where it names any */
const entry = (status: number, sentence: string | ((v: Values) => string), plain = ''): Entry => ({
  status,
  sentence: (values) => {
    if (typeof sentence === 'string') return sentence;
    try {
      return sentence(values);
    } catch (error) {
      if (error instanceof Lacking) return plain;
      throw error;
    }
  },
});

/** Every error a user can meet: its HTTP status and its sentence. The API and the page both say these words. */
const TABLE = {
  // About numbers and frames
  'not-a-number': entry(422, 'This is not a number. Type digits, with a point or a comma.'),
  'not-positive': entry(422, 'This must be more than zero.'),
  'mass-negative': entry(422, 'A weight must be more than zero.'),
  'balance-off-frame': entry(
    422,
    (v) => `The balance point must be on the frame: between 0 and ${one(v.lengthCm)} cm from the butt.`,
    'The balance point must be on the frame, between the butt and the tip.',
  ),
  'swing-weight-impossible': entry(
    422,
    (v) =>
      `This ${SPECS.swingWeight.name} cannot go with this weight and balance: it must be more than ${one(v.least, 0)} kg·cm². Check all three.`,
    `This ${SPECS.swingWeight.name} cannot go with this weight and balance. Check all three.`,
  ),
  'twist-weight-impossible': entry(422, `A ${SPECS.twistWeight.name} must be more than zero.`),
  'removal-too-large': entry(422, 'More would be taken off than is there.'),
  'spot-off-frame': entry(422, 'This place is not on the frame.'),
  'part-unknown': entry(422, 'The shop has no such part.'),
  'not-weighed': entry(422, 'This part has no weight of its own to enter.'),
  'span-not-positive': entry(422, 'A length must be more than zero.'),
  'head-too-large': entry(
    422,
    (v) =>
      `The head of ${one(v.headLengthCm)} cm and the handle of ${one(v.handleLengthCm)} cm do not fit in ${one(v.lengthCm)} cm.`,
    'The head and the handle do not fit in the length of the frame.',
  ),
  'outline-not-a-head': entry(
    422,
    'This outline is no head: it runs from the tip to the bottom of the head along one side, and never back.',
  ),
  'outline-hoop-too-wide': entry(422, 'The hoop can’t be that wide: hardly any bed would be left.'),
  'twist-not-measured': entry(
    422,
    `The aim names a ${SPECS.twistWeight.name}, but none was measured. Measure it, or set the ${SPECS.twistWeight.name} to any.`,
  ),
  'tolerance-not-positive': entry(422, 'A tolerance must be more than zero.'),
  'share-out-of-range': entry(422, 'Choose a share between 0 and 100 %.'),
  'amplitude-out-of-range': entry(
    422,
    'The angle is between 0 and 60 degrees, and no larger at the end than at the start.',
  ),
  'pendulum-at-balance': entry(
    422,
    'The pivot is too near the balance point to swing. Hang the frame nearer to an end.',
  ),
  'pendulum-impossible': entry(
    422,
    'These swings are too quick for this weight and balance. Check the pivot, the number of swings and the seconds.',
  ),
  'missing-readings': entry(422, 'At least one reading is needed.'),
  'needs-weight-and-balance': entry(422, 'This needs the weight and the balance first.'),
  'not-of-this-sport': entry(422, 'This is not measured in this sport. Leave it out.'),
  'needs-face-on': entry(422, `Edge-on needs a face-on reading of the ${SPECS.swingWeight.name} beside it.`),
  'too-few-rods': entry(422, 'At least two rods of different value are needed.'),
  'strings-stay': entry(422, 'Its strings stay in: plan for it strung.'),
  'no-calendar': entry(
    422,
    'This is no calendar file. Save it as .ics from your calendar, and drop it here again.',
  ),
  'ends-before': entry(422, 'It ends before it begins.'),
  'no-strings': entry(422, 'This sport plays without strings.'),
  'one-lever': entry(
    422,
    'This programme changes strings only: one thing at a time. End it before weight is moved.',
  ),
  'empty-aim': entry(422, 'Aim at one number at least.'),
  'nothing-stated': entry(
    422,
    `At least one of weight, balance, ${SPECS.swingWeight.name} and ${SPECS.twistWeight.name} is needed.`,
  ),
  unlikely: entry(
    422,
    (v) => `Unlikely for this sport. Check the number and the unit. Expected is ${one(v.range)}.`,
    'Unlikely for this sport. Check the number and the unit.',
  ),
  'tolerance-without-value': entry(422, 'Enter the value as well as its tolerance.'),
  'tolerance-too-large': entry(422, 'The tolerance must be less than the value itself.'),
  'heavier-than-metal': entry(
    422,
    'No material is as heavy as this for its width and thickness. Look at the digits and the units.',
  ),
  'band-backwards': entry(422, 'This end must be above the other.'),
  'set-size': entry(422, 'A set has two to six frames.'),
  'over-rule-limit': entry(
    422,
    (v) => `The ${one(v.what)} of ${one(v.value)} is over the limit of ${one(v.most)} (${one(v.source)}).`,
    'This is over the limit that the rules set.',
  ),
  // About requests
  missing: entry(422, 'Required.'),
  'unknown-key': entry(
    422,
    (v) => `“${one(v.key)}” is not known here.`,
    'There is something here that is not known.',
  ),
  'not-among-choices': entry(422, (v) => `Choose one of: ${one(v.choices)}.`, 'Choose one of the options.'),
  'not-text': entry(422, 'This must be text.'),
  'too-short': entry(
    422,
    (v) => `This is too short: at least ${one(v.least, 0)} characters.`,
    'This is too short.',
  ),
  'too-long': entry(422, (v) => `This is too long: at most ${one(v.most, 0)}.`, 'This is too long.'),
  'not-whole': entry(422, 'This must be a whole number.'),
  'out-of-range': entry(422, (v) => `This is out of range: ${one(v.range)}.`, 'This is out of range.'),
  'bad-input': entry(422, 'Not valid here.'),
  'not-json': entry(400, 'The request is not readable JSON.'),
  'not-sent-as-json': entry(415, 'Send JSON, and say so: application/json.'),
  'unreadable-text': entry(422, 'This text has a character that can’t be saved. Type it again.'),
  'foreign-name': entry(403, 'Unknown address. Use the one shown at the bench.'),
  'foreign-page': entry(403, 'Blocked: this request came from another site.'),
  'disk-full': entry(507, 'Disk almost full: saving is off until you free space. Existing data is safe.'),
  'backup-under-way': entry(409, 'A backup is being made already. Wait until it is done.'),
  'restore-under-way': entry(409, 'A backup is being restored. Wait until Kevro has started again.'),
  'restore-by-command': entry(409, 'Restore with the command here: npm run restore.'),
  'wrong-backup': entry(422, ({ why }) => one(why), 'This backup can’t be used. Nothing was changed.'),
  'sign-in': entry(401, 'Sign in to the shop first.'),
  'owner-only': entry(403, 'Only an owner of the shop may do this.'),
  'no-such-shop': entry(404, 'There is no shop by that name here. Ask for it in the shop.'),
  'not-named': entry(409, 'You are signed in without a name: there is no passphrase of your own.'),
  'reader-only': entry(403, 'You may look at the shop’s work, not change it. An owner can give you more.'),
  'bench-only': entry(403, 'This can be done only on the bench machine itself.'),
  'too-many-tries': entry(
    429,
    (v) => `There were too many wrong tries. Wait ${one(v.seconds, 0)} s, then try again.`,
    'There were too many wrong tries. Wait a little, then try again.',
  ),
  'no-network': entry(409, 'This machine is on no network: nobody else can reach it.'),
  'no-passphrase': entry(
    409,
    'The shop has no passphrase yet. Set one on the bench machine, under Settings, Other devices.',
  ),
  'name-kept': entry(422, 'Kevro uses this name itself. Give the device another one.'),
  'aim-outdated': entry(409, 'Another target was set meanwhile. Look at it, then set yours.'),
  'check-outdated': entry(409, 'The check was measured again or corrected. Sign off the latest check.'),
  'not-played-yet': entry(422, 'This day has not come yet. Enter the day it was played.'),
  'wrong-passphrase': entry(422, 'This is not right. A code works once, for ten minutes.'),
  'not-the-name': entry(422, 'Type the name as it is written there: what is erased does not come back.'),
  busy: entry(503, 'Busy. Try again in a few seconds.'),
  'too-large': entry(413, 'The request is too large.'),
  'not-found': entry(404, 'There is nothing here by that name.'),
  'already-there': entry(
    409,
    (v) => `There is already one: ${one(v.what)}.`,
    'There is already one like this.',
  ),
  'programme-over': entry(409, 'This programme has ended. Begin another one.'),
  'no-step': entry(409, 'There is no next step yet: play first, and note how it felt.'),
  'marked-meanwhile': entry(
    409,
    (v) => `Marked ${one(v.mark)} elsewhere meanwhile. Look at the step, then mark it.`,
    'Marked elsewhere meanwhile. Look at the step, then mark it.',
  ),
  'step-outdated': entry(409, 'Something changed. Check the new proposal.'),
  'check-first': entry(
    409,
    'Finish and check what is being built first: the next step starts from numbers that are known.',
  ),
  'step-short': entry(
    409,
    (v) =>
      `The shop has nothing to do this step with: ${one(v.what)}. Add a part under Stock, or take another step.`,
    'The shop has nothing to do this step with. Add a part under Stock, or take another step.',
  ),
  'note-for-sore': entry(
    422,
    'The arm was sore in the last session. Say in a note why more is tried, or come back after a sore arm first.',
  ),
  'note-for-own-step': entry(422, 'Say in a note why another step is taken than the proposed one.'),
  'nothing-kept': entry(409, 'No record of what was on it then, so it can’t be restored.'),
  'nothing-to-go-back': entry(409, 'The frame is as it was then: there is nothing to change.'),
  'link-used': entry(410, 'This link was already used. Ask the shop for a new one.'),
  'link-ended': entry(410, 'This link has ended. Ask in the shop for another one.'),
  'nothing-measured': entry(409, 'Measure the frame first.'),
  'nothing-sets': entry(
    404,
    'Nothing sets or cures in this fitting now, so there is nothing for a calendar.',
  ),
  'nothing-planned': entry(409, 'Choose a plan first.'),
  'fitting-closed': entry(409, 'This fitting is closed. Open it again to go on.'),
  'fitting-open': entry(409, 'This fitting is open already.'),
  'fitting-exists': entry(
    409,
    (v) =>
      `${one(v.player)} and ${one(v.frame)} have an open fitting already. Continue that one, or open another anyway.`,
    'This player and frame have an open fitting already.',
  ),
  'fitting-not-empty': entry(
    409,
    'Something was measured, aimed at or planned in this fitting: it is not removed. Close it instead, and nothing is lost.',
  ),
  'frame-has-work': entry(
    409,
    (v) =>
      `There is work on ${one(v.frame)} in this fitting: it stays. Close the fitting, and open one with the other frame.`,
    'There is work on that frame in this fitting: it stays.',
  ),
  'measurement-superseded': entry(
    409,
    'This measurement was corrected already. Correct the one that took its place.',
  ),
  'no-time-zone': entry(422, 'This is no time zone. Choose one from the list.'),
  'stored-already': entry(
    409,
    'This form was stored once already, with other content. Look at what was stored, then open a new form.',
  ),
  'key-used': entry(
    409,
    'This was sent before for something else. Nothing was stored; send it again with a key of its own.',
  ),
  'guard-unanswered': entry(422, 'Serious warning. Give a reason to go on.'),
  'outside-needs-note': entry(422, 'Out of tolerance. Trim it, or give a reason to sign off anyway.'),
  'nothing-aimed': entry(409, 'Set an aim first.'),
  'capture-incomplete': entry(
    409,
    `Weight, balance and ${SPECS.swingWeight.name} are needed before a measurement can be stored.`,
  ),
  'capture-gone': entry(409, 'These readings changed elsewhere. Showing the latest.'),
  'nothing-on-it': entry(
    409,
    (v) => `Nothing on ${one(v.name)}. Place the frame, then read.`,
    'Nothing on the instrument. Place the frame, then read.',
  ),
  'not-what-it-reads': entry(
    409,
    (v) => `This is not what ${one(v.name)} reads. Choose another instrument.`,
    'This is not what the instrument reads. Choose another one.',
  ),
  'instrument-busy': entry(
    409,
    (v) => `A reading is under way on ${one(v.name)}. Wait for it, or stop it.`,
    'A reading is under way. Wait for it, or stop it.',
  ),
  'calibration-refused': entry(
    409,
    (v) =>
      `The last calibration refused ${one(v.name)}. Have it set right and calibrate it again before it measures.`,
    'The last calibration refused this instrument. Have it set right and calibrate it again before it measures.',
  ),
  'instrument-retired': entry(
    409,
    (v) => `${one(v.name)} is retired. Bring it back under Instruments, or take another one.`,
    'This instrument is retired. Bring it back, or take another one.',
  ),
  'instrument-elsewhere': entry(
    409,
    (v) => `${one(v.name)} is plugged in at ${one(v.bench)}. Read it there; the readings are seen here too.`,
    'This instrument is plugged in at another bench. Read it there; the readings are seen here too.',
  ),
  'not-a-machine': entry(409, `Only a ${SPECS.swingWeight.name} machine is calibrated with rods.`),
  'not-a-film': entry(415, 'This is no film. Choose one that the phone filmed.'),
  'not-a-photo': entry(415, 'This is no photo. Choose one that the phone took: JPEG, PNG or WebP.'),
  // About devices at a port
  'port-missing': entry(
    409,
    'Nothing is plugged in at this port. Plug the device in, or choose its port again.',
  ),
  'port-held': entry(409, 'Another program on the bench machine has this port open. Close that program.'),
  'port-forbidden': entry(
    409,
    'The bench machine does not let Kevro open this port. Its user needs the right to: on Linux the group is mostly dialout.',
  ),
  'port-unusable': entry(
    409,
    'This port can’t be opened with these settings. Look at speed, bits and parity.',
  ),
  'not-a-port': entry(422, 'This is no port of the bench machine. Choose one from the list.'),
  'port-floods': entry(
    409,
    'The device sends without a pause or a line end. Look at the speed and what it is set to send.',
  ),
  'half-lines': entry(409, 'Lines come broken. Look at the cable, and at speed, bits and parity.'),
  'line-unread': entry(
    409,
    'The device sends lines that it was not set up with. Set it up again under Instruments.',
  ),
  'no-answer': entry(409, 'The device does not answer. Switch it on, and look up what asks it.'),
  'over-load': entry(409, 'Overload: the device says that too much is on it.'),
  'under-load': entry(
    409,
    'Underload: something is missing on the device. Put its pan on, or set it to zero.',
  ),
  'needs-a-port': entry(422, 'Say at which port the device is, and how its lines are read.'),
  // About files
  'no-unit': entry(
    422,
    (v) => `Say the unit of these numbers: ${one(v.choices)}.`,
    'Say the unit of these numbers.',
  ),
  'not-a-table': entry(
    422,
    'This is not a list that can be read: the first line must name the columns. Save it as CSV and try again.',
  ),
  'too-many-columns': entry(
    422,
    (v) => `This has more than ${one(v.most, 0)} columns.`,
    'This has too many columns.',
  ),
  'too-many-cells': entry(
    422,
    (v) =>
      `This row has more than the ${one(v.most, 0)} cells that the first line names. Put text with a separator in it, or numbers with a comma, in quotes.`,
    'This row has more cells than the first line names.',
  ),
  'no-columns-known': entry(
    422,
    'No column of this list is known: its first line must name them. Say what each column is.',
  ),
  'compressed-file': entry(422, 'This is a zip or spreadsheet file. Save it as CSV and try again.'),
  'not-setups-file': entry(422, 'This is JSON, but not a list of setups.'),
  'import-cancelled': entry(409, 'The import was stopped. Nothing was stored.'),
  'import-under-way': entry(409, 'Another import is under way. Wait until it is done.'),
  'cannot-reach-server': entry(503, 'Can’t reach Kevro. What you typed is kept. Try again.'),
  starting: entry(503, 'Kevro is starting. Try again in a few seconds.'),
  'database-away': entry(
    503,
    'The database does not answer. Check whether your change was saved, then try again.',
  ),
  internal: entry(500, 'Something went wrong. Check whether your change was saved, then try again.'),
} satisfies Record<FaultCode, Entry> & Record<string, Entry>;
export type ErrorCode = keyof typeof TABLE;

export const ERROR_CODES = Object.keys(TABLE) as ErrorCode[];

/** The sentence of an error, with its values put in. */
export const sentence = (code: ErrorCode, values: Values = {}): string => TABLE[code].sentence(values);

/** The HTTP status of an error. */
export const statusOf = (code: ErrorCode): number => TABLE[code].status;

/** One thing wrong, as the API says it. */
export interface FieldError {
  path: string;
  message: string;
  code: ErrorCode;
}

export const fieldError = ({ code, path, values }: Problem): FieldError => ({
  path,
  code,
  message: sentence(code, values),
});

const LIMIT_WORDS: Record<BrokenLimit['of'], string> = {
  length: 'length',
  width: 'width',
  'length-plus-width': 'length and width together',
  'face-length': 'face length',
  'face-width': 'face width',
};

const inCm = (cm: number): string => `${cm.toFixed(1)} cm`;
/** What a broken rule limit says: the value, the published limit and where it is published. @param say a length with its unit */
export const limitSentence = (
  { of, valueCm, mostCm, source }: BrokenLimit,
  say: (cm: number) => string = inCm,
): string =>
  sentence('over-rule-limit', { what: LIMIT_WORDS[of], value: say(valueCm), most: say(mostCm), source });
