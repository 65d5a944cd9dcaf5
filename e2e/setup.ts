import { rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { Application } from './harness';

declare module 'vitest' {
  export interface ProvidedContext {
    /** A folder with the demo shop in it, as a server left it: each test starts from a copy of its own. */
    demoShop: string;
  }
}

/** Loads the demo shop once; setting it up takes longer than copying it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const app = new Application();
  await app.start();
  await app.stop();
  project.provide('demoShop', app.data);
  return () => rmSync(app.folder, { recursive: true, force: true });
}
