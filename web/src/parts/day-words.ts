const DAY = { day: 'numeric', month: 'short', year: 'numeric' } as const;
/** Whether it is a day without a time. */
export const isDayAlone = (iso: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(iso);

/** A day without a time is a day of the shop, wherever that is: it is read where it stands, not as midnight elsewhere. */
const dateOf = (iso: string): Date => new Date(isDayAlone(iso) ? `${iso}T12:00` : iso);

/** A day as it is said: «9 Nov 2026». */
export const dayWords = (iso: string): string => dateOf(iso).toLocaleDateString([], DAY);

/** A moment as it is said: «9 Nov 2026, 14:05». */
export const momentWords = (iso: string): string =>
  dateOf(iso).toLocaleString([], { ...DAY, hour: '2-digit', minute: '2-digit' });

/** The day of a moment where the shop is, as it is sorted: «2026-11-09». */
export const shopDay = (iso: string): string => dateOf(iso).toLocaleDateString('sv');
