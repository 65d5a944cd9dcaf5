import type { Day, SeasonTask } from '@kevro/core';
import { PROGRAMME_NAMES } from './programme-words';

const VENUES: Record<Day, string> = {
  usual: 'usual days',
  'hot-fast': 'hot and fast',
  'cold-slow': 'cold and slow',
};
/** What is to be done, without its day. @example seasonTaskSentence({ what: 'strings', on: '2026-12-10', tag: 'T-1' }) // 'T-1: new strings' */
export function seasonTaskSentence({ what, tag, programme, step, last, venue }: SeasonTask): string {
  const of = tag ? `${tag}: ` : '';
  switch (what) {
    case 'step':
      return last
        ? `${of}the last step of “${programme ? PROGRAMME_NAMES[programme] : ''}”`
        : `${of}step ${step ?? ''} of “${programme ? PROGRAMME_NAMES[programme] : ''}”, if it goes well`;
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
