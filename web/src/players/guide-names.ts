import type { GuideName } from '@kevro/core';

export const GUIDE_NAMES: Record<GuideName, string> = {
  'junior-26': 'junior, 26 in',
  'first-full': 'first full-length frame, small adult',
  'average-adult': 'average adult, growing teenager',
  'strong-adult': 'strong adult, tournament junior',
  advanced: 'advanced, college',
  'very-strong': 'very strong, traditional feel',
};
