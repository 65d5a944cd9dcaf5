import type { SessionRow } from '@kevro/contract';

/** Words of what a player felt: the fitter’s form, the player’s own form and the history say the same. */
export const ENERGY_WORDS = { plenty: 'plenty', enough: 'enough', little: 'little', none: 'none' } as const;
export const OFTEN_WORDS = { no: 'no', sometimes: 'now and then', often: 'often' } as const;
export const ARM_WORDS = { fine: 'fine', tired: 'tired', sore: 'sore' } as const;
export const FIRM_WORDS = { yes: 'solid', no: 'unstable' } as const;
export const DEPTH_WORDS = { short: 'short', good: 'good', long: 'long' } as const;
export const COMPARED_WORDS = { less: 'less', same: 'as usual', more: 'more' } as const;
export const DAY_WORDS = { usual: 'as usual', 'hot-fast': 'hot, fast', 'cold-slow': 'cold, slow' } as const;
export const PLAY_WORDS = {
  rally: 'rallies',
  drills: 'drills',
  lesson: 'a lesson',
  match: 'a match',
} as const;

/** What is noted beside the four that every programme looks at: «90 min, a match, hot, fast». */
export const aroundWords = ({ minutes, play, day }: Pick<SessionRow, 'minutes' | 'play' | 'day'>): string =>
  [
    minutes ? `${minutes} min` : '',
    play ? PLAY_WORDS[play] : '',
    day && day !== 'usual' ? DAY_WORDS[day] : '',
  ]
    .filter(Boolean)
    .join(', ');

/** What was said of the ball: «balls long, spin more». */
export const ballWords = ({
  depth,
  spin,
  serve,
  firmVolleys,
}: Pick<SessionRow, 'depth' | 'spin' | 'serve' | 'firmVolleys'>): string =>
  [
    firmVolleys ? `volleys ${FIRM_WORDS[firmVolleys]}` : '',
    depth && depth !== 'good' ? `balls ${DEPTH_WORDS[depth]}` : '',
    spin && spin !== 'same' ? `spin ${spin}` : '',
    serve && serve !== 'same' ? `serve ${serve}` : '',
  ]
    .filter(Boolean)
    .join(', ');
