import { typical, type Dress } from './kit';
import type { SportData } from './sport';

const RULES = 'FIP Rules of Padel, the racket';
const ASSUMED = 'assumed, from memory';
const BARE: Dress = { baseGrip: 'synthetic' };

/**
 * Padel. Axis 10 cm from the butt (common practice); ball 56.0 to 59.4 g (FIP Rules of Padel).
 * Noticeable: as in tennis (Brody 2000; common practice). Typical shape, caps, usual specs and guides: common practice, from memory.
 */
export const padel: SportData = {
  sport: 'padel',
  axisCm: 10,
  ballG: 57.7,
  ballLimitsG: [56.0, 59.4],
  strokes: [
    { name: 'drive', ballSpeed: 12, faceSpeed: 18, turnsAboutCm: -20, source: ASSUMED },
    { name: 'volley', ballSpeed: 14, faceSpeed: 7, turnsAboutCm: -35, source: ASSUMED },
    { name: 'smash', ballSpeed: 4, faceSpeed: 26, turnsAboutCm: -15, source: ASSUMED },
  ],
  face: {
    restitution: 0.62,
    atSpeed: 25,
    lossPerSpeed: 0.004,
    edgeLoss: 0.2,
    source: 'assumed: a foam face between strings and a stiff paddle; from memory',
  },
  shaft: 'stiff',
  lengthCm: 45.5,
  handleLengthCm: 13,
  handleRadiusCm: 1.6,
  family: { kind: 'egg', headLengthCm: 28, widthCm: 25.5, widest: 0.5 },
  hoop: { widthCm: 1, thickCm: 3.8, places: ['inside', 'edge'], usual: 'edge', sizeIsOf: 'whole' },
  shapes: { round: { widest: 0.5 }, teardrop: { widest: 0.56 }, diamond: { widest: 0.62 } },
  shapeAverages: {},
  throat: 'shaft',
  usual: { massG: 370, balanceCm: 26, swingWeight: 145, twistWeight: 14.5 },
  plausible: {
    massG: [260, 450],
    balanceCm: [20, 32],
    swingWeight: [85, 230],
    twistWeight: [8, 24],
    lengthCm: [43, 46.5],
    headAreaCm2: [350, 700],
  },
  usualRange: { recoil: [0.78, 1.28], twist: [0.6, 1.5] },
  depthCm: 1.5,
  massShares: { edge: 0.25, face: 0.42 },
  noticeable: { massG: 3, balanceCm: 0.3, swingWeightShare: 0.025, twistWeight: 0.4 },
  tolerance: { massG: 1, balanceCm: 0.15, swingWeight: 1, twistWeight: 0.2 },
  typicalReading: { massG: 0.3, balanceCm: 0.06, swingWeight: 0.6, twistWeight: 0.15 },
  programmeSteps: { tipG: 2, pairG: 4, handleG: 5 },
  smallestPieceG: 0.5,
  aimStep: { massG: 1, balanceCm: 0.1, swingWeight: 0.5, twistWeight: 0.1 },
  decimals: { massG: 1, balanceCm: 1, swingWeight: 1, twistWeight: 1 },
  dress: { components: ['baseGrip', 'overgrips'], bare: BARE },
  typicalParts: {
    strings: typical(0, 0),
    synthetic: typical(10, 1.5),
    leather: typical(16, 2),
    overgrip: typical(5, 0.4),
    dampener: typical(0, 0),
  },
  guides: {
    usual: { massG: { from: 350, to: 375, dress: BARE } },
    'strong-arm': { massG: { from: 375, dress: BARE } },
  },
  bands: {
    massG: [
      { name: 'usual', from: 350, to: 375 },
      { name: 'only for strong arms', from: 375 },
    ],
  },
  juniorClasses: [],
  limits: [
    { of: 'length', mostCm: 45.5, source: RULES },
    { of: 'width', mostCm: 26, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, extent: [0, 0.75], capG: 8, roomCm: 14 },
    { name: 'shoulders', path: 'rim', at: 1.5, extent: [0.75, 2.25], capG: 10, roomCm: 9 },
    { name: 'sides', path: 'rim', at: 3, extent: [2.25, 3.75], capG: 12, roomCm: 10 },
    { name: 'lowerHoop', path: 'rim', at: 4.5, extent: [3.75, 6], capG: 10, roomCm: 8 },
    { name: 'throat', path: 'throat', at: 0.6, extent: [0, 1], capG: 8, roomCm: 3 },
    { name: 'handleTop', path: 'handle', at: 0.85, extent: [0.65, 1], capG: 8, roomCm: 3.5 },
    { name: 'handle', path: 'handle', at: 0.45, extent: [0.25, 0.65], capG: 15, roomCm: 6 },
    { name: 'butt', path: 'handle', at: 0.075, extent: [0, 0.25], capG: 12, roomCm: 2 },
    { name: 'slotTip', path: 'rim', slot: 1, at: 12, extent: [0, 0.5], capG: 6, roomCm: 4 },
    { name: 'slotSides', path: 'rim', slot: 2, at: 2.5, extent: [2, 3], capG: 8, roomCm: 4 },
    { name: 'slotHeart', path: 'throat', slot: 3, at: 0.9, extent: [0.8, 1], capG: 6, roomCm: 3 },
  ],
};
