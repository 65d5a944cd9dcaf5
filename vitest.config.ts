import { defineConfig } from 'vitest/config';
import vue from '@vitejs/plugin-vue';

/** Tests that put calls of their own in the place of node's file calls. */
const OWN_FILES = ['server/src/db/durable-fs.test.ts', 'server/src/db/power-cut.test.ts'];
/** What is true of a PostgreSQL server only. */
const ON_A_SERVER = [
  'server/src/db/postgres.test.ts',
  'server/src/db/processes.test.ts',
  'server/src/db/plans.test.ts',
  'server/src/shops/shops.test.ts',
  'server/src/shops/restored-beside.test.ts',
];
/** What asks no database: on another engine it is the same. */
const ASKS_NONE = [
  'server/src/compute.test.ts',
  'server/src/compute-calls.test.ts',
  'server/src/instruments/coverage.test.ts',
  'server/src/instruments/serial.test.ts',
];
const page = {
  setupFiles: ['core/test/seed.ts'],
  maxWorkers: 2,
  // A slow machine is no fault of a computation.
  testTimeout: 30_000,
};
const server = {
  execArgv: ['--liftoff-only'],
  globalSetup: ['server/src/test-setup.ts'],
  setupFiles: ['core/test/seed.ts'],
  maxWorkers: 2,
  testTimeout: 60_000,
  hookTimeout: 60_000,
};

export default defineConfig({
  plugins: [vue()],
  test: {
    projects: [
      {
        extends: true,
        test: {
          ...page,
          name: 'unit',
          include: ['{core,contract,web}/src/**/*.test.ts', '{core,web}/test/*.test.ts'],
          exclude: ['**/*.dom.test.ts'],
          // What a file of tests imports is there for the next one: reading it anew takes longer than most of them.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          ...page,
          name: 'dom',
          include: ['web/src/**/*.dom.test.ts'],
          environment: 'happy-dom',
          server: { deps: { inline: ['vuetify'] } },
        },
      },
      {
        extends: true,
        test: {
          ...server,
          name: 'api',
          include: ['server/src/**/*.test.ts', 'demo/**/*.test.ts'],
          exclude: [...OWN_FILES, ...ON_A_SERVER],
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          ...server,
          // The same tests on a PostgreSQL server; what is about the embedded database's own files is left out.
          name: 'postgres',
          include: ['server/src/*.test.ts', 'server/src/instruments/**/*.test.ts', ...ON_A_SERVER],
          exclude: ASKS_NONE,
          isolate: false,
        },
      },
      {
        extends: true,
        test: { ...server, name: 'disk', include: OWN_FILES },
      },
    ],
  },
});
