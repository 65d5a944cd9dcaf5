import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { dbOf, openEngine } from './db/pglite';
import { migrate } from './db/migrate';

declare module 'vitest' {
  export interface ProvidedContext {
    /** A file with an empty shop in it. */
    emptyShop: string;
  }
}

/** Makes an empty shop once, for each test to begin with a copy. */
export default async function setup(project: TestProject): Promise<() => void> {
  const engine = await openEngine();
  await migrate(dbOf(engine));
  const folder = mkdtempSync(join(tmpdir(), 'kevro-empty-'));
  const file = join(folder, 'shop.tar');
  writeFileSync(file, Buffer.from(await (await engine.dumpDataDir('none')).arrayBuffer()));
  await engine.close();
  project.provide('emptyShop', file);
  return () => rmSync(folder, { recursive: true, force: true });
}
