/** The database server or the way to it went (PostgreSQL, appendix A, classes 08 and 57; the rest is the system's). */
const GONE = /^(08|57P0)|^(ECONNRESET|ECONNREFUSED|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENETUNREACH)$/;

/** What an error calls itself. */
export const codeOf = (error: unknown): string =>
  String((error as { code?: unknown } | undefined)?.code ?? '');

/** Whether the database could not be asked, or went while it was. */
export const isGone = (error: unknown): boolean =>
  GONE.test(codeOf(error)) || (error instanceof Error && error.message.startsWith('Connection terminated'));
