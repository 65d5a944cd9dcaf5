export type Sport = 'tennis' | 'pickleball' | 'padel' | 'badminton';

export type ZoneName =
  | 'tip'
  | 'shoulders'
  | 'sides'
  | 'lowerHoop'
  | 'throat'
  | 'handleTop'
  | 'handle'
  | 'butt'
  | 'slotTip'
  | 'slotSides'
  | 'slotHeart';

/** A place of the frame that a fitter can name, where weight is put, with the most it takes. */
export interface Zone {
  name: ZoneName;
  /**
   * `rim`: a clock hour of the head's edge. `limb`: share of the way from the handle to the hoop on the throat's two limbs.
   * `shaft`: share of the way from the handle to the head on the long axis. `handle`: share of the handle's length.
   */
  path: 'rim' | 'limb' | 'shaft' | 'handle';
  at: number;
  /** The whole mass that the zone takes at most, both sides together, g. A shop's choice; from memory of common practice. */
  capG: number;
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

/** A published limit of the rules on a shape. */
export interface ShapeLimit {
  of: 'length' | 'width' | 'length-plus-width' | 'face-length' | 'face-width';
  mostCm: number;
  source: string;
}

/** All that a sport is: data. Numbers without a published source say so. */
export interface SportData {
  sport: Sport;
  /** Where the hand turns the frame: swing weight is stated about this axis, cm from the butt. */
  axisCm: number;
  /** Mass of the ball (or shuttle): the middle of what the rules allow, g. */
  ballG: number;
  ballLimitsG: readonly [number, number];
  /** Restitution of ball on a held face; uncertain, from memory. */
  restitution: number;
  lengthCm: number;
  handleLengthCm: number;
  /** Mean outer radius of the handle under its grip, cm. */
  handleRadiusCm: number;
  family: Family;
  /** Named shapes: what differs from the values above. */
  shapes: Record<
    string,
    { lengthCm?: number; handleLengthCm?: number; widthCm?: number; cornerRadiusCm?: number; widest?: number }
  >;
  /** What a frame usually is, strung where it has strings: for estimates and stand-ins, from memory. */
  usual: { massG: number; balanceCm: number; swingWeight: number; twistWeight: number };
  limits: readonly ShapeLimit[];
  zones: readonly Zone[];
}
