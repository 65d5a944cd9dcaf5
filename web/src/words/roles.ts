import type { Role } from '@kevro/contract';

/** What people of the shop may do. */
export const ROLE_NAMES: Record<Role, string> = { owner: 'Owner', fitter: 'Fitter', reader: 'Reader' };
export const ROLE_HINTS: Record<Role, string> = {
  owner: 'everything, and who comes in',
  fitter: 'all work at the bench',
  reader: 'looks, changes nothing, sees no arm history',
};
