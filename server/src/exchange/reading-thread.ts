import { parentPort, workerData } from 'node:worker_threads';
import { Fault } from '@kevro/core';
import { fieldError, type FieldError } from '@kevro/contract';
import type { ErrorCode } from '@kevro/contract';
import { ApiProblem } from '../problem';
import { readHere, type OpenFile, type ReadPart, type SetupFile } from './setup-reading';

export type FileTold =
  | { opened: Pick<OpenFile, 'mapping' | 'size'> }
  | { part: ReadPart | undefined }
  | { refused: { code: ErrorCode; errors: FieldError[]; message: string } };

const port = parentPort;
if (!port) throw new Error('files are read in a thread of their own');
const tell = (told: FileTold): void => port.postMessage(told);

function refuse(error: unknown): void {
  if (error instanceof Fault) {
    const errors = error.problems.map(fieldError);
    tell({ refused: { code: 'bad-input', errors, message: errors[0]?.message ?? '' } });
  } else if (error instanceof ApiProblem)
    tell({ refused: { code: error.code, errors: error.errors, message: error.message } });
  else throw error;
}

const opening = readHere(workerData as SetupFile);
opening.then(({ mapping, size }) => tell({ opened: { mapping, size } }), refuse);
port.on('message', () => {
  void opening.then(async (file) => tell({ part: await file.next() })).catch(refuse);
});
