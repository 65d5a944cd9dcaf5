import { proxy, wrap, type Remote } from 'comlink';
import { ref } from 'vue';

/**
 * Work beside the page by a worker of its own that is stopped with it: what comes of work that was stopped, or that newer work overtook, is not heard.
 * @example const { ask, stop, failure } = useWorker<PlanWorker>(() => new PlanWorkerFile());
 */
export function useWorker<W>(make: () => Worker) {
  const working = ref(false);
  const failure = ref('');
  let worker: Worker | undefined;

  function stop(): void {
    worker?.terminate();
    worker = undefined;
    working.value = false;
  }
  /** @param work what is asked of it @param heard wraps what it calls back while it works */
  async function ask<T>(
    work: (remote: Remote<W>, heard: <F extends (...given: never[]) => void>(of: F) => F) => Promise<T>,
    onFound: (found: T) => void,
  ): Promise<void> {
    stop();
    failure.value = '';
    working.value = true;
    const own = make();
    worker = own;
    const isOwn = (): boolean => worker === own;
    const heard = <F extends (...given: never[]) => void>(of: F): F =>
      proxy((...given: Parameters<F>) => {
        if (isOwn()) of(...given);
      }) as unknown as F;
    try {
      const found = await Promise.race([
        work(wrap<W>(own), heard),
        new Promise<never>((_, fail) => {
          own.onerror = ({ message }) => fail(new Error(message));
        }),
      ]);
      if (isOwn()) onFound(found);
    } catch (error) {
      if (isOwn()) failure.value = error instanceof Error ? error.message : String(error);
    } finally {
      if (isOwn()) stop();
    }
  }
  return { working, failure, ask, stop };
}
