import { computed } from 'vue';
import { createSharedComposable } from '@vueuse/core';
import type { Sport } from '@kevro/core';
import { api } from '../api/client';
import { useAsked } from '../api/queries';
import { useFitting } from './fitting';

/** What sessions of players alike say of the player of the fitting, in the sport of its frame: nothing until it is known, or where the shop switched it off. */
export const useLearned = createSharedComposable(() => {
  const fitting = useFitting();
  const asked = computed(() => {
    const { view, record } = fitting;
    return view && record ? `${record.shape.sport} ${view.player.id}` : undefined;
  });
  const { record: answer } = useAsked(
    'learnedOfPlayer',
    () => asked.value,
    (key) => {
      const [sport = '', id = ''] = key.split(' ');
      return api('learnedOfPlayer', { id, query: { sport: sport as Sport } });
    },
  );
  return {
    told: computed(() => answer.value?.told ?? []),
    among: computed(() => answer.value?.among ?? []),
  };
});
