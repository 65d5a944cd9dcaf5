import { SPEC_KEYS, type SpecKey } from '../mass';
import type { StepKind } from './bench-steps';

/** What a reading at a step is for, and which specs are worth reading then. */
export interface StepReading {
  purpose: 'step' | 'trial' | 'check';
  specs: readonly SpecKey[];
}

const WEIGHT: readonly SpecKey[] = ['massG'];
const WITHOUT_TWIST = SPEC_KEYS.filter((key) => key !== 'twistWeight');

/** What there is to read after a step; undefined where nothing is new. @example readingAfter('strip-handle')?.specs // ['massG'] */
export function readingAfter(kind: StepKind): StepReading | undefined {
  switch (kind) {
    case 'cut':
    case 'trial':
    case 'seal':
      return undefined;
    case 'weigh-before':
    case 'strip-handle':
      return { purpose: 'step', specs: WEIGHT };
    case 'measure-trial':
      return { purpose: 'trial', specs: WITHOUT_TWIST };
    case 'final-check':
      return { purpose: 'check', specs: WITHOUT_TWIST };
    default:
      return { purpose: 'step', specs: WITHOUT_TWIST };
  }
}
