import { typical, type Dress } from './kit';
import type { SportData } from './sport';

const RULES = 'USA Pickleball Equipment Standards, paddle size';
const ASSUMED = 'assumed, from memory';
const INCH = 2.54;
const BARE: Dress = { baseGrip: 'synthetic' };

/**
 * Pickleball. Axis 5 cm from the butt (common practice); ball 0.78 to 0.935 oz (USA Pickleball Equipment Standards).
 * Noticeable: 2.5 % of swing weight as in tennis (Brody 2000); 2 g, 3 mm, 0.2 kg·cm² of twist (from memory).
 * Named shapes: length by width in inches of the classes in trade use (common practice); handles, corners, caps and usual specs from memory.
 * Averages of the shapes: swing weight 111, 115 and 120 of standard, hybrid and elongated paddles (common practice).
 */
export const pickleball: SportData = {
  sport: 'pickleball',
  axisCm: 5,
  ballG: 24.31,
  ballLimitsG: [22.11, 26.51],
  strokes: [
    { name: 'drive', ballSpeed: 10, faceSpeed: 16, turnsAboutCm: -20, source: ASSUMED },
    { name: 'volley', ballSpeed: 12, faceSpeed: 6, turnsAboutCm: -30, source: ASSUMED },
    { name: 'dink', ballSpeed: 4, faceSpeed: 3, turnsAboutCm: -30, source: ASSUMED },
  ],
  face: {
    restitution: 0.46,
    atSpeed: 26,
    lossPerSpeed: 0.004,
    edgeLoss: 0.2,
    source: 'published approval tests of paddles at speed: 0.43 to 0.48; from memory',
  },
  shaft: 'stiff',
  lengthCm: 16 * INCH,
  handleLengthCm: 5.25 * INCH,
  handleRadiusCm: 1.55,
  family: { kind: 'rectangle', widthCm: 8 * INCH, cornerRadiusCm: 4.5 },
  hoop: { widthCm: 0.4, thickCm: 1.4, places: ['inside', 'edge'], usual: 'edge', sizeIsOf: 'whole' },
  shapes: {
    standard: { lengthCm: 16 * INCH, widthCm: 8 * INCH },
    hybrid: { lengthCm: 16.25 * INCH, widthCm: 7.7 * INCH, cornerRadiusCm: 6 },
    elongated: { lengthCm: 16.5 * INCH, widthCm: 7.5 * INCH, handleLengthCm: 5.5 * INCH },
    'extra-long': { lengthCm: 17 * INCH, widthCm: 7 * INCH, handleLengthCm: 5.5 * INCH },
    wide: { lengthCm: 15.75 * INCH, widthCm: 8.25 * INCH, handleLengthCm: 5 * INCH },
  },
  shapeAverages: {
    standard: { swingWeight: 111 },
    hybrid: { swingWeight: 115 },
    elongated: { swingWeight: 120 },
  },
  throat: 'none',
  usual: { massG: 228, balanceCm: 23.5, swingWeight: 115, twistWeight: 6.5 },
  plausible: {
    massG: [150, 320],
    balanceCm: [18, 29.5],
    swingWeight: [70, 175],
    twistWeight: [3.5, 11],
    lengthCm: [36, 44.5],
    headAreaCm2: [350, 750],
  },
  usualRange: { recoil: [0.78, 1.28], twist: [0.6, 1.5] },
  depthCm: 0.55,
  massShares: { edge: 0.22, face: 0.5 },
  noticeable: { massG: 2, balanceCm: 0.3, swingWeightShare: 0.025, twistWeight: 0.2 },
  tolerance: { massG: 0.7, balanceCm: 0.15, swingWeight: 1, twistWeight: 0.1 },
  typicalReading: { massG: 0.2, balanceCm: 0.06, swingWeight: 0.5, twistWeight: 0.08 },
  programmeSteps: { tipG: 1.5, pairG: 3, handleG: 3 },
  smallestPieceG: 0.5,
  aimStep: { massG: 1, balanceCm: 0.1, swingWeight: 0.5, twistWeight: 0.05 },
  decimals: { massG: 1, balanceCm: 1, swingWeight: 1, twistWeight: 2 },
  dress: { components: ['baseGrip', 'overgrips'], bare: BARE },
  typicalParts: {
    strings: typical(0, 0),
    synthetic: typical(11, 1.5),
    leather: typical(17, 2),
    overgrip: typical(5, 0.4),
    dampener: typical(0, 0),
  },
  guides: {
    light: { swingWeight: { to: 115, dress: BARE } },
    medium: { swingWeight: { from: 115, to: 120, dress: BARE } },
    heavy: { swingWeight: { from: 120, dress: BARE } },
  },
  bands: {
    swingWeight: [
      { name: 'light', to: 115 },
      { name: 'medium', from: 115, to: 120 },
      { name: 'heavy', from: 120 },
    ],
  },
  juniorClasses: [],
  limits: [
    { of: 'length', mostCm: 17 * INCH, source: RULES },
    { of: 'length-plus-width', mostCm: 24 * INCH, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, extent: [0, 0.7], capG: 6, roomCm: 10 },
    { name: 'shoulders', path: 'rim', at: 1.4, extent: [0.7, 2.2], capG: 8, roomCm: 7 },
    { name: 'sides', path: 'rim', at: 3, extent: [2.2, 3.8], capG: 10, roomCm: 10 },
    { name: 'lowerHoop', path: 'rim', at: 4.6, extent: [3.8, 5.05], capG: 8, roomCm: 7 },
    { name: 'throat', path: 'rim', at: 5.5, extent: [5.05, 6], capG: 6, roomCm: 4 },
    { name: 'handleTop', path: 'handle', at: 0.85, extent: [0.65, 1], capG: 6, roomCm: 3.5 },
    { name: 'handle', path: 'handle', at: 0.45, extent: [0.25, 0.65], capG: 10, roomCm: 6 },
    { name: 'butt', path: 'handle', at: 0.075, extent: [0, 0.25], capG: 10, roomCm: 2 },
  ],
};
