import { typical } from './kit';
import { HOOP_PLACES, type SportData } from './sport';

const RULES = 'BWF Laws of Badminton, law 4';
const ASSUMED = 'assumed, from memory';
/**
 * Badminton. Axis 4 in from the butt (common practice); shuttle 4.74 to 5.50 g (BWF Laws, law 2).
 * Noticeable: 2.5 % of swing weight as in tennis (Brody 2000), 1 g, 2 mm and 3 % of twist weight (from memory).
 * Typical shape, caps, usual specs and guides: common practice, from memory. Strings as chords, gauge and density give them (3.5 g; the trade says within 5 g and 5 kg·cm² with the grip).
 */
export const badminton: SportData = {
  sport: 'badminton',
  axisCm: 10.16,
  quotedAxesCm: [10.16, 0],
  ballG: 5.12,
  ballLimitsG: [4.74, 5.5],
  strokes: [
    { name: 'clear', ballSpeed: 15, faceSpeed: 30, turnsAboutCm: 0, source: ASSUMED },
    { name: 'smash', ballSpeed: 8, faceSpeed: 40, turnsAboutCm: 0, source: ASSUMED },
  ],
  face: { restitution: 0.75, atSpeed: 40, lossPerSpeed: 0.002, edgeLoss: 0.1, source: ASSUMED },
  // A rigid frame of this weight would be best at the very tip for every stroke; the shaft bends instead, and the head meets the shuttle nearly free of it.
  shaft: 'bends',
  lengthCm: 67.5,
  handleLengthCm: 17.5,
  handleRadiusCm: 1.15,
  family: { kind: 'ellipse', headAreaCm2: 360, headAspect: 1.29 },
  hoop: { widthCm: 0.7, thickCm: 1, places: HOOP_PLACES, usual: 'beside', sizeIsOf: 'bed' },
  shapes: {},
  shapeAverages: {},
  throat: 'shaft',
  usual: { massG: 88, balanceCm: 29.5, swingWeight: 88, twistWeight: 1.25 },
  plausible: {
    massG: [60, 130],
    balanceCm: [24, 36],
    swingWeight: [55, 135],
    twistWeight: [0.5, 3],
    lengthCm: [57, 69],
    headAreaCm2: [250, 480],
  },
  usualRange: { recoil: [0.78, 1.28], twist: [0.6, 1.5] },
  depthCm: 0.35,
  massShares: { edge: 0.27, face: 0.04 },
  noticeable: { massG: 1, balanceCm: 0.2, swingWeightShare: 0.025, twistWeight: 0.04 },
  tolerance: { massG: 0.5, balanceCm: 0.1, swingWeight: 0.8, twistWeight: 0.03 },
  typicalReading: { massG: 0.1, balanceCm: 0.05, swingWeight: 0.4, twistWeight: 0.02 },
  programmeSteps: { tipG: 0.5, pairG: 1, handleG: 1.5 },
  smallestPieceG: 0.2,
  aimStep: { massG: 0.5, balanceCm: 0.1, swingWeight: 0.5, twistWeight: 0.02 },
  decimals: { massG: 1, balanceCm: 1, swingWeight: 1, twistWeight: 2 },
  stringing: { tensionKg: [7, 17], stepKg: [0.5, 0.75], hours: 20 },
  dress: { components: ['strings', 'baseGrip', 'overgrips'], bare: {} },
  typicalParts: {
    strings: typical(3.5, 0.4),
    synthetic: typical(2.5, 0.5),
    leather: typical(7, 1),
    overgrip: typical(3, 0.4),
    dampener: typical(0.5, 0.2),
  },
  guideChoice: { order: ['4u', '3u'], heaviestForAll: true },
  guides: {
    '4u': { massG: { from: 80, to: 85, dress: {} } },
    '3u': { massG: { from: 85, to: 90, dress: {} } },
  },
  bands: {
    massG: [
      { name: '4U', from: 80, to: 85 },
      { name: '3U', from: 85, to: 90 },
    ],
    balanceCm: [
      { name: 'head-light', to: 29 },
      { name: 'even', from: 29, to: 29.5 },
      { name: 'head-heavy', from: 29.5 },
    ],
  },
  juniorClasses: [],
  limits: [
    { of: 'length', mostCm: 68, source: RULES },
    { of: 'width', mostCm: 23, source: RULES },
    { of: 'face-length', mostCm: 28, source: RULES },
    { of: 'face-width', mostCm: 22, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, extent: [0, 0.75], capG: 3, roomCm: 10 },
    { name: 'shoulders', path: 'rim', at: 1.5, extent: [0.75, 2.25], capG: 4, roomCm: 8 },
    { name: 'sides', path: 'rim', at: 3, extent: [2.25, 3.75], capG: 4, roomCm: 8 },
    { name: 'lowerHoop', path: 'rim', at: 4.5, extent: [3.75, 6], capG: 4, roomCm: 8 },
    { name: 'throat', path: 'throat', at: 0.85, extent: [0, 1], capG: 3, roomCm: 4 },
    { name: 'handleTop', path: 'handle', at: 0.85, extent: [0.65, 1], capG: 5, roomCm: 4 },
    { name: 'handle', path: 'handle', at: 0.45, extent: [0.25, 0.65], capG: 8, roomCm: 8 },
    { name: 'butt', path: 'handle', at: 0.075, extent: [0, 0.25], capG: 6, roomCm: 2.5 },
  ],
};
