import { z } from 'zod';
import { CHANGED, DAYS, PROGRAMMES, SPECS } from '@kevro/core';
import { happiestRange, nextStepAnswer } from '../compute';
import {
  axisSpecs,
  date,
  knownSpecs,
  noted,
  sessionNoted,
  sport,
  standardUncertainty,
  zoneChanges,
} from '../shapes';
import { frame, stringBed, stringing } from './frame';
import { placedPart, removal, stringingJob } from './placement';
import { player } from './player';
import { inAll, key, text } from './text';

const by = text(80).default('');
const note = text(500).default('');

/** What is done about a programme. */
export const PROGRAMME_ACTS = ['once-more', 'pause', 'resume', 'day', 'end'] as const;
export type ProgrammeAct = (typeof PROGRAMME_ACTS)[number];
const EVENTS = [...PROGRAMME_ACTS, 'step', 'own-step'] as const;

const towards = z
  .strictObject({ massG: z.number().positive().max(1000), swingWeight: z.number().positive().max(1000) })
  .nullable()
  .default(null)
  .describe('what it goes half the way toward');

export const newProgramme = z.strictObject({
  key,
  frameId: z.string(),
  name: z.enum(PROGRAMMES),
  towards,
  happiest: happiestRange
    .nullable()
    .default(null)
    .describe(
      `the ${SPECS.swingWeight.name} at which players alike were happiest: how large its first step is`,
    ),
  note: note.describe('needed where the arm was sore in the last session'),
  by,
});
export const actOnProgramme = z.strictObject({
  programmeId: z.string(),
  act: z.enum(PROGRAMME_ACTS),
  day: z.enum(DAYS).optional().describe('what the frame is made ready for'),
  lookAgainOn: date.optional().describe('when an ended one is looked at again'),
  note,
  by,
});
export const programmeStep = z.strictObject({
  key,
  programmeId: z.string(),
  sessions: z.int().min(0).describe('how many sessions the step was proposed from'),
  change: zoneChanges.min(1).optional().describe('another step than the proposed one, with a note'),
  note,
  by,
});

/** The next step of a programme, with what the fitter lays on and takes off. */
export const programmeNext = nextStepAnswer.extend({
  felt: sessionNoted.nullable().describe('the last session that it answers'),
  ready: z
    .strictObject({
      placements: z.array(placedPart),
      removals: z.array(removal),
      job: stringingJob.nullable().describe('new strings, and how they are to go in'),
      before: axisSpecs.describe('what the frame measures now'),
      specs: axisSpecs.describe('after it'),
      short: zoneChanges.describe('what of it cannot be done with the parts of the shop'),
    })
    .nullable(),
  waitsFor: z
    .enum(['measure', 'build', 'check'])
    .nullable()
    .describe('what is to be done before the next step can be laid out'),
});
export const programmeView = newProgramme.omit({ key: true, frameId: true }).extend({
  id: z.string(),
  begunAt: z.string(),
  roundId: z.string().describe('the round in which it begins'),
  sessionsBefore: z.number().describe('of that round, and no part of it'),
  startId: z.string().describe('what the frame measured then'),
  state: z.enum(['running', 'paused', 'ended']),
  sessions: z.number().describe('of the programme, so far'),
  events: z.array(
    z.strictObject({
      what: z.enum(EVENTS),
      at: z.string(),
      day: z.enum(DAYS).nullable(),
      note: z.string(),
      by: z.string(),
    }),
  ),
});
export type ProgrammeView = z.output<typeof programmeView>;

/** What comes next in a programme: worked out when somebody looks at it. */
export const programmeOutlook = z.strictObject({
  next: programmeNext.nullable().describe('null for one that is paused or ended'),
  trouble: z.string().nullable().describe('why the next step could not be worked out'),
});
export type ProgrammeOutlook = z.output<typeof programmeOutlook>;

/** What follows from the last session of a frame on which no programme goes on: the programme that suits it, and its first step. */
export const sessionAnswer = programmeOutlook.extend({
  programme: z.enum(PROGRAMMES).nullable().describe('null where nothing was played in this round'),
});
export type SessionAnswer = z.output<typeof sessionAnswer>;

/** Back to what was on the frame when a round began, or when its build was signed off. */
export const newBack = z.strictObject({
  key,
  frameId: z.string(),
  toRoundId: z.string(),
  which: z.enum(['found', 'built']),
  note,
  by,
});

export const newLink = z.strictObject({ roundId: z.string(), days: z.int().min(1).max(60).default(14) });
export const linkMade = z.strictObject({
  code: z.string().describe('for one session'),
  endsAt: z.string(),
  address: z.string().nullable().describe('null while the shop is reached from this machine only'),
  picture: z.string().nullable().describe('that address as a QR code, SVG'),
});
/** What a player sees who comes by a link: the frame in hand, and nothing else of the shop. */
export const linkPage = z.strictObject({
  shop: z.string(),
  frame: z.strictObject({ maker: z.string(), model: z.string(), tag: z.string(), sport }),
  endsAt: z.string(),
  asksOfBall: z.boolean().describe('a programme that goes on looks at where balls landed'),
  noted: z.boolean().describe('the session was noted; the link does no more'),
});
export const linkSession = z.strictObject({
  key,
  playedOn: date,
  ...noted,
  note: text(1000).default(''),
  by,
});

/** Why somebody is to be looked at again. */
export const LOOK_AGAIN_WHYS = ['growing', 'programme', 'asked'] as const;
export const newLookAgain = z.strictObject({
  playerId: z.string(),
  fittingId: z.string().nullable().default(null),
  dueOn: date,
  why: z.enum(LOOK_AGAIN_WHYS),
  note,
});
export const lookAgain = newLookAgain.extend({
  id: z.string(),
  playerName: z.string(),
  setAt: z.string(),
  doneAt: z.string().nullable(),
});
export type LookAgain = z.output<typeof lookAgain>;

/** What the day asks for beside the fittings. */
export const day = z.strictObject({
  matches: z
    .array(
      z.strictObject({
        playerId: z.string(),
        playerName: z.string(),
        fromDay: z.string(),
        title: z.string(),
      }),
    )
    .describe('of the next two weeks, the first first; at most 20'),
  lookAgain: z.strictObject({ rows: z.array(lookAgain), total: z.number() }),
  calibrations: z.array(
    z.strictObject({ id: z.string(), name: z.string(), calibratedAt: z.string().nullable() }),
  ),
});

/** A session as it stands in a history, with what it was played with. */
export const sessionRow = z.strictObject({
  id: z.string(),
  fittingId: z.string(),
  frameId: z.string(),
  tag: z.string(),
  sport,
  round: z.number(),
  playedOn: z.string(),
  ...noted,
  note: z.string(),
  by: z.string(),
  counts: z.boolean(),
  specs: knownSpecs.describe('as it was last measured before, in its round'),
});
export type SessionRow = z.output<typeof sessionRow>;
export const SESSIONS_SHOWN = 500;
export const playerPage = z.strictObject({
  player,
  ceilings: z.partialRecord(
    sport,
    z.strictObject({
      swingWeight: z.number(),
      uncertainty: standardUncertainty
        .nullable()
        .describe('standard uncertainty (one sigma); null where the ceiling was typed'),
      on: z.string().nullable(),
    }),
  ),
  frames: z.array(frame),
  fittings: z.array(
    z.strictObject({
      id: z.string(),
      openedAt: z.string(),
      closedAt: z.string().nullable(),
      frames: z.array(z.strictObject({ id: z.string(), tag: z.string(), round: z.number() })),
    }),
  ),
  sessions: z.array(sessionRow).describe('the newest first, at most 500'),
  sessionCount: z.number(),
  strings: z.array(z.strictObject({ frameId: z.string(), tag: z.string(), stringing })),
  beds: z.array(stringBed.extend({ tag: z.string() })).describe('what is in the frames now'),
  advised: z.array(
    z.strictObject({
      at: z.string(),
      fittingId: z.string(),
      tag: z.string(),
      round: z.number(),
      what: z.enum(['aim', 'programme', 'step']),
      words: z.string(),
      note: z.string(),
      by: z.string(),
    }),
  ),
  lookAgain: z.array(lookAgain),
});
export type PlayerPage = z.output<typeof playerPage>;

export const FOUND_KINDS = ['player', 'frame', 'fitting', 'setup', 'part', 'instrument'] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];
export const searchQuery = z.strictObject({ q: z.string().trim().max(80).default('') });
/** What a search finds, kind by kind: the first few of each, and how many there are. */
export const searchAnswer = z.array(
  z.strictObject({
    kind: z.enum(FOUND_KINDS),
    ...inAll,
    rows: z.array(z.strictObject({ id: z.string(), title: z.string(), detail: z.string() })),
  }),
);

export const changesQuery = z.strictObject({
  limit: z.coerce.number().int().min(1).max(500).default(100),
  offset: z.coerce.number().int().min(0).default(0),
});
/** Who changed what and when. */
export const changeRow = z.strictObject({
  at: z.string(),
  who: z.string().describe('the device, and who said so'),
  call: z.string(),
  what: z.string().describe('the call in words'),
  record: z.string().nullable(),
  recordId: z.string().nullable(),
  title: z.string().describe('what the record is called now; empty where it has gone'),
});

const players = z.int().describe('how many players it rests on');
const sessions = z.int().describe('how many sessions of theirs');
/** What sessions of players alike say, without a name; nothing of fewer than eight players. */
export const learnedOfPlayer = z.strictObject({
  on: z.boolean().describe('false where the shop switched it off'),
  players,
  sessions,
  told: z.array(
    z.strictObject({
      what: z.enum(CHANGED),
      of: z.enum(['kind', 'all']).describe('players alike in age, level and style, or all of the shop'),
      players,
      sessions,
      perStep: z
        .strictObject({ mean: z.number(), uncertainty: standardUncertainty })
        .describe('what one step more goes with, in the note of a session from −1 to 1'),
      says: z.enum(['more', 'less']),
      happiest: z
        .strictObject({ from: z.number(), to: z.number() })
        .describe('where the middle half of them were happiest'),
    }),
  ),
  among: z.array(
    z.strictObject({
      what: z.enum(CHANGED),
      own: z.number().describe('where this player is happiest by own sessions alone'),
      among: z.number().describe('the same, as players alike pull it'),
    }),
  ),
});
export type LearnedOfPlayer = z.output<typeof learnedOfPlayer>;
export const learnedQuery = z.strictObject({ sport });
