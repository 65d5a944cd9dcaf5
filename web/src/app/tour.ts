import { computed } from 'vue';
import { remembers, useKept } from '../ui/kept';
import { useShop } from '../stores/shop';

/** The walk: pages of the demo shop, each with what is to be seen there. */
export const TOUR: readonly { path: string; title: string; text: string }[] = [
  {
    path: '/',
    title: 'Your day',
    text: 'Open fittings and what’s next, curing timers, follow-ups, calibrations due. Press 1–9 to open one, n for a new fitting, Ctrl K to find anything.',
  },
  {
    path: '/fittings/f-ilka/measure',
    title: 'Measure',
    text: 'First say what is on the frame, then weigh, balance and swing it: by an instrument, a stopwatch, or typed in any unit. What is sure and what is a guess is shown apart, ± twice the standard uncertainty.',
  },
  {
    path: '/fittings/f-ilka/compare',
    title: 'Compare',
    text: 'Setups shown as this frame is strung and gripped, nearest first, in noticeable steps. v switches between lanes, plane and table.',
  },
  {
    path: '/fittings/f-ilka/aim',
    title: 'Aim',
    text: 'Copy a setup, go part of the way, or type what you want. Guards speak up before an arm or a child gets too much.',
  },
  {
    path: '/fittings/f-ilka/plan',
    title: 'Plan',
    text: 'The ways to get there, proven, in your own tape and putty. Drag a weight if you know better: the numbers follow.',
  },
  {
    path: '/fittings/f-barto/build',
    title: 'Build',
    text: 'Steps in order, with what to cut and where it goes, and the cautions where they are needed. Curing times run as timers.',
  },
  {
    path: '/fittings/f-sable/check',
    title: 'Check',
    text: 'Measure again: in tolerance or not, and how sure. If not, do the smallest trim.',
  },
  {
    path: '/fittings/f-liv/play',
    title: 'Play',
    text: 'How each session felt, and the next step from it: here the third weight was too much, so that the ceiling is known. n notes a session, a takes the step to the bench.',
  },
  {
    path: '/players/liv-harrowdene',
    title: 'A player',
    text: 'Frames, sessions and what was advised; from eight sessions on also what went with better notes.',
  },
  {
    path: '/settings',
    title: 'Your own shop',
    text: 'npm start serves a shop of your own. Nothing of the demo comes along. The guide at the top takes you through the first fitting; it can begin this tour again.',
  },
];

type Kept = 'new' | 'done' | number;

/** Where the tour stands on this device: it begins by itself once, on the demo, and never again unless it is asked for. */
export function useTour() {
  const shop = useShop();
  const kept = useKept<Kept>('kevro-tour', 'new', {
    serializer: {
      read: (text) => (text === 'new' || text === 'done' ? text : Number(text) || 0),
      write: String,
    },
  });
  const at = computed(() => {
    if (!shop.shop?.demo || kept.value === 'done') return undefined;
    if (kept.value !== 'new') return kept.value;
    // Where nothing is kept it would begin again with every page.
    return remembers() ? 0 : undefined;
  });
  return {
    at,
    go: (step: number): void => {
      kept.value = step;
    },
    leave: (): void => {
      kept.value = 'done';
    },
  };
}
