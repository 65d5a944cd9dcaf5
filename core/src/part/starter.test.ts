import { describe, expect, it } from 'vitest';
import { ALL_SPORTS, SPORTS } from '../sport';
import { partRule, startersFor, weighed, type Part } from '.';

const named = (parts: ReturnType<typeof startersFor>, id: string): Part => {
  const found = parts.find((one) => one.id === id);
  if (!found) throw new Error(`no ${id}`);
  return { ...found.part, id, name: found.name, typical: true };
};

describe('common parts to begin a stock with', () => {
  it('suit the sports: screws where there are slots, strings where there are strings, grips as heavy as theirs', () => {
    const kinds = (sports: Parameters<typeof startersFor>[0]) =>
      startersFor(sports).map(({ part }) => part.kind);
    expect(kinds(['padel'])).toContain('insert');
    expect(kinds(['padel'])).not.toContain('string');
    expect(kinds(['tennis'])).not.toContain('insert');
    for (const sport of ALL_SPORTS) {
      const grip = startersFor([sport]).find(({ part }) => part.kind === 'overgrip')?.part;
      expect(grip).toMatchObject({ massG: SPORTS[sport].typicalParts.overgrip.massG });
    }
  });

  it('name a grip for its sports only where they differ', () => {
    const grips = startersFor(ALL_SPORTS).filter(({ part }) => part.kind === 'overgrip');
    expect(grips.map(({ name }) => name)).toEqual([
      'Overgrip, tennis',
      'Overgrip, pickleball and padel',
      'Overgrip, badminton',
    ]);
    expect(startersFor(['tennis']).map(({ name }) => name)).toContain('Overgrip');
  });

  it('weigh what a careful shop weighs: lead of 6 mm a little over a gram a decimetre, tungsten twice as much (common practice)', () => {
    const all = startersFor(['tennis']);
    const [lead, tungsten] = ['lead-6', 'tungsten-6'].map((id) => named(all, id));
    if (lead?.kind !== 'tape' || tungsten?.kind !== 'tape') throw new Error('no tape');
    expect(10 * lead.gPerCm).toBeGreaterThan(1);
    expect(tungsten.gPerCm / lead.gPerCm).toBeGreaterThan(1.6);
    for (const { part } of all) expect(partRule(part).problems?.(part) ?? []).toEqual([]);
  });

  it('are less sure than what was weighed', () => {
    for (const { part } of startersFor(ALL_SPORTS)) {
      const own = weighed(part, 10);
      if (!own) continue;
      const share = (of: typeof part): number => partRule(of).massUncertaintyG(of, 10) / 10;
      expect(share(part)).toBeGreaterThanOrEqual(part.kind === 'overgrip' ? 0 : share(own));
    }
  });
});

describe('a part that is put on the scale', () => {
  const all = startersFor(['tennis', 'padel']);

  it('weighs what its sample says: a metre of tape, 10 cm of handle, one grip', () => {
    expect(weighed(named(all, 'lead-6'), 11.8)).toMatchObject({ gPerCm: 0.118 });
    expect(weighed(named(all, 'putty'), 17)).toMatchObject({ gPerCm: 1.7 });
    expect(weighed(named(all, 'screw-1'), 0.96)).toMatchObject({ massG: 0.96 });
  });

  it('is typical no more, and as sure as what is weighed', () => {
    const own = weighed(named(all, 'lead-6'), 11.8);
    expect(own).not.toHaveProperty('typical');
    expect(own).not.toHaveProperty('massShare');
  });

  it('a string has no weight of its own', () => {
    expect(weighed(named(all, 'nylon-130'), 10)).toBeUndefined();
  });
});
