// The PostgreSQL server of the tests: Debian's own.
import { existsSync, readdirSync } from 'node:fs';
import { ensurePackage } from './debian.mjs';

const PROGRAMS = '/usr/lib/postgresql';

export const ensurePostgres = () =>
  ensurePackage(
    'postgresql',
    () => existsSync(PROGRAMS) && readdirSync(PROGRAMS).length > 0,
    'The tests on a database server need PostgreSQL. Install it: apt-get install postgresql.',
  );
