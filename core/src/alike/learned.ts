import { probit } from 'simple-statistics';
import { loadsArm } from '../aim';
import { NOTE_USUALS } from '../play';
import type { AnySport } from '../sport';
import { quantileOf } from '../units';
import { ALL, PRIOR, aloneOf, judgedOf, levelsOf, perStepOf, type Levels, type PerStep } from './levels';
import { CHANGED, ownWord, noteSpread, type Changed, type OwnWord, type SessionPlayed } from './played-alike';

/** All sessions of one player in one sport, without a name: the first played first. */
export interface OfPlayer {
  /** What kind of player: see {@link kindName}. */
  kind: string;
  played: readonly SessionPlayed[];
}

/** Below so many players nothing is said: who a few are could be guessed. */
export const LEAST_PLAYERS = 8;
/** Players of a kind differ by this much at the least. */
const LEAST_APART = 0.05;
/** One step from the happiest costs this much of the note (a convention): half a step off is then the slope that a step is usually worth. */
const FALL = NOTE_USUALS.perStep;
/** Nobody's happiest is said to lie further from what they played than this, in steps. */
const FURTHEST = 1;
/** How often a shop with nothing to be learned may be told something, of a hundred. */
const FALSE_SHARE = 0.05;
const SETTLING_ROUNDS = 8;
/** Own sessions from which on others move a player by no more than this, in steps; with fewer, by as much more. */
const OWN = { sessions: 20, steps: 0.25 };

/** What the players of a kind, or all of the shop, say of one change. */
export interface LearnedChange {
  what: Changed;
  of: 'kind' | 'all';
  players: number;
  sessions: number;
  perStep: PerStep;
  says: 'more' | 'less';
  /** Where the middle half of these players were happiest, in the unit of what is changed. */
  happiest: { from: number; to: number };
}
/** What is known of one player among the others. */
export interface Among {
  what: Changed;
  /** The happiest by own sessions alone, and as the others pull it: never further than a limit that shrinks with own sessions. */
  own: number;
  among: number;
}
export interface LearnedOfShop {
  /** Plain enough to be said, by kind; of all players under ''. */
  told: Map<string, LearnedChange[]>;
  /** Where each player stands, in the order of the players. */
  among: Among[][];
  /** Players whose sessions say anything at all, and their sessions. */
  players: number;
  sessions: number;
}

/** How far from what was played the happiest lies, in steps: where the note is as level as it gets. Never beyond what was played by more than a step. */
const offIn = (perStep: number, { least, most }: { least: number; most: number }): number =>
  Math.min(
    Math.min(FURTHEST, most + FURTHEST),
    Math.max(Math.max(-FURTHEST, least - FURTHEST), perStep / (2 * FALL)),
  );

/** Who says something of a change: it differed by a step at the least while it was played. */
const says = (word: OwnWord, k: number): boolean => {
  const around = word.around[k];
  return around !== undefined && around.most - around.least >= 1;
};

/** Words and beliefs, with how players of a kind differ found along the way. */
function settled(
  sport: AnySport,
  players: readonly OfPlayer[],
  kindOf: readonly string[],
  explained: readonly (readonly number[])[],
): { words: OwnWord[]; levels: Levels; apart: number[] } {
  const spread = noteSpread(players, explained);
  const words = players.map(({ played }) => ownWord(sport, played, spread));
  let apart: number[] = ALL.map(() => PRIOR.player);
  let levels = levelsOf(words, kindOf, apart);
  for (let round = 0; round < SETTLING_ROUNDS; round++) {
    apart = ALL.map((k) => {
      const heard = words.flatMap((word, i) => (says(word, k) ? [i] : []));
      if (heard.length < LEAST_PLAYERS) return PRIOR.player;
      const squares = heard.reduce((all, i) => {
        const own = levels.players[i];
        const kind = levels.kinds.get(kindOf[i] ?? '');
        return all + ((own?.mean[k] ?? 0) - (kind?.mean[k] ?? 0)) ** 2 + (own?.variance[k] ?? 0);
      }, 0);
      return Math.max(LEAST_APART, Math.sqrt(squares / heard.length));
    });
    levels = levelsOf(words, kindOf, apart);
  }
  return { words, levels, apart };
}

/**
 * What a shop's sessions say of each kind of change: a hierarchical normal model, players within kinds within all (Lindley and Smith 1972; Gelman et al., Bayesian Data Analysis, ch. 5
 * and 15), on the note per step of each player, others being equal ({@link ownWord}). How players differ is found by expectation and maximisation (Dempster, Laird and Rubin 1977), never
 * below a least. Said is only what lies further from nothing than chance allows over all that was looked at together (Bonferroni; Dunn 1961), of eight players or more. A player is moved by
 * the others by no more than a limit (limited translation; Efron and Morris 1971): a quarter of a step with twenty own sessions. Deterministic; nobody is named.
 * @param players in one sport; those without a change between sessions say nothing
 * @example learnedOfShop('tennis', players).told.get('') // [{ what: 'swingWeight', says: 'more', players: 11, … }]
 */
export function learnedOfShop(sport: AnySport, players: readonly OfPlayer[]): LearnedOfShop {
  const kindOf = players.map(({ kind }) => kind);

  const first = settled(sport, players, kindOf, []);
  // What changes explain is no feel of the setups: found once as if they explained nothing, then from what they leave.
  const explained = first.words.map((word, i) =>
    (players[i]?.played ?? []).map((_, n) =>
      ALL.reduce((all, k) => all + (word.steps[k]?.[n] ?? 0) * (first.levels.players[i]?.mean[k] ?? 0), 0),
    ),
  );
  const { words, levels, apart } = settled(sport, players, kindOf, explained);

  const among = words.map((word, i): Among[] => {
    const own = aloneOf(word);
    const count = players[i]?.played.length ?? 0;
    const limit = (OWN.steps * OWN.sessions) / Math.max(1, count);
    return ALL.flatMap((k): Among[] => {
      const around = word.around[k];
      if (!around || !says(word, k)) return [];
      const byOwn = offIn(own[k] ?? 0, around);
      const byAll = offIn(levels.players[i]?.mean[k] ?? 0, around);
      const moved = Math.min(limit, Math.max(-limit, byAll - byOwn));
      const value = (off: number): number => around.mean + off * around.step;
      return [{ what: CHANGED[k] as Changed, own: value(byOwn), among: value(byOwn + moved) }];
    });
  });

  /** Whoever of a level says something of a change; nobody where they are too few. */
  const heardOf = (level: string, k: number): number[] => {
    const heard = words.flatMap((word, i) =>
      says(word, k) && (level === '' || kindOf[i] === level) ? [i] : [],
    );
    return heard.length < LEAST_PLAYERS ? [] : heard;
  };
  // A kind to which all belong is looked at once.
  const kinds = new Set(kindOf);
  const looked = ['', ...(kinds.size > 1 ? kinds : [])].flatMap((level) =>
    ALL.flatMap((k) => {
      const heard = heardOf(level, k);
      return heard.length > 0 ? [{ level, k, heard }] : [];
    }),
  );
  const plain = looked.length > 0 ? probit(1 - FALSE_SHARE / (2 * looked.length)) : Infinity;
  const told = new Map<string, LearnedChange[]>();
  for (const { level, k, heard } of looked) {
    const what = CHANGED[k] as Changed;
    const judged = judgedOf(
      heard.flatMap((i) => words[i] ?? []),
      apart,
      k,
    );
    if (Math.abs(judged.mean) <= plain * judged.uncertainty) continue;
    const perStep = perStepOf(levels, level, k);
    const happiest = heard
      .flatMap((i) => among[i]?.find((one) => one.what === what)?.among ?? [])
      .toSorted((a, b) => a - b);
    const one: LearnedChange = {
      what,
      of: level === '' ? 'all' : 'kind',
      players: heard.length,
      sessions: heard.reduce((all, i) => all + (players[i]?.played.length ?? 0), 0),
      perStep,
      says: perStep.mean > 0 ? 'more' : 'less',
      happiest: { from: quantileOf(happiest, 0.25), to: quantileOf(happiest, 0.75) },
    };
    told.set(level, [...(told.get(level) ?? []), one]);
  }
  const speaking = words.flatMap((word, i) => (ALL.some((k) => says(word, k)) ? [i] : []));
  return {
    told,
    among,
    players: speaking.length,
    sessions: speaking.reduce((all, i) => all + (players[i]?.played.length ?? 0), 0),
  };
}

/** What is said of a player of a kind: what their own kind says of a change, else what all say of it. @example learnedFor(shop, 'adult club back') // [{ what: 'swingWeight', of: 'kind', … }] */
export function learnedFor({ told }: Pick<LearnedOfShop, 'told'>, kind: string): LearnedChange[] {
  const own = told.get(kind) ?? [];
  const rest = (told.get('') ?? []).filter(({ what }) => !own.some((one) => one.what === what));
  return [...own, ...rest];
}

/** Whether it says that more of what loads the arm is better. */
const loadsMore = ({ what, says }: LearnedChange): boolean =>
  says === 'more' && (what === 'tension' || (what !== 'softness' && loadsArm(what)));

/** What a shop's sessions say of one player. */
export interface LearnedAbout {
  /** On how many players and sessions it rests; of fewer than {@link LEAST_PLAYERS} nothing is said. */
  players: number;
  sessions: number;
  told: LearnedChange[];
  among: Among[];
}
/** Of whom it is asked. */
export interface Asking {
  kind: string;
  /** Whether the arm is sore or tires: then nothing that loads it more is said, whoever was happy with it. */
  isTender: boolean;
  /** Where they are among the players; −1 where they played nothing. */
  place: number;
}
/**
 * What the sessions of all say of one of them, or of somebody who played nothing yet.
 * @example learnedAbout('tennis', players, { kind: 'adult club back', isTender: false, place: -1 }).players // 5: too few to say anything
 */
export function learnedAbout(
  sport: AnySport,
  players: readonly OfPlayer[],
  { kind, isTender, place }: Asking,
): LearnedAbout {
  const learned = learnedOfShop(sport, players);
  return {
    players: learned.players,
    sessions: learned.sessions,
    told: learnedFor(learned, kind).filter((one) => !(isTender && loadsMore(one))),
    // Of fewer than eight what others pull could be told from what a player's own sessions say.
    among: learned.players < LEAST_PLAYERS ? [] : (learned.among[place] ?? []),
  };
}
