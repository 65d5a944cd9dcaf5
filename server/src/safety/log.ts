import pino, { type Logger } from 'pino';

/** What of an error may stand in a log: what kind it is and where it came from. Its message can hold what somebody typed, a player's arm among it. */
export function withoutWords(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { name: typeof error };
  const { code, table, constraint, routine } = error as Error & Record<string, unknown>;
  const known = Object.entries({ code, table, constraint, routine }).filter(
    ([, value]) => typeof value === 'string' && /^[\w.-]{1,80}$/.test(value),
  );
  const at = (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 12)
    .map((line) => line.trim());
  return {
    name: error.name,
    ...Object.fromEntries(known),
    at,
    ...(error.cause === undefined ? {} : { cause: withoutWords(error.cause) }),
  };
}

/** Lines of JSON on the error output: numbers, kinds and places, never words that somebody typed. */
export const log: Logger = pino(
  { name: 'kevro', serializers: { err: withoutWords } },
  pino.destination({ fd: 2, sync: true }),
);
