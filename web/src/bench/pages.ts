import type { Station } from '@kevro/core';

/** The stations that have a page in this version. */
const PAGES: ReadonlySet<Station> = new Set(['measure', 'compare', 'aim', 'plan', 'build', 'check', 'play']);

export const hasPage = (station: Station): boolean => PAGES.has(station);

/** Where a station's work is found: a station without a page is worked on where the build is. */
export const pageOf = (station: Station): Station => (hasPage(station) ? station : 'build');
