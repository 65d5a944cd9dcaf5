import { programmeTraits, type Day, type Programme, type SeasonKind, type SeasonTask } from '@kevro/core';
import { PROGRAMME_NAMES } from './programme-words';

/** What a date without a name is called. */
export const SEASON_KIND_NAMES: Record<SeasonKind, string> = { match: 'Match', rest: 'Rest' };
const VENUES: Record<Day, string> = {
  usual: 'usual days',
  'hot-fast': 'hot and fast',
  'cold-slow': 'cold and slow',
};
/** A calendar goes through many hands: a programme whose name says that an arm was sore is not named. */
const named = (programme: Programme | undefined): string =>
  programme && !programmeTraits(programme).isPrivate ? `“${PROGRAMME_NAMES[programme]}”` : 'its programme';

/** What is to be done, without its day. @example seasonTaskSentence({ what: 'strings', on: '2026-12-10', tag: 'T-1' }) // 'T-1: new strings' */
export function seasonTaskSentence({ what, tag, programme, step, last, venue }: SeasonTask): string {
  const of = tag ? `${tag}: ` : '';
  switch (what) {
    case 'step':
      return last
        ? `${of}the last step of ${named(programme)}`
        : `${of}step ${step ?? ''} of ${named(programme)}, if it goes well`;
    case 'strings':
      return `${of}new strings`;
    case 'for-venue':
      return `${of}make it ready for ${VENUES[venue ?? 'usual']}`;
    case 'back-to-usual':
      return `${of}back to how it is on usual days`;
    case 'look-again':
      return 'Look again: measure and ask how it goes';
  }
}
