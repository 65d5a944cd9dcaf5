import Papa from 'papaparse';
import { SPECS, ALL_SPORTS } from '@kevro/core';
import type { Player } from '@kevro/contract';
import { api } from '../api/client';
import { SPORT_NAMES } from '../words';
import { botherWords } from '../words/players';

/** Players as CSV. What is private, the arm history and that an arm is sore, is put in only where it was chosen. */
export async function playersCsv(players: readonly Player[], withArmHistory: boolean): Promise<string> {
  const rows = [];
  for (const p of players) {
    const row = {
      name: p.name,
      sports: p.sports.join(' '),
      'year of birth': p.birthYear,
      'height, cm': p.heightCm,
      build: p.build,
      'level 1-7': p.levelScale,
      level: p.level,
      hand: p.handedness,
      'how they play': p.style,
      'puts first': p.putsFirst,
      'what bothers them': botherWords(p, withArmHistory),
      ...Object.fromEntries(
        ALL_SPORTS.map((sport) => [
          `${SPORT_NAMES[sport]}: ${SPECS.swingWeight.name} up to, kg cm2`,
          p.ceilings[sport],
        ]),
      ),
      'sessions a week': p.sessionsAWeek,
    };
    const arm = withArmHistory && p.hasArmHistory ? (await api('armHistory', { id: p.id })).text : '';
    rows.push(withArmHistory ? { ...row, 'arm history': arm } : row);
  }
  // A cell that begins like a formula is made harmless for spreadsheets.
  return Papa.unparse(rows, { escapeFormulae: true });
}

const PART = 500;

/** Every player that is not archived, read part by part. */
export async function allPlayers(): Promise<Player[]> {
  const all: Player[] = [];
  for (;;) {
    const { rows, total } = await api('players', { query: { limit: PART, offset: all.length } });
    all.push(...rows);
    if (rows.length === 0 || all.length >= total) return all;
  }
}
