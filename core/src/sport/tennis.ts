import { typical, type Dress } from './kit';
import { HOOP_PLACES, type SportData } from './sport';

const RULES = 'ITF Rules of Tennis, Appendix II (the racket)';
const ASSUMED = 'assumed, from memory of published measurements';
const UNSTRUNG: Dress = { baseGrip: 'synthetic' };
const STRUNG: Dress = { ...UNSTRUNG, strings: true };

/** A guide as the trade says it: swing weight strung, weight unstrung. */
const guide = (swing: [number, number], unstrungG: [number, number]) => ({
  massG: { from: unstrungG[0], to: unstrungG[1], dress: UNSTRUNG },
  swingWeight: { from: swing[0], to: swing[1], dress: STRUNG },
});

/**
 * Tennis. Axis 4 in from the butt (common practice); ball 56.0 to 59.4 g (ITF Rules of Tennis, Appendix I).
 * Noticeable: 2.5 % of swing weight (Brody 2000, skilled players); 3 g, 3 mm, 0.4 kg·cm² of twist (common practice).
 * Typical shape, caps, usual specs and guides: common practice, from memory.
 */
export const tennis: SportData = {
  sport: 'tennis',
  axisCm: 10.16,
  ballG: 57.7,
  ballLimitsG: [56.0, 59.4],
  strokes: [
    { name: 'groundstroke', ballSpeed: 15, faceSpeed: 25, turnsAboutCm: -20, source: ASSUMED },
    { name: 'volley', ballSpeed: 20, faceSpeed: 8, turnsAboutCm: -40, source: ASSUMED },
    { name: 'serve', ballSpeed: 1, faceSpeed: 38, turnsAboutCm: -10, source: ASSUMED },
  ],
  face: {
    restitution: 0.85,
    atSpeed: 25,
    lossPerSpeed: 0.002,
    edgeLoss: 0.1,
    source:
      'Brody, Cross & Lindsey, The Physics and Technology of Tennis: 0.75 to 0.9 on a held head; from memory',
  },
  shaft: 'stiff',
  lengthCm: 68.58,
  handleLengthCm: 20,
  handleRadiusCm: 1.6,
  family: { kind: 'ellipse', headAreaCm2: 645.16, headAspect: 4 / 3 },
  hoop: { widthCm: 1.1, thickCm: 2.3, places: HOOP_PLACES, usual: 'beside', sizeIsOf: 'bed' },
  shapes: {},
  shapeAverages: {},
  throat: 'limbs',
  usual: { massG: 320, balanceCm: 32.5, swingWeight: 320, twistWeight: 13.5 },
  plausible: {
    massG: [180, 420],
    balanceCm: [24, 41],
    swingWeight: [190, 440],
    twistWeight: [7, 22],
    lengthCm: [42, 74.5],
    headAreaCm2: [400, 900],
  },
  usualRange: { recoil: [0.78, 1.28], twist: [0.6, 1.5] },
  depthCm: 0.8,
  massShares: { edge: 0.44, face: 0.05 },
  noticeable: { massG: 3, balanceCm: 0.3, swingWeightShare: 0.025, twistWeight: 0.4 },
  tolerance: { massG: 1, balanceCm: 0.15, swingWeight: 1.5, twistWeight: 0.2 },
  // The scatter of a flex machine's number from frame to stand: from memory.
  typicalReading: { massG: 0.3, balanceCm: 0.07, swingWeight: 0.8, twistWeight: 0.15, stiffness: 1 },
  programmeSteps: { tipG: 2, pairG: 4, handleG: 5 },
  smallestPieceG: 0.5,
  aimStep: { massG: 1, balanceCm: 0.1, swingWeight: 1, twistWeight: 0.1 },
  decimals: { massG: 1, balanceCm: 1, swingWeight: 0, twistWeight: 1 },
  stringing: { tensionKg: [12, 36], stepKg: [1, 1.5], hours: 20 },
  dress: { components: ['strings', 'baseGrip', 'overgrips', 'dampener'], bare: UNSTRUNG },
  typicalParts: {
    strings: typical(16, 1.5),
    synthetic: typical(14, 1.5),
    leather: typical(24, 2),
    overgrip: typical(5.5, 0.4),
    dampener: typical(2.5, 0.4),
  },
  guideChoice: {
    order: ['first-full', 'average-adult', 'strong-adult', 'advanced', 'very-strong'],
    start: 1,
    child: { guide: 'junior-26', belowAge: 12, belowCm: 145 },
    raisedFrom: 6,
  },
  guides: {
    'junior-26': guide([245, 278], [225, 255]),
    'first-full': guide([270, 300], [250, 275]),
    'average-adult': guide([290, 315], [270, 295]),
    'strong-adult': guide([308, 330], [285, 308]),
    advanced: guide([318, 340], [295, 318]),
    'very-strong': guide([330, 360], [310, 340]),
  },
  bands: {},
  juniorClasses: [
    { underAge: 12, unstrungG: 260 },
    { underAge: 15, unstrungG: 280 },
    { underAge: 18, unstrungG: 300 },
    { underAge: Infinity, unstrungG: 315 },
  ],
  limits: [
    { of: 'length', mostCm: 73.7, source: RULES },
    { of: 'width', mostCm: 31.7, source: RULES },
    { of: 'face-length', mostCm: 39.4, source: RULES },
    { of: 'face-width', mostCm: 29.2, source: RULES },
  ],
  zones: [
    { name: 'tip', path: 'rim', at: 12, extent: [0, 0.75], capG: 8, roomCm: 16 },
    { name: 'shoulders', path: 'rim', at: 1.5, extent: [0.75, 2.25], capG: 14, roomCm: 12 },
    { name: 'sides', path: 'rim', at: 3, extent: [2.25, 3.75], capG: 16, roomCm: 14 },
    { name: 'lowerHoop', path: 'rim', at: 4.5, extent: [3.75, 6], capG: 12, roomCm: 12 },
    { name: 'throat', path: 'throat', at: 0.45, extent: [0, 1], capG: 10, roomCm: 8 },
    { name: 'handleTop', path: 'handle', at: 0.85, extent: [0.6, 1], capG: 12, aroundG: 14, roomCm: 6 },
    { name: 'handle', path: 'handle', at: 0.325, extent: [0.2, 0.6], capG: 20, aroundG: 32, roomCm: 10 },
    { name: 'butt', path: 'handle', at: 0.075, extent: [0, 0.2], capG: 15, aroundG: 14, roomCm: 4 },
  ],
};
