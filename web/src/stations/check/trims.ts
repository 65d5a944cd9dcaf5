import { onBeforeUnmount, ref, shallowRef } from 'vue';
import type { Trim, TrimRequest } from '@kevro/core';
import { fieldError } from '@kevro/contract';
import type { TrimMessage } from '../../workers/trim.worker';
import TrimWorker from '../../workers/trim.worker?worker';

/** Works out the smallest corrections of a build in a worker. */
export function useTrims() {
  /** Undefined until they are worked out. */
  const trims = shallowRef<Trim[]>();
  const failure = ref('');
  let worker: Worker | undefined;

  function stop(): void {
    worker?.terminate();
    worker = undefined;
  }
  function work(request: TrimRequest | undefined): void {
    stop();
    trims.value = undefined;
    failure.value = '';
    if (!request) return;
    worker = new TrimWorker();
    worker.onmessage = ({ data }: MessageEvent<TrimMessage>) => {
      if ('trims' in data) trims.value = data.trims;
      else
        failure.value =
          'failure' in data ? data.failure : data.problems.map((p) => fieldError(p).message).join(' ');
      stop();
    };
    worker.onerror = (event) => {
      failure.value = event.message;
      stop();
    };
    worker.postMessage(JSON.parse(JSON.stringify(request)));
  }
  onBeforeUnmount(stop);
  return { trims, failure, work };
}
