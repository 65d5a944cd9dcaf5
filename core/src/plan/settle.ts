import { aimProblems, type Aim } from '../aim';
import { Fault } from '../fault';
import { settleFrame, type Frame, type FrameShape } from '../frame';
import { requireSpecs, withAxis, type AxisSpecs, type Specs } from '../mass';

/** The step of a placement's whole mass where nobody says it, g. */
export const USUAL_QUANTUM_G = 0.5;

/** A frame that is to be brought to an aim. */
export interface Aimed {
  shape: FrameShape;
  specs: Specs;
  target: Aim;
  /** The step of a placement's whole mass, both sides together, g; 0.5 if left out. */
  quantumG?: number | undefined;
}

export interface Settled {
  frame: Frame;
  before: AxisSpecs;
}

/** A frame and its specs, where they and the aim can be. @throws Fault with all that is wrong with them */
export function settleAim({ shape, specs, target, quantumG = USUAL_QUANTUM_G }: Aimed): Settled {
  const frame = settleFrame(shape);
  const before = requireSpecs(withAxis(specs, frame.sport.axisCm), frame.lengthCm);
  const problems = aimProblems(target, frame.lengthCm, before);
  if (!(quantumG > 0)) problems.push({ code: 'not-positive', path: 'quantumG' });
  if (problems.length > 0) throw new Fault(...problems);
  return { frame, before };
}
