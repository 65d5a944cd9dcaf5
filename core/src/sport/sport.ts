export type Sport = 'tennis' | 'pickleball' | 'padel' | 'badminton';

export type ZoneName =
  'tip' | 'shoulders' | 'sides' | 'lowerHoop' | 'throat' | 'handleTop' | 'handle' | 'butt';

/** A place of the frame that a fitter can name, where weight is put, with the most it takes. */
export interface Zone {
  name: ZoneName;
  /** On the hoop (a clock hour), on the throat's limbs (share of the way from handle to hoop), or in the handle (share of its length). */
  path: 'rim' | 'limb' | 'handle';
  at: number;
  /** The whole mass that the zone takes at most, both sides together, g. Shop's choice; from memory of common practice. */
  capG: number;
  /** The longest strip it takes on one side (on the tip: across it), or the longest filling of the handle, cm. */
  roomCm: number;
}

/** All that a sport is: data. Numbers without a published source say so. */
export interface SportData {
  sport: Sport;
  /** Where the hand turns the frame: swing weight is stated about this axis, cm from the butt. */
  axisCm: number;
  ballG: number;
  typical: {
    lengthCm: number;
    headAreaCm2: number;
    /** Head length over head width. */
    headAspect: number;
    handleLengthCm: number;
    /** Mean outer radius of the handle under its grip. */
    handleRadiusCm: number;
  };
  zones: readonly Zone[];
}
