import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { dbOf, openEngine } from './db/pglite';
import { migrate } from './db/migrate';
import { startCluster } from './db/test-cluster';
import { makeTemplate } from './db/test-template';

declare module 'vitest' {
  export interface ProvidedContext {
    /** A file with an empty shop in it; the server where the tests run on one. */
    emptyShop: { file: string; server?: string };
  }
}

/** Makes an empty shop once, for each test to begin with a copy. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'kevro-empty-'));
  const file = join(folder, 'shop.tar');
  const cluster = project.name === 'postgres' ? await startCluster() : undefined;
  if (cluster) await makeTemplate(cluster);
  else {
    const engine = await openEngine();
    await migrate(dbOf(engine));
    writeFileSync(file, Buffer.from(await (await engine.dumpDataDir('none')).arrayBuffer()));
    await engine.close();
  }
  project.provide('emptyShop', { file, ...(cluster ? { server: cluster.url('postgres') } : {}) });
  return async () => {
    rmSync(folder, { recursive: true, force: true });
    await cluster?.stop();
  };
}
