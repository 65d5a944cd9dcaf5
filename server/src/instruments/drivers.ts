import type { DriverName } from '@kevro/contract';
import type { MakeDriver } from './driver';
import { seedOf } from './seed';
import type { Ports } from './ports';
import { SerialDevice } from './serial';
import { StandIn, type Pace } from './stand-in';

/** Every driver by its name; a real device's is one entry here. See docs/instruments.md. */
export const driversAt = (pace: Pace, ports: Ports): Record<DriverName, MakeDriver> => ({
  'stand-in': ({ id, kind, sheet }) => new StandIn(kind, sheet, seedOf(id), pace),
  serial: ({ kind, sheet, link }) => {
    if (!link) throw new Error('a device at a port has no port');
    return new SerialDevice(kind, sheet, link, ports);
  },
});
