// Run by the build, once the program is built.
import { dbOf } from './db/pglite';
import { migrate } from './db/migrate';
import { makeNewDatabases } from './db/new-database';

await makeNewDatabases(import.meta.dirname, (engine) => migrate(dbOf(engine)));
process.exit(0);
