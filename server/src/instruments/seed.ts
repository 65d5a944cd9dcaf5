/** The same number for the same id: what is simulated of a thing stays the same. */
export const seedOf = (id: string): number => [...id].reduce((h, c) => Math.imul(h, 31) + c.charCodeAt(0), 7);
