/** The time now, as ISO text; tests give their own. */
export type Clock = () => string;
export const systemClock: Clock = () => new Date().toISOString();
