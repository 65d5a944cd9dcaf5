import type { Router } from 'express';
import { sentence } from '@kevro/contract';
import type { Db } from '../db/db';
import type { Hub } from '../instruments/hub';
import { ApiProblem } from '../problem';
import { addInstrument, changeInstrument, listCalibrations, nameTaken } from '../records/instrument';
import { answer } from './route';

/** An open stream says something now and then, so that nothing between closes it. */
const KEEP_ALIVE_MS = 15_000;

export function instrumentRoutes(router: Router, db: Db, hub: Hub): void {
  answer(router, 'instruments', () => hub.all());

  router.get('/instruments/stream', async (request, response) => {
    // No-transform keeps the compression away, which would hold messages back.
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' });
    response.flushHeaders();
    const alive = setInterval(() => response.write(': still here\n\n'), KEEP_ALIVE_MS);
    // A browser whose stream broke says the number of the last message that it heard.
    const heard = request.get('Last-Event-ID');
    const end = await hub.subscribe(
      ({ id, message }) =>
        response.write(`${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(message)}\n\n`),
      heard,
    );
    const close = (): void => {
      clearInterval(alive);
      end();
    };
    if (response.closed || request.destroyed) close();
    else response.on('close', close);
  });

  function taken(name: string): ApiProblem {
    const values = { what: `an instrument named ${name}` };
    const message = sentence('already-there', values);
    return new ApiProblem('already-there', [{ path: 'name', code: 'already-there', message }], values);
  }
  answer(router, 'addInstrument', async ({ body }) => {
    const instrument = await addInstrument(db, body);
    if (!instrument) throw taken(body.name);
    hub.connect(instrument);
    return hub.view(instrument.id);
  });
  answer(router, 'editInstrument', async ({ params, body: { name, sheet, note } }) => {
    const { id } = await hub.view(params.id ?? '');
    if (await nameTaken(db, name, id)) throw taken(name);
    // What it is stays: its calibrations and readings were of that kind.
    const changed = await changeInstrument(db, id, { name, sheet, note });
    if (changed) await hub.changed(changed);
    return hub.view(id);
  });
  answer(router, 'retireInstrument', async ({ params, body }) => {
    const { id } = await hub.view(params.id ?? '');
    const changed = await changeInstrument(db, id, { retired: body.retired });
    if (changed) await hub.changed(changed);
    return hub.view(id);
  });

  answer(router, 'takeReading', ({ params, body }) => hub.take(params.id ?? '', body.key, body.asked));
  answer(router, 'cancelReading', ({ params }) => hub.cancel(params.id ?? ''));
  answer(router, 'standIn', ({ params, body }) => hub.setStandIn(params.id ?? '', body));
  answer(router, 'calibrations', async ({ params }) => {
    const { id } = await hub.view(params.id ?? '');
    return listCalibrations(db, id);
  });
  answer(router, 'calibrate', ({ params, body }) => hub.calibrate(params.id ?? '', body.key, body.rods));
}
