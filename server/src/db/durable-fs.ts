import { closeSync, fsyncSync, openSync } from 'node:fs';
import { NodeFS } from '@electric-sql/pglite/nodefs';
import type { PGlite } from '@electric-sql/pglite';

type InitArgs = Parameters<NodeFS['init']>;
type InitAnswer = Awaited<ReturnType<NodeFS['init']>>;

/** The part of Emscripten's file layer that is completed here: an open file of the folder, and what can be done with one. */
interface NodeFiles {
  stream_ops: { fsync?: (stream: { nfd?: number }) => number };
}

/** Brings a file to the disk, or of a folder which names are in it. */
export function sync(path: string): void {
  const opened = openSync(path, 'r');
  try {
    fsyncSync(opened);
  } finally {
    closeSync(opened);
  }
}

/**
 * The folder of the database, with the one call that PGlite's file layer lacks: without it a commit is acknowledged while it still lies in the
 * machine's memory only, and a power cut takes the last half minute with it. A new or renamed file counts only when its folder is on the disk too.
 */
export class DurableNodeFS extends NodeFS {
  override async init(pg: PGlite, options: InitArgs[1]): Promise<InitAnswer> {
    const { emscriptenOpts } = await super.init(pg, options);
    const syncFiles = (module: unknown): void => {
      const { NODEFS } = module as { NODEFS: NodeFiles };
      NODEFS.stream_ops.fsync = ({ nfd }) => {
        if (nfd !== undefined) fsyncSync(nfd);
        return 0;
      };
    };
    return { emscriptenOpts: { ...emscriptenOpts, preRun: [...(emscriptenOpts.preRun ?? []), syncFiles] } };
  }
}
