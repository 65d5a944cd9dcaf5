import type { SportData } from './sport';

const RULES = 'FIP Rules of Padel, the racket';

/**
 * Padel. Axis 10 cm from the butt (common practice); ball 56.0 to 59.4 g (FIP Rules of Padel).
 * Typical shape, caps and usual specs: common practice, from memory.
 */
export const padel: SportData = {
  sport: 'padel',
  axisCm: 10,
  ballG: 57.7,
  ballLimitsG: [56.0, 59.4],
  restitution: 0.7,
  lengthCm: 45.5,
  handleLengthCm: 13,
  handleRadiusCm: 1.6,
  family: { kind: 'egg', headLengthCm: 28, widthCm: 25.5, widest: 0.5 },
  shapes: { round: { widest: 0.5 }, teardrop: { widest: 0.56 }, diamond: { widest: 0.62 } },
  usual: { massG: 370, balanceCm: 26, swingWeight: 145, twistWeight: 14.5 },
  limits: [
    { of: 'length', mostCm: 45.5, source: RULES },
    { of: 'width', mostCm: 26, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, capG: 8, roomCm: 14 },
    { name: 'shoulders', path: 'rim', at: 1.5, capG: 10, roomCm: 9 },
    { name: 'sides', path: 'rim', at: 3, capG: 12, roomCm: 10 },
    { name: 'lowerHoop', path: 'rim', at: 4.5, capG: 10, roomCm: 8 },
    { name: 'throat', path: 'shaft', at: 0.6, capG: 8, roomCm: 3 },
    { name: 'handleTop', path: 'handle', at: 0.85, capG: 8, roomCm: 3.5 },
    { name: 'handle', path: 'handle', at: 0.45, capG: 15, roomCm: 6 },
    { name: 'butt', path: 'handle', at: 0.075, capG: 12, roomCm: 2 },
    { name: 'slotTip', path: 'rim', at: 12, capG: 6, roomCm: 4 },
    { name: 'slotSides', path: 'rim', at: 2.5, capG: 8, roomCm: 4 },
    { name: 'slotHeart', path: 'shaft', at: 0.9, capG: 6, roomCm: 3 },
  ],
};
