import { createServer, type RequestListener, type Server } from 'node:http';

/** How long a connection is kept for the next request, ms: longer than proxies keep theirs (nginx a minute), so that no request comes upon one that is just being closed. */
const KEPT_MS = 75_000;

/** A server for browsers, and for a proxy before them. */
export const serverFor = (answer: RequestListener): Server =>
  createServer({ keepAliveTimeout: KEPT_MS }, answer);
