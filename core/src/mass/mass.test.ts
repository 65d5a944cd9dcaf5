import rapier from '@dimforge/rapier2d-compat';
import { describe, expect, it } from 'vitest';
import {
  eggHead,
  ellipse,
  outlineArea,
  polygon,
  roundedRectangle,
  settleFrame,
  type Outline,
} from '../frame';
import {
  add,
  sheet,
  handleColumn,
  handleWrap,
  point,
  predict,
  recoilWeight,
  rimStrip,
  straightStrip,
  swingAbout,
  total,
  type MassSums,
} from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const measured = { massG: 336, balanceCm: 32.4, swingWeight: 339 };
const own = (s: MassSums): number => s.secondGCm2 - s.firstGCm ** 2 / s.massG;

/** Sums of many small points, the slow way to any shape. */
const byPoints = (n: number, at: (i: number) => [number, number]): MassSums =>
  total(Array.from({ length: n }, (_, i) => point(1 / n, ...at(i))));

describe('elements, against handbook closed forms', () => {
  it('rod: m l²/12', () => expect(own(straightStrip(6, 40, 3, 10))).toBeCloseTo((6 * 100) / 12, 9));

  it('circular ring: m r² about its axis in two halves, m r²/2 about a diameter', () => {
    const ring = rimStrip(7, ellipse(50, 12, 12), -Math.PI * 12, Math.PI * 12);
    expect(own(ring)).toBeCloseTo((7 * 144) / 2, 6);
    expect(ring.twistGCm2).toBeCloseTo((7 * 144) / 2, 6);
    expect(ring.firstGCm / ring.massG).toBeCloseTo(50, 9);
  });

  it('arc of a circle: centroid at r sin(α)/α', () => {
    const strip = rimStrip(2, ellipse(0, 10, 10), -5, 5);
    expect(strip.firstGCm / strip.massG).toBeCloseTo((10 * Math.sin(0.5)) / 0.5, 9);
  });

  it('strip on an ellipse: as thousands of points along it', () => {
    const e = frame.head;
    const [a, b] = [0.3, 1.4];
    const n = 20_000;
    const weights = Array.from({ length: n }, (_, i) => {
      const t = a + ((b - a) * (i + 0.5)) / n;
      return { t, ds: Math.hypot(e.alongCm * Math.sin(t), e.acrossCm * Math.cos(t)) };
    });
    const length = weights.reduce((s, w) => s + w.ds, 0);
    const sum = total(
      weights.map(({ t, ds }) =>
        point((5 * ds) / length, e.centreXCm + e.alongCm * Math.cos(t), e.acrossCm * Math.sin(t)),
      ),
    );
    const arc = (t: number): number =>
      (t / n) *
      Array.from({ length: n }, (_, i) => {
        const u = (t * (i + 0.5)) / n;
        return Math.hypot(e.alongCm * Math.sin(u), e.acrossCm * Math.cos(u));
      }).reduce((s, v) => s + v, 0);
    const strip = rimStrip(5, e, arc(a), arc(b));
    expect(strip.firstGCm).toBeCloseTo(sum.firstGCm, 4);
    expect(strip.secondGCm2 / sum.secondGCm2).toBeCloseTo(1, 7);
    expect(strip.twistGCm2 / sum.twistGCm2).toBeCloseTo(1, 7);
  });

  it('elliptical sheet: m p²/4 and m q²/4', () => {
    const bed = sheet(16, frame.head);
    expect(own(bed)).toBeCloseTo((16 * frame.head.alongCm ** 2) / 4, 6);
    expect(bed.twistGCm2).toBeCloseTo((16 * frame.head.acrossCm ** 2) / 4, 9);
  });

  it('column and wrap: solid cylinder and thin tube', () => {
    expect(handleColumn(6, 6, 9, 1).twistGCm2).toBeCloseTo(3, 9);
    expect(own(handleColumn(6, 6, 9, 1))).toBeCloseTo((6 * 81) / 12, 9);
    const tube = byPoints(40_000, (i) => [
      10 * (((i % 200) + 0.5) / 200 - 0.5),
      2 * Math.cos((2 * Math.PI * Math.floor(i / 200)) / 200),
    ]);
    // Points at y = r cos φ give half of m r² about x; the other half stands out of the face.
    expect(handleWrap(1, 0, 10, 2).twistGCm2).toBeCloseTo(2 * tube.twistGCm2, 6);
    expect(own(handleWrap(1, 0, 10, 2))).toBeCloseTo(100 / 12 + 4 / 2, 6);
  });
});

describe('joining, against a physics engine’s mass properties', () => {
  it('two plates as a compound body have the same mass, centre and inertia', async () => {
    await rapier.init();
    const world = new rapier.World({ x: 0, y: 0 });
    const body = world.createRigidBody(rapier.RigidBodyDesc.dynamic());
    const trapezium = new Float32Array([-4, 20, 4, 20, 6, 30, -6, 30]);
    const upper = rapier.ColliderDesc.convexHull(trapezium);
    if (!upper) throw new Error('the engine refused the plate');
    world.createCollider(rapier.ColliderDesc.cuboid(1.5, 10).setTranslation(0, 10).setDensity(1.3), body);
    world.createCollider(upper.setDensity(0.4), body);
    world.step();

    const plate = (density: number, y0: number, y1: number, half: (x: number) => number): MassSums => {
      const n = 2000;
      const h = (y1 - y0) / n;
      return total(
        Array.from({ length: n }, (_, i): MassSums => {
          const x = y0 + h * (i + 0.5);
          const m = density * h * 2 * half(x);
          const slab = straightStrip(m, x, 0, h);
          return { ...slab, twistGCm2: (m * half(x) ** 2) / 3 };
        }),
      );
    };
    const sums = add(
      plate(1.3, 0, 20, () => 1.5),
      plate(0.4, 20, 30, (x) => 4 + ((x - 20) / 10) * 2),
    );
    // The engine counts in single precision.
    expect(sums.massG / body.mass()).toBeCloseTo(1, 5);
    expect(sums.firstGCm / sums.massG / body.localCom().y).toBeCloseTo(1, 5);
    // Its inertia is about the centre of mass and normal to the plate: for a flat body, recoil plus twist.
    expect((own(sums) + sums.twistGCm2) / body.principalInertia()).toBeCloseTo(1, 5);
  });
});

describe('sheets over outlines, against a physics engine’s mass properties', () => {
  it.each<[string, Outline]>([
    ['an ellipse', ellipse(52, 16.5, 12.4)],
    ['a rounded rectangle', roundedRectangle(13, 40.64, 10.16, 4.5)],
    ['two half-ellipses', eggHead(17.5, 45.5, 33, 12.75)],
  ])('%s', async (_, outline) => {
    await rapier.init();
    const world = new rapier.World({ x: 0, y: 0 });
    const body = world.createRigidBody(rapier.RigidBodyDesc.dynamic());
    // The engine gets the outline as a fan of convex pieces.
    const points = polygon(outline, 240);
    const perPiece = 2;
    for (let i = 0; i < points.length; i += perPiece) {
      const rim = Array.from(
        { length: perPiece + 1 },
        (__, k) => points[(i + k) % points.length] ?? { xCm: 0, yCm: 0 },
      );
      const corners = [{ xCm: outline.centreXCm, yCm: 0 }, ...rim].flatMap((p) => [p.xCm, p.yCm]);
      const piece = rapier.ColliderDesc.convexPolyline(new Float32Array(corners));
      if (!piece) throw new Error('the engine refused a piece');
      world.createCollider(piece.setDensity(0.2), body);
    }
    world.step();
    const plate = sheet(body.mass(), outline);
    expect(body.mass() / (0.2 * outlineArea(outline))).toBeCloseTo(1, 3);
    expect(plate.firstGCm / plate.massG / body.localCom().x).toBeCloseTo(1, 4);
    expect((own(plate) + plate.twistGCm2) / body.principalInertia()).toBeCloseTo(1, 3);
  });
});

describe('paddles of one mass and build (common practice: 111 standard, 115 hybrid, 120 elongated)', () => {
  it('swing in the ratio of their classes to within 3 %', () => {
    const swing = (shape: string, inches: number): number => {
      const paddle = settleFrame({ sport: 'pickleball', lengthCm: inches * 2.54, shape });
      const face = sheet(150, paddle.head);
      const handle = handleColumn(78, paddle.handleLengthCm / 2, paddle.handleLengthCm, 1.5);
      return swingAbout(add(face, handle), 5);
    };
    const standard = swing('standard', 16);
    expect(Math.abs(swing('hybrid', 16.25) / standard / (115 / 111) - 1)).toBeLessThan(0.03);
    expect(Math.abs(swing('elongated', 16.5) / standard / (120 / 111) - 1)).toBeLessThan(0.03);
  });
});

describe('facts of the trade (common practice)', () => {
  it('4 g at the tip of a 336 g, 32.4 cm, 339 frame', () => {
    const { specs, delta } = predict(shape, measured, [{ massG: 4, at: { clock: 12 } }]);
    expect(specs.balanceCm).toBeGreaterThanOrEqual(32.6);
    expect(specs.balanceCm).toBeLessThanOrEqual(32.9);
    expect(delta.swingWeight).toBeGreaterThanOrEqual(13);
    expect(delta.swingWeight).toBeLessThanOrEqual(15);
    // Closed form: m (x − a)².
    const tip = frame.rim.centreXCm + frame.rim.alongCm;
    expect(delta.swingWeight).toBeCloseTo((4 * (tip - 10.16) ** 2) / 1000, 9);
  });

  it('the 4 g at the balance point', () => {
    const { specs, delta } = predict(shape, measured, [{ massG: 4, at: { xCm: 32.4 } }]);
    expect(specs.balanceCm).toBeCloseTo(32.4, 9);
    expect(Math.round(delta.swingWeight)).toBe(2);
    expect(delta.recoilWeight).toBeCloseTo(0, 9);
  });

  it('the 4 g on the handle', () => {
    const { specs, delta } = predict(shape, measured, [{ massG: 4, at: { zone: 'handle' } }]);
    expect(specs.balanceCm).toBeGreaterThanOrEqual(31.9);
    expect(specs.balanceCm).toBeLessThanOrEqual(32.1);
    expect(Math.abs(delta.swingWeight)).toBeLessThan(1);
  });

  it('equal weight at the handle’s end and at the shoulders leaves the balance about unchanged', () => {
    const { delta } = predict(shape, measured, [
      { massG: 4, at: { zone: 'butt' } },
      { massG: 4, at: { zone: 'shoulders' } },
    ]);
    expect(Math.abs(delta.balanceCm)).toBeLessThan(0.1);
  });

  it('frames of 320 g 6 HL, 303 g 4 HL and 272 g 5 HH that swing at 316 differ in recoil weight, all of it positive', () => {
    const recoil = [
      { massG: 320, points: 6 },
      { massG: 303, points: 4 },
      { massG: 272, points: -5 },
    ].map(({ massG, points }) =>
      recoilWeight({ massG, balanceCm: 34.29 - points * 0.3175, swingWeight: 316, axisCm: 10.16 }),
    );
    expect(recoil.every((r) => r > 0)).toBe(true);
    expect(recoil[0]).toBeGreaterThan(recoil[2] ?? 0);
  });
});
