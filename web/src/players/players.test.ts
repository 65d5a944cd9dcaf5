import Papa from 'papaparse';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { BOTHERS } from '@kevro/core';
import { BUILDS, HANDS, PUTS_FIRST, type Player } from '@kevro/contract';
import { allPlayers, playersCsv } from './export-players';
import {
  BOTHER_WORDS,
  BUILD_WORDS,
  FIRST_WORDS,
  HAND_WORDS,
  LEVEL_WORDS,
  botherWords,
  ceilingWords,
} from '../words/players';

const player = (change: Partial<Player> = {}): Player => ({
  id: 'p1',
  name: 'Hedda Vosslane',
  sports: ['tennis', 'padel'],
  birthYear: 1979,
  heightCm: 169,
  build: 'medium',
  level: 'club, “strong”',
  levelScale: 4,
  handedness: 'right',
  style: 'all-court',
  putsFirst: 'comfort',
  bothers: ['sore-arm', 'late'],
  botherNote: 'too short',
  ceilings: { tennis: 322, padel: 160 },
  sessionsAWeek: 3,
  guides: {},
  hasArmHistory: true,
  archived: false,
  ...change,
});
const rowsOf = (csv: string) => Papa.parse<Record<string, string>>(csv, { header: true }).data;

describe('an export of players', () => {
  afterEach(() => vi.unstubAllGlobals());
  const asked: string[] = [];
  const answerArm = () => {
    asked.length = 0;
    vi.stubGlobal('fetch', (url: string) => {
      asked.push(url);
      return Promise.resolve(new Response(JSON.stringify({ text: 'right elbow' })));
    });
  };

  it('does not even fetch what is private, unless it is chosen', async () => {
    answerArm();
    const csv = await playersCsv([player()], false);
    expect(asked).toEqual([]);
    expect(csv).not.toMatch(/elbow|arm/);
    const [row] = rowsOf(csv);
    expect(row).toMatchObject({ name: 'Hedda Vosslane', level: 'club, “strong”', 'year of birth': '1979' });
    expect(row?.['what bothers them']).toBe('late on the ball; too short');
  });

  it('has it where it was chosen, for those who have any', async () => {
    answerArm();
    const csv = await playersCsv(
      [player(), player({ id: 'p2', name: 'Odo Pellam', hasArmHistory: false })],
      true,
    );
    expect(asked).toEqual(['/api/v1/players/p1/arm-history']);
    expect(rowsOf(csv).map((row) => row['arm history'])).toEqual(['right elbow', '']);
    expect(rowsOf(csv)[0]?.['what bothers them']).toContain('sore arm');
  });

  it('has every player, however many parts that takes', async () => {
    const all = Array.from({ length: 1203 }, (_, i) => player({ id: `p${i}` }));
    const parts: string[] = [];
    vi.stubGlobal('fetch', (url: string) => {
      parts.push(url);
      const query = new URLSearchParams(url.split('?')[1]);
      const [from, size] = [Number(query.get('offset')), Number(query.get('limit'))];
      const rows = all.slice(from, from + size);
      return Promise.resolve(new Response(JSON.stringify({ rows, total: all.length })));
    });
    expect((await allPlayers()).map((p) => p.id)).toEqual(all.map((p) => p.id));
    expect(parts).toHaveLength(3);
  });

  it('says what a player carries sport by sport', async () => {
    const [row] = rowsOf(await playersCsv([player()], false));
    expect(row?.['tennis: swing weight up to, kg cm2']).toBe('322');
    expect(row?.['padel: swing weight up to, kg cm2']).toBe('160');
    expect(ceilingWords(player())).toBe('tennis 322, padel 160');
    expect(ceilingWords({ ceilings: { tennis: 322 }, sports: ['tennis'] })).toBe('322');
  });

  it('gives a spreadsheet no formula', async () => {
    const [row] = rowsOf(await playersCsv([player({ name: '=1+1' })], false));
    expect(row?.name).toBe("'=1+1");
  });
});

describe('words', () => {
  it('stand for every choice', () => {
    for (const [choices, words] of [
      [BOTHERS, BOTHER_WORDS],
      [BUILDS, BUILD_WORDS],
      [HANDS, HAND_WORDS],
      [PUTS_FIRST, FIRST_WORDS],
    ] as const) {
      expect(Object.keys(words).toSorted()).toEqual([...choices].toSorted());
    }
    expect(LEVEL_WORDS).toHaveLength(7);
  });

  it('of what bothers a player leave a sore arm out where others may read them', () => {
    expect(botherWords(player(), true)).toBe('sore arm; late on the ball; too short');
    expect(botherWords(player({ bothers: [], botherNote: '' }), false)).toBe('');
  });
});
