/** Limits and choices that a page says as well: apart from the schemas, so that it does not load those for a number. */

/** More than any racket is strung with. */
export const STRINGS_MOST_G = 60;
export const PASSPHRASE_LEAST = 10;
export const SETUP_SORTS = ['name', 'year', 'weight', 'balance', 'swing', 'twist'] as const;
