import { existsSync } from 'node:fs';
import { ensurePackage } from './debian.mjs';

/** What makes the pseudo terminals at which the tests plug in devices of their own. */
export const ensureSocat = () =>
  ensurePackage(
    'socat',
    () => existsSync('/usr/bin/socat'),
    'The tests of devices at a port need socat. Install it: apt-get install socat.',
  );
