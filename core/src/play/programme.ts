import type { FrameShape } from '../frame';
import type { AxisSpecs, Specs } from '../mass';
import { dataOf, type AnySport, type ZoneName } from '../sport';
import type { StringingJob, StringStep } from '../part';
import type { Day, Noted } from './felt';

/** Programmes: one change at a time, a session after each. */
export const PROGRAMMES = [
  'strings-first',
  'find-ceiling',
  'settle-face',
  'quiet-handle',
  'trim-evenly',
  'climb',
  'after-sore-arm',
  'half-way',
  'hot-cold',
] as const;
export type Programme = (typeof PROGRAMMES)[number];

/** What pages and calls need to know of a programme, so that none of them names one. */
export interface ProgrammeTraits {
  /** Each session says what kind of day it is for, and it goes on from day to day: no answer ends it. */
  asksForDay?: true;
  /** Sessions in a row that are played before the next step. */
  sessionsBetween: number;
  /** After so many changes it is left alone (common practice). */
  mostSteps: number;
  /** It goes toward another frame, which has to be said. */
  needsTarget?: true;
  /** Its name says that an arm was sore: it is left out where others may read it. */
  isPrivate?: true;
  /** Its first step goes by where players alike were happiest, where that is known. */
  goesByHappiest?: true;
  /** It takes load off, so it may begin after a sore session without a reason. */
  lightens?: true;
  /** It changes strings and nothing else: one lever at a time. */
  changesStrings?: true;
  /** When to look again after it, days: a growing player in half a year, else in six weeks (conventions). */
  lookAgainDays: number;
  lookAgainWhy: 'programme' | 'growing';
}
const USUAL_TRAITS: ProgrammeTraits = {
  sessionsBetween: 1,
  mostSteps: 7,
  lookAgainDays: 42,
  lookAgainWhy: 'programme',
};
const TRAITS: Partial<Record<Programme, ProgrammeTraits>> = {
  'strings-first': { ...USUAL_TRAITS, mostSteps: 3, changesStrings: true },
  'find-ceiling': { ...USUAL_TRAITS, goesByHappiest: true },
  climb: { ...USUAL_TRAITS, sessionsBetween: 2, goesByHappiest: true },
  'trim-evenly': { ...USUAL_TRAITS, lightens: true },
  'after-sore-arm': { ...USUAL_TRAITS, sessionsBetween: 3, lightens: true, isPrivate: true },
  'half-way': {
    sessionsBetween: 1,
    mostSteps: 7,
    needsTarget: true,
    lookAgainDays: 182,
    lookAgainWhy: 'growing',
  },
  'hot-cold': { ...USUAL_TRAITS, asksForDay: true },
};
/** @example programmeTraits('hot-cold').asksForDay // true */
export const programmeTraits = (programme: Programme): ProgrammeTraits => TRAITS[programme] ?? USUAL_TRAITS;

/** The programmes of a sport: where there are no strings none changes them. @example programmesOf('padel').includes('strings-first') // false */
export const programmesOf = (sport: AnySport): Programme[] =>
  PROGRAMMES.filter((one) => !programmeTraits(one).changesStrings || dataOf(sport).stringing);

/** Weight put on a zone, both its sides together; less than zero is taken off. */
export interface ZoneChange {
  zone: ZoneName;
  massG: number;
}
/** One change, and how it played; without a session it was not played yet. */
export interface Played {
  change: readonly ZoneChange[];
  /** What was done with its strings. */
  strings?: StringStep | undefined;
  session?: Noted | undefined;
}

export interface ProgrammeRequest {
  programme: Programme;
  shape: FrameShape;
  /** The frame before the first change of the programme. */
  specs: Specs;
  /** In the order in which it was played; the first change may be nothing, for the frame as it was. */
  history: readonly Played[];
  /** What lies on the frame already, in the specs: nothing if left out. */
  there?: readonly ZoneChange[] | undefined;
  /** The most that a zone takes, where that differs from the sport's own, g: nothing where no part of the shop goes. */
  caps?: Partial<Record<ZoneName, number>> | undefined;
  /** Where players alike were happiest, kg·cm²: how large the first step of a search or a climb is. */
  happiest?: { from: number; to: number } | undefined;
  /** What `half-way` goes half the way toward. */
  towards?: { massG: number; swingWeight: number } | undefined;
  /** The strings that are in now, as far as they are known: what `strings-first` changes. */
  bed?: (StringingJob & { isDue?: boolean | undefined }) | undefined;
  /** What `hot-cold` makes it ready for; a usual day if left out. */
  day?: Day | undefined;
}

/** Whether a programme goes on after a session. */
export const PROPOSAL_STATES = ['go-on', 'done', 'stopped'] as const;
export type ProposalState = (typeof PROPOSAL_STATES)[number];

/** Why a step is proposed, or why there is none. */
export const STEP_REASONS = [
  'play-first',
  'sore',
  'tired',
  'tired-as-found',
  'once-more',
  'energy-left',
  'twists',
  'steady',
  'back-to-ceiling',
  'not-firm',
  'firm',
  'still-heavy',
  'nothing-left',
  'carried',
  'not-yet',
  'good-again',
  'lighter-first',
  'back-again',
  'half-way-head',
  'half-way-handle',
  'half-way',
  'for-the-day',
  'as-the-day',
  'seven-steps',
  'stays-tired',
  'no-room',
  'too-tired',
  'dead-strings',
  'flies-long',
  'falls-short',
  'too-far',
  'arm-tires',
  'no-bite',
  'strings-suit',
  'weight-next',
  'say-depth',
  'depth-not-said',
] as const;
export type StepReason = (typeof STEP_REASONS)[number];

export interface Proposal {
  /** There is a next step; the programme has found what it looked for; or it was stopped for the player's sake. */
  state: ProposalState;
  /** What to change next; nothing where the same is to be played (once more), or nothing is left to do. */
  change: ZoneChange[];
  /** What to do with the strings next, of a programme that changes them. */
  strings?: StringStep | undefined;
  /** The frame after it. */
  specs: AxisSpecs;
  /** The swing weight that the player carries, with its standard uncertainty: twice that holds in 90 to 98 of 100 noisy searches (tested). */
  ceiling?: { swingWeight: number; uncertainty: number };
  reason: StepReason;
  /** Zones that take no more of what would have been next. */
  full?: ZoneName[] | undefined;
}
