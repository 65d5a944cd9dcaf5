import { sentence, type BodyOf, type ErrorCode } from '@kevro/contract';
import { Refused } from '../api/client';
import { shopToday } from '../words/days';
import { sentOrNone, type Typed } from '../ui/typed';

type Body = Omit<BodyOf<'addSession'>, 'key' | 'roundId'>;
/** What a form of a session holds: a choice that was not made is empty. */
export type SessionDraft = {
  [K in Exclude<keyof Body, 'minutes' | 'playedOn' | 'note' | 'by'>]-?: NonNullable<Body[K]> | '';
} & { playedOn: string; minutes: Typed; note: string; by: string };

export const emptySession = (by = ''): SessionDraft => ({
  playedOn: shopToday(),
  minutes: null,
  play: '',
  day: '',
  energyStart: '',
  energyLeft: '',
  late: '',
  twists: '',
  firmVolleys: '',
  depth: '',
  spin: '',
  serve: '',
  arm: '',
  note: '',
  by,
});

/** For a request: what was not chosen is left out. What must be chosen is then said to be missing. */
export function sessionBody({ minutes, note, by, playedOn, ...choices }: SessionDraft): Body {
  const chosen = Object.fromEntries(Object.entries(choices).filter(([, value]) => value !== ''));
  return {
    ...(chosen as unknown as Omit<Body, 'playedOn'>),
    playedOn,
    minutes: sentOrNone(minutes),
    note,
    by,
  };
}

/** What no note is without. */
const ASKED = ['energyLeft', 'arm'] as const;
/**
 * Looks at a session before it is sent: where the server is away nobody else does until it is back.
 * @throws Refused with the sentence beside each field
 */
export function checkSession(draft: SessionDraft): void {
  const wrong: [string, ErrorCode][] = ASKED.filter((key) => draft[key] === '').map((key) => [
    key,
    'missing',
  ]);
  if (draft.playedOn > shopToday()) wrong.push(['playedOn', 'not-played-yet']);
  if (wrong.length > 0)
    throw new Refused(
      'bad-input',
      sentence('bad-input'),
      wrong.map(([path, code]) => ({ path, code, message: sentence(code) })),
    );
}
