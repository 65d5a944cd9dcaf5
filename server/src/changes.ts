import type { ToldChange } from '@kevro/contract';
import { log } from './safety/log';

type Listener = (change: ToldChange) => void;

/** Tells whoever listens what was stored: within this process. */
export class Changes {
  private readonly listeners = new Set<Listener>();

  /** @returns ends it */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }
  /** One that fails does not keep it from the others. */
  tell(change: ToldChange): void {
    for (const listener of this.listeners)
      try {
        listener(change);
      } catch (error) {
        log.error({ err: error }, 'a change could not be told');
      }
  }
}
