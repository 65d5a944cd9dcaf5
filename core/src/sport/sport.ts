import { type Ratings, type SpecKey } from '../spec';
import type { Band, Guide, GuideName, JuniorClass } from './guide';
import type { Dress, DressComponent, TypicalParts } from './kit';

export const ALL_SPORTS = ['tennis', 'pickleball', 'padel', 'badminton'] as const;
export type Sport = (typeof ALL_SPORTS)[number];

export const ALL_ZONES = [
  'tip',
  'shoulders',
  'sides',
  'lowerHoop',
  'throat',
  'handleTop',
  'handle',
  'butt',
  'slotTip',
  'slotSides',
  'slotHeart',
] as const;
export type ZoneName = (typeof ALL_ZONES)[number];

/** The lines of a frame that weight is laid along, and the slots that weight is put into. */
export type Path = 'rim' | 'throat' | 'handle' | 'slot';

/** A place of the frame that a fitter can name, where weight is put, with the most it takes. */
export interface Zone {
  name: ZoneName;
  /** `rim` is the head's edge. A slot lies on the rim or the throat and takes what fits into it. */
  path: Exclude<Path, 'slot'>;
  /** Given for a slot: its number, as the fitter counts. */
  slot?: number;
  /** Where the zone's middle lies. `rim`: a clock hour. `throat` and `handle`: a share of the way from the butt's end of it. */
  at: number;
  /** From where to where along its path a weight is named by this zone, counted like `at`. */
  extent: readonly [number, number];
  /** The whole mass that the zone takes at most, both sides together, g. A shop's choice; from memory of common practice. */
  capG: number;
  /** Of a part of the handle: the most around it under the grip, beside what is inside, g; as much as inside if left out. */
  aroundG?: number;
  /** The longest strip it takes on one side (on the tip: across it), or the longest filling of the handle, cm. */
  roomCm: number;
}

/** How the outline of a head is made from a shape's lengths. */
export type Family =
  /** An ellipse, from area and aspect or from length and width. */
  | { kind: 'ellipse'; headAreaCm2: number; headAspect: number }
  /** A rectangle with rounded corners that stands on the handle. */
  | { kind: 'rectangle'; widthCm: number; cornerRadiusCm: number }
  /** Two half-ellipses above a bridge and heart; `widest` is where the head is widest, as a share of the head from its bottom. */
  | { kind: 'egg'; headLengthCm: number; widthCm: number; widest: number };

/** Where on the hoop a piece lies: inside it on the bed's side, beside the strings on its flat, under the bumper, or on the outer edge. */
export const HOOP_PLACES = ['inside', 'beside', 'bumper', 'edge'] as const;
export type HoopPlace = (typeof HOOP_PLACES)[number];

/** The hoop, or the edge guard, outside the bed or face. */
export interface Hoop {
  /** How far its outer edge lies outside the bed, cm (from memory). */
  widthCm: number;
  /** How thick it usually is, across the plane of the face, cm (from memory). */
  thickCm: number;
  /** Where pieces may lie on it: a paddle has no bumper, and no strings to lie beside. */
  places: readonly HoopPlace[];
  /** Where they lie unless they say where. */
  usual: HoopPlace;
  /** Whether the head's size is said of the bed (as strung heads are), or of the whole. */
  sizeIsOf: 'bed' | 'whole';
}

/** A published limit of the rules on a shape. */
export interface ShapeLimit {
  of: 'length' | 'width' | 'length-plus-width' | 'face-length' | 'face-width';
  mostCm: number;
  source: string;
}

export const STROKES = ['groundstroke', 'volley', 'serve', 'drive', 'smash', 'dink', 'clear'] as const;
export type StrokeName = (typeof STROKES)[number];

/** A stroke, as far as what the ball meets depends on it. Assumed: read differences from it, not promises. */
export interface Stroke {
  name: StrokeName;
  /** Speed of the ball onto the face and of the face at the middle of the head, m/s. */
  ballSpeed: number;
  faceSpeed: number;
  /** Where the swing turns about, cm from the butt; negative is behind it. */
  turnsAboutCm: number;
  source: string;
}

/** Restitution of the sport's ball on its held face: in the middle at a speed, and how it falls from there. */
export interface Face {
  restitution: number;
  /** Speed of ball and face toward each other at which it is that, m/s, and what of it is lost with every m/s more. */
  atSpeed: number;
  lossPerSpeed: number;
  /** Share of it that is lost at the edge of the face, growing with the square of the way there. */
  edgeLoss: number;
  source: string;
}

/** How a guide is proposed to a player (common practice). */
export interface GuideChoice {
  /** Lightest first, without those for children. */
  order: readonly GuideName[];
  /** Where to begin in that order; the middle if left out. */
  start?: number;
  child?: { guide: GuideName; belowAge: number; belowCm: number };
  /** From which level on one class more is carried. */
  raisedFrom?: number;
  /** The heaviest class needs no strong build. */
  heaviestForAll?: true;
}

/** How frames of a sport are strung (common practice; from memory). */
export interface Stringing {
  /** Between what a tension may lie, kg. */
  tensionKg: readonly [number, number];
  /** By how much it is changed at a time, kg. */
  stepKg: readonly [number, number];
  /** After so many hours of play strings are new no more. */
  hours: number;
}

/** All that a sport is: data. Numbers without a published source say so. */
export interface SportData {
  sport: Sport;
  /** Where the hand turns the frame: swing weight is stated about this axis, cm from the butt. */
  axisCm: number;
  /** About which axes swing weights of the sport are quoted, where that is more than the one, cm from the butt (from memory): a number without one has to be asked about. */
  quotedAxesCm?: readonly number[];
  /** Mass of the ball (or shuttle): the middle of what the rules allow, g. */
  ballG: number;
  ballLimitsG: readonly [number, number];
  /** The strokes that can be looked at; what the ball meets is drawn for the first unless another is chosen. */
  strokes: readonly [Stroke, ...Stroke[]];
  face: Face;
  /** Whether the frame is as good as rigid while it meets the ball; a shaft that bends makes a rigid body's best point untrue. */
  shaft: 'stiff' | 'bends';
  lengthCm: number;
  handleLengthCm: number;
  /** Mean outer radius of the handle under its grip, cm. */
  handleRadiusCm: number;
  family: Family;
  hoop: Hoop;
  /** Named shapes: what differs from the values above. */
  shapes: Record<
    string,
    { lengthCm?: number; handleLengthCm?: number; widthCm?: number; cornerRadiusCm?: number; widest?: number }
  >;
  /** What the frames of a named shape are on the average, in the bare dress; only what is published of them. */
  shapeAverages: Record<string, Partial<Record<SpecKey, number>>>;
  /** Two limbs that meet the hoop, or one shaft on the long axis; `none` where the head stands on the handle. */
  throat: 'limbs' | 'shaft' | 'none';
  /** What a frame usually is, strung where it has strings: for estimates and stand-ins, from memory. */
  usual: Record<SpecKey, number>;
  /** How far a usual frame may be from that: the recoil weight for its mass and length, and the twist weight for its mass and width, as ratios. From memory. */
  usualRange: { recoil: readonly [number, number]; twist: readonly [number, number] };
  /** Between what a value that nobody named may lie and still be a frame's, juniors' and built-up ones among them: for reading typed lines. From memory. */
  plausible: Record<SpecKey | 'lengthCm' | 'headAreaCm2', readonly [number, number]>;
  /** How far the mass lies from the plane of the face, as a root mean square, cm: from the depth of beams and cores (from memory). */
  depthCm: number;
  /** Shares of a frame's mass that lie evenly along the head's edge and over its face; the rest lies near the long axis. From memory. */
  massShares: { edge: number; face: number };
  /** What a hand just notices: in the spec's unit, for swing weight as a share of it. */
  noticeable: Record<Exclude<SpecKey, 'swingWeight'>, number> & { swingWeightShare: number };
  /** What a careful shop works to (common practice; the fitter can change it). */
  tolerance: Record<SpecKey, number>;
  /** Standard uncertainty of one reading with what a shop of the sport usually has (from memory). */
  typicalReading: Record<SpecKey, number> & Ratings;
  /**
   * What one step of a programme changes, g: at the tip, moved from the tip to a pair at the sides, and in the handle. Tennis: common practice (2 g, 2 + 2 g, 5 g);
   * the others as the same share of a usual frame's mass, to what is cut there (from memory).
   */
  programmeSteps: { tipG: number; pairG: number; handleG: number };
  /** Smaller pieces than this are not worth cutting, g (common practice; a shop may say otherwise). */
  smallestPieceG: number;
  /** To what a fitter rounds an aim. */
  aimStep: Record<SpecKey, number>;
  /** Decimals shown, in g, cm and kg·cm². */
  decimals: Record<SpecKey, number> & Ratings;
  /** Only where there are strings. */
  stringing?: Stringing;
  /** What of a dress there is, and what counts as bare. */
  dress: { components: readonly DressComponent[]; bare: Dress };
  typicalParts: TypicalParts;
  guides: Partial<Record<GuideName, Guide>>;
  /** How one of them is proposed to a player, where that is not just the middle of them (common practice). */
  guideChoice?: GuideChoice;
  bands: Partial<Record<SpecKey, readonly Band[]>>;
  juniorClasses: readonly JuniorClass[];
  limits: readonly ShapeLimit[];
  zones: readonly Zone[];
}
