import { computed } from 'vue';
import { remembers, useKept } from '../ui/kept';
import { useShop } from '../stores/shop';

/** The walk: pages of the demo shop, each with what is to be seen there. */
export const TOUR: readonly { path: string; title: string; text: string }[] = [
  {
    path: '/',
    title: 'What the day asks for',
    text: 'Every open fitting with what is next and why; what dries, who is to be looked at again, what is to be calibrated. A digit opens each, n opens a new fitting, Ctrl K finds anything.',
  },
  {
    path: '/fittings/f-ilka/measure',
    title: 'Measure',
    text: 'First say what is on the frame, then weigh, balance and swing it: by an instrument, a stopwatch, or typed in any unit. What is sure and what is a guess is shown apart, ± twice the standard uncertainty.',
  },
  {
    path: '/fittings/f-ilka/compare',
    title: 'Compare',
    text: 'Setups in the same dress as this frame, nearest first, in steps that a hand notices. v goes through lanes, plane and table.',
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
    text: 'Bench steps in their order, with what to cut, where it lies, and the cautions at the step that needs them. What cures has its time.',
  },
  {
    path: '/fittings/f-sable/check',
    title: 'Check',
    text: 'Measured once more: inside or not, and how sure that is. What is outside is brought in by the smallest touch.',
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
