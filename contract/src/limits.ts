/** Limits and choices that a page says as well: apart from the schemas, so that it does not load those for a number. */

import { ALL_SPEC_KEYS, SPECS } from '@kevro/core';

/** More than any racket is strung with. */
export const STRINGS_MOST_G = 60;
export const PASSPHRASE_LEAST = 10;
/** What people of the shop may do: everything, all work at the bench, or look. */
export const ROLES = ['owner', 'fitter', 'reader'] as const;
export type Role = (typeof ROLES)[number];
export const SETUP_SORTS = ['name', 'year', ...ALL_SPEC_KEYS.map((key) => SPECS[key].short)] as const;

/** The header that says how long ago something was done that could be sent only now, in seconds: of two clocks that differ only the length of a wait is true. */
export const DONE_AGO = 'kevro-done-ago';
