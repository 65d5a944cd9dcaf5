import fc from 'fast-check';
import { unit } from 'mathjs';
import { describe, expect, it } from 'vitest';
import {
  LineCutter,
  PRINTED_UNITS,
  proposeEnd,
  proposePattern,
  readLine,
  restingAt,
  type LinePattern,
} from '.';

/** How devices print (common practice, from memory): every way with the known weight that lay on it, in grams. */
const WAYS: [name: string, lines: string[], known: number][] = [
  ['status words and a padded number', ['ST,GS,+  200.1 g', 'US,GS,+  143.7 g'], 200],
  ['a number alone', ['200.1'], 200],
  ['a decimal comma', ['  200,1 g', '  200,1 g'], 200],
  ['kilograms', ['+0.2001kg', '+0.2001kg'], 200],
  ['ounces', ['N     7.058 oz  '], 200],
  ['pounds', ['WT: 0.4412 lb'], 200],
  ['grains by a word that may be grams', ['3088 gr'], 200.1],
  ['grams by the same word', ['200.1 gr'], 200],
  ['gross before net', ['G 431.5 g N 200.1 g'], 200],
  ['net before tare', ['200.1 g', 'T 12.0 g'], 200],
  ['steady by a sign on moving lines only', ['  200.1 g', '? 143.7 g'], 200],
  ['leading noughts', ['S+00200.1g', 'S+00200.1g'], 200],
];
const patternOf = (lines: string[], known: number): LinePattern => {
  const found = proposePattern(lines, 'mass', known);
  if (!('pattern' in found)) throw new Error(found.why);
  return found.pattern;
};
/** Whether any of the lines is read as what lies on the device, as far off as a pattern may be. */
const readsKnown = (pattern: LinePattern, lines: readonly string[], known: number): boolean =>
  lines.some((line) => {
    const read = readLine(pattern, 'mass', line);
    return read.kind === 'value' && Math.abs(read.value - known) <= Math.max(0.02 * known, 1);
  });
const value = (pattern: LinePattern, line: string): number | undefined => {
  const read = readLine(pattern, 'mass', line);
  return read.kind === 'value' && read.steady !== false ? read.value : undefined;
};

describe('a pattern found from lines of something known', () => {
  it.each(WAYS)('reads %s', (_, lines, known) => {
    const pattern = patternOf(lines, known);
    expect(value(pattern, lines[0] ?? '')).toBeCloseTo(known, -0.5);
    expect(readsKnown(pattern, lines, known)).toBe(true);
  });

  it('takes units as a general units library has them (NIST SP 811)', () => {
    for (const [name, scale] of Object.entries(PRINTED_UNITS.mass)) {
      expect(unit(1, name === 'grains' ? 'grain' : name).toNumber('g')).toBeCloseTo(scale, 9);
    }
    for (const [name, scale] of Object.entries(PRINTED_UNITS.length))
      expect(unit(1, name).toNumber('cm')).toBeCloseTo(scale, 9);
  });

  it('says why none can be found', () => {
    expect(proposePattern([], 'mass', 200)).toEqual({ why: 'no-lines' });
    expect(proposePattern(['READY', 'hello'], 'mass', 200)).toEqual({ why: 'no-numbers' });
    expect(proposePattern(['ST,GS,+  143.7 g'], 'mass', 200)).toEqual({ why: 'not-the-known' });
  });

  it('reads a machine and a board too', () => {
    const machine = proposePattern(['SW 318.4 kgcm2'], 'inertia', 318);
    expect('pattern' in machine && readLine(machine.pattern, 'inertia', 'SW 99.5 kgcm2')).toMatchObject({
      value: 99.5,
    });
    const board = proposePattern(['12.58 in'], 'length', 31.95);
    expect('pattern' in board && readLine(board.pattern, 'length', '10.00 in')).toMatchObject({
      value: 25.4,
    });
  });
});

describe('a line', () => {
  const status = patternOf(WAYS[0]?.[1] ?? [], 200);
  it('is a reading only where all of it is understood', () => {
    expect(readLine(status, 'mass', 'ST,NT,+  312.4 g')).toEqual({
      kind: 'value',
      value: 312.4,
      unit: 'g',
      steady: true,
      tared: true,
    });
    expect(readLine(status, 'mass', 'US,GS,+  312.4 g')).toMatchObject({ steady: false });
    // Another unit was chosen at the device.
    expect(readLine(status, 'mass', 'ST,GS,+ 0.3124kg')).toMatchObject({ value: 312.4, unit: 'kg' });
    expect(readLine(status, 'mass', 'ST,GS,-    0.3 g')).toMatchObject({ value: -0.3 });
    expect(readLine(status, 'mass', 'OL')).toEqual({ kind: 'over' });
    expect(readLine(status, 'mass', '^^^^^^')).toEqual({ kind: 'over' });
    expect(readLine(status, 'mass', 'UL')).toEqual({ kind: 'under' });
    const why = (line: string): unknown => {
      const read = readLine(status, 'mass', line);
      return read.kind === 'unread' ? read.why : read;
    };
    expect(why('ST,PT,+   12.0 g')).toBe('word');
    expect(why('ST,GS,+  312.4ct')).toBe('word');
    expect(why('ST,GS,+  312.4  ')).toBe('unit');
    expect(why('ST,GS,+  12.4 g')).toBe('width');
    expect(why('ST,GS, 12 + 31 g')).toBe('numbers');
    expect(why('ST,GS,+99999.4 g')).toBe('range');
    expect(why('ST,G\u0000,+  312.4 g')).toBe('characters');
    expect(why('ST,GS,+  31\ufffd.4 g')).toBe('characters');
    expect(why('------')).toBe('numbers');
    expect(why('3.1E+02 g')).toBe('numbers');
    expect(why('  ')).toBe('empty');
  });

  it('says moving where steady lines are marked, and nothing where none are', () => {
    expect(readLine(status, 'mass', 'GS,+  312.4 g   ')).toMatchObject({ steady: false });
    const bare = patternOf(['200.1 g'], 200);
    expect(readLine(bare, 'mass', '312.4 g')).toMatchObject({ steady: undefined });
    const marked = patternOf(['  200.1 g', '? 143.7 g'], 200);
    expect(readLine(marked, 'mass', '  312.4 g')).toMatchObject({ steady: true });
  });

  const grams = fc.double({ min: 0, max: 999.9, noNaN: true }).map((g) => g.toFixed(1));
  const written = fc.record({ grams, status: fc.constantFrom('ST', 'US'), net: fc.constantFrom('NT', 'GS') });
  it('reads back what was written (property)', () => {
    fc.assert(
      fc.property(written, (one) => {
        const line = `${one.status},${one.net},+${one.grams.padStart(7)} g`;
        expect(readLine(status, 'mass', line)).toMatchObject({
          value: Number(one.grams),
          steady: one.status === 'ST',
          tared: one.net === 'NT',
        });
      }),
    );
  });

  it('never reads a wrong number of a line that lost characters (property)', () => {
    fc.assert(
      fc.property(written, fc.nat(15), fc.integer({ min: 1, max: 6 }), (one, at, lost) => {
        const line = `${one.status},${one.net},+${one.grams.padStart(7)} g`;
        const damaged = line.slice(0, at) + line.slice(at + lost);
        const read = readLine(status, 'mass', damaged);
        expect(read.kind === 'value' && damaged !== line).toBe(false);
      }),
    );
  });

  it('breaks on nothing that can be sent (property)', () => {
    const patterns = WAYS.map(([, lines, known]) => patternOf(lines, known));
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary', maxLength: 40 }),
        fc.constantFrom(...patterns),
        (line, pattern) => {
          const read = readLine(pattern, 'mass', line);
          if (read.kind === 'value') expect(Number.isFinite(read.value)).toBe(true);
        },
      ),
    );
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary', maxLength: 30 }), { maxLength: 6 }), (lines) => {
        const found = proposePattern(lines, 'mass', 200);
        if ('pattern' in found) expect(readsKnown(found.pattern, lines, 200)).toBe(true);
      }),
    );
  });
});

describe('what a device sends', () => {
  it('is cut into whole lines; what was heard from its middle on is none', () => {
    const cutter = new LineCutter('', 0);
    expect(cutter.push('12.4 g\r\nST 312.4 g\r\nST 31', 50)).toMatchObject({
      lines: ['ST 312.4 g'],
      half: true,
    });
    expect(cutter.push('2.5 g\r\n', 60).lines).toEqual(['ST 312.5 g']);
  });
  it('begins with a line where the port was quiet', () => {
    expect(new LineCutter('', 0).push('312.4 g\r', 3000).lines).toEqual(['312.4 g']);
  });
  it('leaves out a line with a long gap in it, and its rest', () => {
    const cutter = new LineCutter('', 0);
    cutter.push('ST 3', 3000);
    expect(cutter.push('12.4 g\r\n312.4 g\r\n', 5000)).toMatchObject({ lines: ['312.4 g'], half: true });
  });
  it('says a flood, and goes on after it', () => {
    const cutter = new LineCutter('', 0);
    expect(cutter.push('x'.repeat(300), 3000).flood).toBe(true);
    expect(cutter.push('\r\n312.4 g\r\n', 3100).lines).toEqual(['312.4 g']);
    const lines = new LineCutter('', 0);
    expect(lines.push('1 g\r\n'.repeat(150), 3000)).toMatchObject({ flood: true, lines: [] });
  });
  it('ends lines by what the device ends them with', () => {
    expect(proposeEnd('=312.4=312.4=312.4=')).toBe('=');
    expect(proposeEnd('ST=1\r\nST=2\r\nST=3\r\n')).toBe('');
    const cutter = new LineCutter('=', 0);
    expect(cutter.push('312.4=312.5=31', 3000).lines).toEqual(['312.4', '312.5']);
  });
  it('is the same lines however it is parted (property)', () => {
    const line = fc.stringMatching(/^[A-Z0-9.+ ]{1,20}$/).filter((text) => text.trim() !== '');
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 20 }),
        fc.array(fc.integer({ min: 1, max: 9 })),
        (lines, parts) => {
          const cutter = new LineCutter('', 0);
          const text = lines.map((one) => `${one}\r\n`).join('');
          const got: string[] = [];
          let [at, time] = [0, 1000];
          for (const size of [...parts, text.length]) {
            got.push(...cutter.push(text.slice(at, at + size), (time += 10)).lines);
            at += size;
          }
          expect(got).toEqual(lines);
        },
      ),
    );
  });
});

describe('at rest', () => {
  const at = (values: number[], steady: boolean | undefined, every = 200) =>
    values.map((value, index) => ({ value, at: index * every, steady }));
  it('is two alike where the device says steady', () => {
    expect(restingAt(at([312.4], true), 0.1)).toBeUndefined();
    expect(restingAt(at([312.4, 312.5], true), 0.1)).toBe(312.5);
    expect(restingAt(at([12.4, 312.4], true), 0.1)).toBeUndefined();
    expect(restingAt(at([312.4, 312.4], false), 0.1)).toBeUndefined();
  });
  it('is four alike over more than half a second where it does not', () => {
    expect(restingAt(at([312.4, 312.4, 312.5, 312.4], undefined), 0.1)).toBe(312.4);
    expect(restingAt(at([312.4, 312.4, 312.4, 312.4], undefined, 50), 0.1)).toBeUndefined();
    expect(restingAt(at([290, 300, 310, 312.4], undefined), 0.1)).toBeUndefined();
    expect(restingAt(at([312.4, 312.4], undefined, 900), 0.1)).toBeUndefined();
  });
});
