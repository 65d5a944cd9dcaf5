const DAY_MS = 86_400_000;
/** Whole days from one day to another, YYYY-MM-DD. @example daysBetween('2026-11-01', '2026-11-30') // 29 */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS);

/** The day so many days after one, before it where they are less than none. @example dayAfter('2026-11-30', 2) // '2026-12-02' */
export const dayAfter = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * DAY_MS).toISOString().slice(0, 10);

const formats = new Map<string, Intl.DateTimeFormat>();

/**
 * The day that a moment falls on in a time zone: the shop's day decides who is growing, what is due and what can have been played.
 * @param timeZone an IANA name, such as Europe/Lisbon; the machine's own where it is empty
 * @param iso a moment, ISO 8601 @returns YYYY-MM-DD @throws RangeError for a zone that is not known
 * @example dayIn('Pacific/Auckland', '2026-12-31T12:00:00Z') // '2027-01-01'
 */
export function dayIn(timeZone: string, iso: string): string {
  const format = formats.get(timeZone) ?? new Intl.DateTimeFormat('sv-SE', timeZone ? { timeZone } : {});
  formats.set(timeZone, format);
  return format.format(new Date(iso));
}
