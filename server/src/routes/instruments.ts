import type { Router } from 'express';
import { DRIVER_TRAITS, sentence, type DriverName, type Instrument, type SerialLink } from '@kevro/contract';
import type { Acts } from '../act';
import type { Hub } from '../instruments/hub';
import { ApiProblem } from '../problem';
import {
  addInstrument,
  changeInstrument,
  findCalibration,
  listCalibrations,
  nameTaken,
} from '../records/instrument';
import { answer } from './route';

export function instrumentRoutes(router: Router, acts: Acts, hub: Hub): void {
  const { db } = acts;
  answer(router, 'instruments', () => hub.all());
  answer(router, 'ports', () => hub.ports());
  answer(router, 'hearPort', ({ body }) => hub.hearPort(body));

  function taken(name: string): ApiProblem {
    const values = { what: `an instrument named ${name}` };
    const message = sentence('already-there', values);
    return new ApiProblem('already-there', [{ path: 'name', code: 'already-there', message }], values);
  }
  /** @throws ApiProblem where a device at a port has none, or a stand-in has one */
  function requirePort(driver: DriverName, link: SerialLink | null): void {
    const { hasPort } = DRIVER_TRAITS[driver];
    if (hasPort === (link !== null)) return;
    const code = hasPort ? 'needs-a-port' : 'bad-input';
    throw new ApiProblem(code, [{ path: 'link', code, message: sentence(code) }]);
  }
  /** An instrument as it stands once everything is stored. */
  const shown = (_q: unknown, id: string): Promise<() => Promise<Instrument>> =>
    Promise.resolve(() => hub.view(id));

  acts.begin(
    router,
    'addInstrument',
    async ({ tx, body, later }) => {
      requirePort(body.driver, body.link);
      const instrument = await addInstrument(tx, { ...body, bench: hub.bench });
      if (!instrument) throw taken(body.name);
      later(() => hub.connect(instrument));
      return instrument.id;
    },
    shown,
  );
  acts.on(router, 'editInstrument', async ({ tx, id, body: { name, sheet, note, link }, later }) => {
    const { driver } = await hub.view(id);
    requirePort(driver, link);
    if (await nameTaken(tx, name, id)) throw taken(name);
    // What it is stays: its calibrations and readings were of that kind.
    const changed = await changeInstrument(tx, id, { name, sheet, note, link });
    if (changed) later(() => hub.changed(changed));
    return () => hub.view(id);
  });
  acts.on(router, 'retireInstrument', async ({ tx, id, body, later }) => {
    await hub.view(id);
    const changed = await changeInstrument(tx, id, { retired: body.retired });
    if (changed) later(() => hub.changed(changed));
    return () => hub.view(id);
  });

  acts.on(router, 'plugHere', async ({ tx, id, later }) => {
    await hub.view(id);
    const changed = await changeInstrument(tx, id, { bench: hub.bench });
    if (changed) later(() => hub.changed(changed));
    return () => hub.view(id);
  });

  answer(router, 'takeReading', ({ params, body }) => hub.take(params.id ?? '', body.key, body.asked));
  answer(router, 'cancelReading', ({ params }) => hub.cancel(params.id ?? ''));
  answer(router, 'standIn', ({ params, body }) => hub.setStandIn(params.id ?? '', body));
  answer(router, 'calibrations', async ({ params }) => {
    const { id } = await hub.view(params.id ?? '');
    return listCalibrations(db, id);
  });
  acts.begin(
    router,
    'calibrate',
    ({ tx, id, body, key, later }) => {
      later(() => hub.calibrated());
      return hub.calibrate(tx, id, key, body.rods);
    },
    async (q, made) => {
      const found = await findCalibration(q, made);
      if (!found) throw new ApiProblem('not-found');
      return found;
    },
  );
}
