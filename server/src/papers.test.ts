import { inflateSync } from 'node:zlib';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  cutList,
  pointAtArc,
  settleFrame,
  tilesOf,
  templateOf,
  type Part,
  type Placement,
} from '@kevro/core';
import { onServer, startTestServer } from './test-server';

// Files that leave the shop, read as what they are: drawings at true scale, and a calendar.
let now = '2026-11-23T09:00:00.000Z';
const server = onServer(() => startTestServer(() => now));
const post = async (path: string, body: unknown) => (await server.call('POST', path, body)).body;
const file = async (path: string) => {
  const response = await fetch(server.base + path);
  return { response, bytes: Buffer.from(await response.arrayBuffer()) };
};

const shape = { sport: 'tennis', lengthCm: 68.58, headLengthCm: 33, headWidthCm: 25 } as const;
const frame = settleFrame(shape);
const MM_PER_POINT = 25.4 / 72;
let made: { fittingId: string; planId: string; placements: Placement[]; parts: Part[] };

beforeAll(async () => {
  const player = await post('/players', { name: 'Ottilie Vance', sports: ['tennis'] });
  const { id: frameId } = await post('/frames', {
    tag: 'PA-1',
    maker: 'Velmond',
    model: 'Quarr <97>',
    ownerId: player.id,
    shape,
  });
  const tape = await post('/parts', {
    kind: 'tape',
    name: 'lead tape 9 mm',
    material: 'lead',
    widthMm: 9,
    gPerCm: 0.3,
    stepCm: 0.5,
  });
  const silicone = await post('/parts', {
    kind: 'filling',
    name: 'silicone',
    material: 'silicone',
    dabG: 0.5,
    gPerCm: 1.6,
    setMinutes: 720,
  });
  const fitting = await post('/fittings', { playerId: player.id, frameIds: [frameId] });
  const roundId = fitting.frames[0].rounds[0].id;
  const specs = { massG: 320, balanceCm: 32.5, swingWeight: 315, twistWeight: 13.5 };
  const start = await post(`/frames/${frameId}/measurements`, {
    key: 'as it was found',
    dress: { strings: true },
    specs,
    roundId,
  });
  const aim = await post(`/fittings/${fitting.id}/aims`, {
    roundId,
    way: 'by-hand',
    target: { massG: { value: 329, tolerance: 2 } },
  });
  const placements = [
    { id: 'p1', partId: tape.id, path: 'rim', startCm: 8, endCm: 17.5, sides: 2, layers: 1, massG: 5.7 },
    { id: 'p2', partId: silicone.id, path: 'handle', startCm: 1, endCm: 3, sides: 1, layers: 1, massG: 3.2 },
  ];
  const plan = await post(`/fittings/${fitting.id}/plans`, {
    roundId,
    startId: start.id,
    aimId: aim.id,
    school: 'free',
    placements,
  });
  made = { fittingId: fitting.id, planId: plan.id, placements: plan.placements, parts: plan.parts };
});

interface Stroke {
  points: [number, number][];
  widthMm: number;
}
type Matrix = [number, number, number, number, number, number];
const times = (a: Matrix, b: Matrix): Matrix => [
  a[0] * b[0] + a[1] * b[2],
  a[0] * b[1] + a[1] * b[3],
  a[2] * b[0] + a[3] * b[2],
  a[2] * b[1] + a[3] * b[3],
  a[4] * b[0] + a[5] * b[2] + b[4],
  a[4] * b[1] + a[5] * b[3] + b[5],
];

/** What is stroked on each page of a PDF, mm from its upper left corner (the operators of ISO 32000-1, 8.4 and 8.5). */
function strokesOf(pdf: Buffer): { pages: Stroke[][]; size: [number, number] } {
  const text = pdf.toString('latin1');
  const [, width, height] = /\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(text) ?? [];
  const streams = [...text.matchAll(/\/FlateDecode[^>]*>>\s*stream\r?\n/g)].flatMap((found) => {
    const from = found.index + found[0].length;
    const content = inflateSync(pdf.subarray(from, pdf.indexOf('endstream', from))).toString('latin1');
    return / (re|l|m)\n/.test(content) ? [content] : [];
  });
  const pages = streams.map((content) => {
    const strokes: Stroke[] = [];
    const stack: { matrix: Matrix; wide: number }[] = [];
    let matrix: Matrix = [1, 0, 0, 1, 0, 0];
    let wide = 1;
    let points: [number, number][] = [];
    let numbers: number[] = [];
    for (const word of content.replaceAll(/\([^)]*\)|<[^>]*>|\[[^\]]*\]/g, ' ').split(/\s+/)) {
      const value = Number(word);
      if (word !== '' && !Number.isNaN(value)) {
        numbers.push(value);
        continue;
      }
      const [x = 0, y = 0] = numbers;
      const at = (): [number, number] => [
        (matrix[0] * x + matrix[2] * y + matrix[4]) * MM_PER_POINT,
        (Number(height) - (matrix[1] * x + matrix[3] * y + matrix[5])) * MM_PER_POINT,
      ];
      if (word === 'cm') matrix = times(numbers as Matrix, matrix);
      else if (word === 'q') stack.push({ matrix, wide });
      else if (word === 'Q') ({ matrix, wide } = stack.pop() ?? { matrix, wide });
      else if (word === 'w') wide = x * Math.abs(matrix[0]) * MM_PER_POINT;
      else if (word === 'm') points = [at()];
      else if (word === 'l') points.push(at());
      else if (word === 'S') {
        strokes.push({ points, widthMm: wide });
        points = [];
      }
      numbers = [];
    }
    return strokes;
  });
  return { pages, size: [Number(width) * MM_PER_POINT, Number(height) * MM_PER_POINT] };
}
const lengthOf = (points: readonly (readonly [number, number])[]): number =>
  points
    .slice(1)
    .reduce((sum, [x, y], i) => sum + Math.hypot(x - (points[i]?.[0] ?? 0), y - (points[i]?.[1] ?? 0)), 0);

describe('the template at true scale', () => {
  const url = (format: string, paper = 'a4'): string =>
    `/fittings/${made.fittingId}/template.${format}?plan=${made.planId}&paper=${paper}`;
  /** Where a strip begins and ends, mm from the tip and the long axis, by the core's outline. */
  const ends = () => {
    const [cut] = cutList(frame, made.placements, made.parts);
    return [cut?.startCm ?? 0, cut?.endCm ?? 0].map((cm) => {
      const { xCm, yCm } = pointAtArc(frame.rim, cm);
      return [10 * yCm, 10 * (frame.lengthCm - xCm)] as const;
    });
  };

  it('as SVG: its unit is a mm, the strips lie where the core lays them on both sides, and the bar is 100 mm', async () => {
    const { response, bytes } = await file(url('svg'));
    expect(response.headers.get('content-disposition')).toContain('template PA-1.svg');
    const svg = bytes.toString('utf8');
    const [, width, height] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg) ?? [];
    expect(svg).toContain(`viewBox="0 0 ${width} ${height}"`);
    const pieces = [
      ...svg.matchAll(
        /class="piece" data-placement="p1" data-side="(\w+)" d="([^"]+)"[^>]*stroke-width="([\d.]+)"/g,
      ),
    ];
    expect(pieces.map(([, side]) => side)).toEqual(['right', 'left']);
    const middle = Number(width) / 2;
    const [start, end] = ends();
    pieces.forEach(([, side, d, wide], i) => {
      const points = (d ?? '')
        .split(/[ML]/)
        .slice(1)
        .map((p) => p.split(' ').map(Number) as [number, number]);
      const sign = side === 'right' ? 1 : -1;
      expect(((points[0]?.[0] ?? 0) - middle) * sign).toBeCloseTo(start?.[0] ?? 0, 2);
      expect((points[0]?.[1] ?? 0) - 12).toBeCloseTo(start?.[1] ?? 0, 2);
      expect(((points.at(-1)?.[0] ?? 0) - middle) * sign).toBeCloseTo(end?.[0] ?? 0, 2);
      expect(Number(wide)).toBe(9);
      expect(lengthOf(points)).toBeCloseTo(95, 0);
      expect(i).toBeLessThan(2);
    });
    expect(svg).toMatch(/class="bar" d="M[\d.]+ [\d.]+h100"/);
    // What somebody typed is text there, not markup.
    expect(svg).not.toContain('<97>');
  });

  it.each([
    ['a4', 210, 297],
    ['letter', 215.9, 279.4],
  ])(
    'as PDF on %s: every sheet has its bar, and a strip is as long and lies as far from the tip as it should',
    async (paper, width, height) => {
      const { response, bytes } = await file(url('pdf', paper));
      expect(response.headers.get('content-type')).toBe('application/pdf');
      const { pages, size } = strokesOf(bytes);
      expect(size[0]).toBeCloseTo(width, 1);
      expect(size[1]).toBeCloseTo(height, 1);
      const template = templateOf(frame, made.placements, made.parts);
      const tiles = tilesOf(template, { widthMm: width - 20, heightMm: height - 36 });
      expect(tiles.length).toBeGreaterThan(1);
      expect(pages).toHaveLength(tiles.length);
      for (const strokes of pages) {
        const bar = strokes.find(
          ({ widthMm, points }) => Math.abs(widthMm - 0.6) < 0.01 && points.length === 2,
        );
        expect(lengthOf(bar?.points ?? [])).toBeCloseTo(100, 2);
      }
      const [first] = tiles;
      const strips = pages[0]?.filter(({ widthMm }) => Math.abs(widthMm - 9) < 0.01) ?? [];
      expect(strips).toHaveLength(2);
      const [start] = ends();
      const [x, y] = strips[0]?.points[0] ?? [];
      expect((x ?? 0) - 10 + (first?.x ?? 0) - template.widthMm / 2).toBeCloseTo(start?.[0] ?? 0, 1);
      expect((y ?? 0) - 10 + (first?.y ?? 0) - 12).toBeCloseTo(start?.[1] ?? 0, 1);
      expect(lengthOf(strips[0]?.points ?? [])).toBeCloseTo(95, 0);
    },
  );

  it('says weights in the unit that the shop says those of parts in', async () => {
    const drawn = async (): Promise<string> => (await file(url('svg'))).bytes.toString();
    expect(await drawn()).toMatch(/from the tip \(.*\), \d+\.\d g</);
    const shop = { name: 'Plumb & Loop', town: '', calibrationHours: 72 };
    await server.call('PUT', '/shop', { ...shop, partUnit: 'oz' });
    expect(await drawn()).toMatch(/from the tip \(.*\), \d\.\d{3} oz</);
    // What is left out stays.
    expect((await server.call('PUT', '/shop', shop)).body).toMatchObject({ partUnit: 'oz' });
    await server.call('PUT', '/shop', { ...shop, partUnit: 'g' });
  });

  it('is not there for a plan of another fitting, nor for a paper that nobody has', async () => {
    const other = await file(`/fittings/${made.fittingId}/template.pdf?plan=none`);
    expect(other.response.status).toBe(404);
    const paper = await file(url('svg', 'napkin'));
    expect(paper.response.status).toBe(422);
  });
});

describe('the calendar of what sets (RFC 5545)', () => {
  it('has an entry for each wait that began, at its end, the same one each time', async () => {
    const url = `/fittings/${made.fittingId}/calendar.ics`;
    // A file without an entry is one that no calendar takes: that nothing sets is said instead.
    const none = await file(url);
    expect(none.response.status).toBe(404);
    expect(JSON.parse(none.bytes.toString())).toMatchObject({ code: 'nothing-sets' });
    now = '2026-11-23T18:30:00.000Z';
    await post(`/fittings/${made.fittingId}/marks`, {
      planId: made.planId,
      step: 'fill-handle:p2',
      mark: 'done',
    });
    const { response, bytes } = await file(url);
    expect(response.headers.get('content-type')).toContain('text/calendar');
    const calendar = bytes.toString();
    expect(calendar.match(/BEGIN:VEVENT/g)).toHaveLength(1);
    // 12 hours after half past six in the evening.
    expect(calendar).toContain('DTSTART:20261124T063000Z');
    expect(calendar).toMatch(/SUMMARY:PA-1 has set: fill the handle/);
    expect(calendar).toContain(`UID:${made.planId}-fill-handle:p2@kevro`);
    expect(calendar).toContain('BEGIN:VALARM');
    expect((await file(`/fittings/none/calendar.ics`)).response.status).toBe(404);
  });
});
