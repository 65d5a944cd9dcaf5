import type { SportData } from './sport';

const RULES = 'USA Pickleball Equipment Standards, paddle size';
const INCH = 2.54;

/**
 * Pickleball. Axis 5 cm from the butt (common practice); ball 0.78 to 0.935 oz (USA Pickleball Equipment Standards).
 * Named shapes: length by width in inches of the classes in trade use (common practice); handles, corners, caps and usual specs from memory.
 */
export const pickleball: SportData = {
  sport: 'pickleball',
  axisCm: 5,
  ballG: 24.31,
  ballLimitsG: [22.11, 26.51],
  restitution: 0.65,
  lengthCm: 16 * INCH,
  handleLengthCm: 5.25 * INCH,
  handleRadiusCm: 1.55,
  family: { kind: 'rectangle', widthCm: 8 * INCH, cornerRadiusCm: 4.5 },
  shapes: {
    standard: { lengthCm: 16 * INCH, widthCm: 8 * INCH },
    hybrid: { lengthCm: 16.25 * INCH, widthCm: 7.7 * INCH, cornerRadiusCm: 6 },
    elongated: { lengthCm: 16.5 * INCH, widthCm: 7.5 * INCH, handleLengthCm: 5.5 * INCH },
    'extra-long': { lengthCm: 17 * INCH, widthCm: 7 * INCH, handleLengthCm: 5.5 * INCH },
    wide: { lengthCm: 15.75 * INCH, widthCm: 8.25 * INCH, handleLengthCm: 5 * INCH },
  },
  usual: { massG: 228, balanceCm: 23.5, swingWeight: 115, twistWeight: 6.5 },
  limits: [
    { of: 'length', mostCm: 17 * INCH, source: RULES },
    { of: 'length-plus-width', mostCm: 24 * INCH, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, capG: 6, roomCm: 10 },
    { name: 'shoulders', path: 'rim', at: 1.4, capG: 8, roomCm: 7 },
    { name: 'sides', path: 'rim', at: 3, capG: 10, roomCm: 10 },
    { name: 'lowerHoop', path: 'rim', at: 4.6, capG: 8, roomCm: 7 },
    { name: 'throat', path: 'rim', at: 5.5, capG: 6, roomCm: 4 },
    { name: 'handleTop', path: 'handle', at: 0.85, capG: 6, roomCm: 3.5 },
    { name: 'handle', path: 'handle', at: 0.45, capG: 10, roomCm: 6 },
    { name: 'butt', path: 'handle', at: 0.075, capG: 10, roomCm: 2 },
  ],
};
