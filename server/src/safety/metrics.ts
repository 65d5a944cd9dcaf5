import type { RequestHandler, Router } from 'express';
import { Histogram, Registry, collectDefaultMetrics } from 'prom-client';

/** How long answers take, s: from what nobody notices to what everybody does. */
const BUCKETS_S = [0.005, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5];

/**
 * What a watch over the server reads, in the text format of Prometheus: how long answers take, and how the process does. Nothing of it is about anybody: a call
 * is counted under the path that the contract gives it, never under the one that was asked for.
 */
export function metrics(): { counting: RequestHandler; route: (router: Router) => void } {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const took = new Histogram({
    name: 'kevro_answer_seconds',
    help: 'How long an answer took, by call and status',
    labelNames: ['method', 'call', 'status'],
    buckets: BUCKETS_S,
    registers: [registry],
  });
  return {
    counting: (request, response, next) => {
      const end = took.startTimer();
      // A stream is never finished: how long its page stands says nothing of the server.
      response.once('finish', () => {
        const route = request.route as { path?: unknown } | undefined;
        const call = typeof route?.path === 'string' ? route.path : 'none';
        end({ method: request.method, call, status: response.statusCode });
      });
      next();
    },
    route: (router) =>
      router.get('/metrics', async (_request, response) => {
        response.set('Content-Type', registry.contentType).send(await registry.metrics());
      }),
  };
}
