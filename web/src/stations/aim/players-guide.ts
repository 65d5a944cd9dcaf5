import { computed } from 'vue';
import { guideBands, proposeGuide } from '@kevro/core';
import { useFitting } from '../../stores/fitting';
import { useGuides } from '../../stores/guides';
import type { useAimDraft } from './aim-draft';
import { guidedPlayer } from './guided-player';

/** The guide that goes for the player of the fitting: as it is chosen at Aim, as the player's record has it, or as it is proposed; with its bands, in the dress of the frame. */
export function usePlayersGuide(aim: ReturnType<typeof useAimDraft>) {
  const fitting = useFitting();
  const shopGuides = useGuides();
  const proposed = computed(() => {
    const player = fitting.view?.player;
    return player && proposeGuide(aim.shape.value.sport, guidedPlayer(player));
  });
  const bands = computed(() => {
    const { frame, dress, view } = fitting;
    const guide =
      aim.draft.value.guide ?? view?.player.guides[aim.shape.value.sport] ?? proposed.value?.guide;
    return frame && dress && guide ? guideBands(frame, guide, dress, shopGuides.edited) : undefined;
  });
  return { proposed, bands };
}
