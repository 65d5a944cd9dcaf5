import { Worker } from 'node:worker_threads';
import { ApiProblem } from '../problem';
import type { FileTold } from './reading-thread';
import type { OpenFile, ReadFile } from './setup-reading';

/** As much as the largest file takes to read, MB. */
const MOST_HEAP_MB = 2048;

/** Reads files in a thread of their own, one each: nobody else waits while a long one is taken apart. @param script the thread's, as it is built */
export const readInThread =
  (script: URL): ReadFile =>
  async (file): Promise<OpenFile> => {
    const worker = new Worker(script, {
      workerData: file,
      transferList: [file.bytes.buffer as ArrayBuffer],
      resourceLimits: { maxOldGenerationSizeMb: MOST_HEAP_MB },
    });
    const told = (): Promise<FileTold> =>
      new Promise((resolve, reject) => {
        worker.once('message', resolve);
        worker.once('error', (error: NodeJS.ErrnoException) =>
          reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new ApiProblem('too-large') : error),
        );
      });
    const orRefused = <T extends FileTold>(answer: T): Exclude<T, { refused: unknown }> => {
      if (!('refused' in answer)) return answer as Exclude<T, { refused: unknown }>;
      const { code, errors, message } = answer.refused;
      throw new ApiProblem(code, errors, {}, message);
    };
    const close = (): Promise<unknown> => worker.terminate();
    try {
      const answer = orRefused(await told());
      if (!('opened' in answer)) throw new Error('the file was not opened');
      return {
        ...answer.opened,
        next: async () => {
          const part = told();
          worker.postMessage('next');
          const read = orRefused(await part);
          return 'part' in read ? read.part : undefined;
        },
        close,
      };
    } catch (error) {
      await close();
      throw error;
    }
  };
