import type { ZoneName } from '../sport';

export const SCHOOLS = [
  'free',
  'handle-first',
  'sides',
  'shoulders',
  'tip',
  'ends',
  'balance-keeping',
] as const;
export type School = (typeof SCHOOLS)[number];

/** A school of placement: the zones it uses, or a tie between them. */
export interface SchoolRule {
  /** The zones it allows; all when left out. */
  zones?: readonly ZoneName[];
  /** The measured balance may move by at most this, cm. */
  keepBalanceWithinCm?: number;
}

const HANDLE = ['handleTop', 'handle', 'butt'] as const;

/** Schools as fitters describe them (common practice): one part of the head, with the handle as counterweight. */
export const SCHOOL_RULES: Record<School, SchoolRule> = {
  free: {},
  'handle-first': { zones: HANDLE },
  sides: { zones: ['sides', ...HANDLE] },
  shoulders: { zones: ['shoulders', ...HANDLE] },
  tip: { zones: ['tip', ...HANDLE] },
  ends: { zones: ['tip', 'butt'] },
  'balance-keeping': { keepBalanceWithinCm: 0.1 },
};
