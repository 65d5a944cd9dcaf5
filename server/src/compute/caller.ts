import { AsyncLocalStorage } from 'node:async_hooks';
import type { RequestHandler } from 'express';

const callers = new AsyncLocalStorage<AbortSignal>();

/** Told once whoever asked has gone away: what is worked out for nobody is dropped. Undefined outside a request. */
export const callerGone = (): AbortSignal | undefined => callers.getStore();

/** Lets everything that a request starts know when its caller goes away. */
export const whileCallerStays: RequestHandler = (_request, response, next) => {
  const gone = new AbortController();
  response.once('close', () => {
    if (!response.writableFinished) gone.abort();
  });
  callers.run(gone.signal, next);
};
