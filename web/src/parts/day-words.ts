/** A day as it is said: «9 Nov 2026». */
export const dayWords = (iso: string): string =>
  new Date(iso).toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' });
