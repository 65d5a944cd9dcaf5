import type { GuidedPlayer } from '@kevro/core';
import { shopYear } from '../../words/days';
import { ageIn, type Player } from '@kevro/contract';

/** What of a player decides on a guide. */
export const guidedPlayer = (player: Player): GuidedPlayer => ({
  age: ageIn(shopYear(), player),
  heightCm: player.heightCm ?? undefined,
  build: player.build ?? undefined,
  level: player.levelScale ?? undefined,
  putsFirst: player.putsFirst ?? undefined,
  bothers: player.bothers,
});
