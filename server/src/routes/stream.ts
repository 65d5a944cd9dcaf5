import type { Router } from 'express';
import type { ToldChange } from '@kevro/contract';
import type { Changes } from '../changes';
import type { Hub } from '../instruments/hub';

/** An open stream says something now and then, so that nothing between closes it. */
const KEEP_ALIVE_MS = 15_000;

/** Streams that do not end: what is stored, and what instruments say. */
export function streamRoutes(router: Router, changes: Changes, hub: Hub): void {
  /** @param of what is heard; a browser whose stream broke says the number of the last message that it heard */
  const stream = (
    path: string,
    of: (query: Record<string, unknown>) => { changes: boolean; instruments: boolean },
  ) =>
    router.get(path, async (request, response) => {
      // No-transform keeps the compression away, which would hold messages back.
      response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' });
      response.flushHeaders();
      const wanted = of(request.query);
      const alive = setInterval(() => response.write(': still here\n\n'), KEEP_ALIVE_MS);
      const ends = [() => clearInterval(alive)];
      if (wanted.changes) {
        ends.push(
          changes.listen((change: ToldChange) =>
            response.write(`event: change\ndata: ${JSON.stringify(change)}\n\n`),
          ),
        );
      }
      if (wanted.instruments) {
        ends.push(
          await hub.subscribe(
            ({ id, message }) =>
              response.write(`${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(message)}\n\n`),
            request.get('Last-Event-ID'),
          ),
        );
      }
      const close = (): void => ends.forEach((end) => end());
      if (response.closed || request.destroyed) close();
      else response.on('close', close);
    });
  stream('/stream', ({ instruments }) => ({ changes: true, instruments: instruments === 'yes' }));
  stream('/instruments/stream', () => ({ changes: false, instruments: true }));
}
