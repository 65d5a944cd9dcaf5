import type { SportData } from './sport';

const RULES = 'BWF Laws of Badminton, law 4';

/**
 * Badminton. Axis 4 in from the butt (common practice); shuttle 4.74 to 5.50 g (BWF Laws, law 2).
 * Typical shape, caps and usual specs: common practice, from memory.
 */
export const badminton: SportData = {
  sport: 'badminton',
  axisCm: 10.16,
  ballG: 5.12,
  ballLimitsG: [4.74, 5.5],
  restitution: 0.75,
  lengthCm: 67.5,
  handleLengthCm: 17.5,
  handleRadiusCm: 1.15,
  family: { kind: 'ellipse', headAreaCm2: 360, headAspect: 1.29 },
  shapes: {},
  usual: { massG: 88, balanceCm: 29.5, swingWeight: 88, twistWeight: 1.25 },
  limits: [
    { of: 'length', mostCm: 68, source: RULES },
    { of: 'width', mostCm: 23, source: RULES },
    { of: 'face-length', mostCm: 28, source: RULES },
    { of: 'face-width', mostCm: 22, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, capG: 3, roomCm: 10 },
    { name: 'shoulders', path: 'rim', at: 1.5, capG: 4, roomCm: 8 },
    { name: 'sides', path: 'rim', at: 3, capG: 4, roomCm: 8 },
    { name: 'lowerHoop', path: 'rim', at: 4.5, capG: 4, roomCm: 8 },
    { name: 'throat', path: 'shaft', at: 0.85, capG: 3, roomCm: 4 },
    { name: 'handleTop', path: 'handle', at: 0.85, capG: 5, roomCm: 4 },
    { name: 'handle', path: 'handle', at: 0.45, capG: 8, roomCm: 8 },
    { name: 'butt', path: 'handle', at: 0.075, capG: 6, roomCm: 2.5 },
  ],
};
