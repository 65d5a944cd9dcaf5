import type { Guard } from '@kevro/core';

/** What a guard says: what is asked for, where it stands, and what to expect. */
export function guardWords({ code, value, limit }: Guard, playerName: string): string {
  switch (code) {
    case 'over-ceiling':
      return `${Number((value - limit).toFixed(1))} kg·cm² above the ceiling of ${playerName} (${limit}). Expect late contact and a tired arm.`;
  }
}
