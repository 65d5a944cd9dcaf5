import type { SportData } from './sport';

const RULES = 'ITF Rules of Tennis, Appendix II (the racket)';

/**
 * Tennis. Axis 4 in from the butt (common practice); ball 56.0 to 59.4 g (ITF Rules of Tennis, Appendix I).
 * Typical shape, caps and usual specs: common practice, from memory.
 */
export const tennis: SportData = {
  sport: 'tennis',
  axisCm: 10.16,
  ballG: 57.7,
  ballLimitsG: [56.0, 59.4],
  restitution: 0.85,
  lengthCm: 68.58,
  handleLengthCm: 20,
  handleRadiusCm: 1.6,
  family: { kind: 'ellipse', headAreaCm2: 645.16, headAspect: 4 / 3 },
  shapes: {},
  usual: { massG: 320, balanceCm: 32.5, swingWeight: 320, twistWeight: 13.5 },
  limits: [
    { of: 'length', mostCm: 73.7, source: RULES },
    { of: 'width', mostCm: 31.7, source: RULES },
    { of: 'face-length', mostCm: 39.4, source: RULES },
    { of: 'face-width', mostCm: 29.2, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, capG: 8, roomCm: 16 },
    { name: 'shoulders', path: 'rim', at: 1.5, capG: 14, roomCm: 12 },
    { name: 'sides', path: 'rim', at: 3, capG: 16, roomCm: 14 },
    { name: 'lowerHoop', path: 'rim', at: 4.5, capG: 12, roomCm: 12 },
    { name: 'throat', path: 'limb', at: 0.45, capG: 10, roomCm: 8 },
    { name: 'handleTop', path: 'handle', at: 0.85, capG: 12, roomCm: 6 },
    { name: 'handle', path: 'handle', at: 0.325, capG: 20, roomCm: 10 },
    { name: 'butt', path: 'handle', at: 0.075, capG: 15, roomCm: 3 },
  ],
};
