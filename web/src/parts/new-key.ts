/** A key of its own for something that may be sent twice and is to be stored once. Works without HTTPS, where `randomUUID` is not there. */
export const newKey = (what: string): string =>
  `${what} ${[...crypto.getRandomValues(new Uint8Array(12))].map((byte) => byte.toString(16).padStart(2, '0')).join('')}`;
