import type { ToldChange } from '@kevro/contract';
import type { Wire } from './db/presence';
import { log } from './safety/log';

type Listener = (change: ToldChange) => void;

/** Something may have been stored that nobody here was told of. */
const EVERYTHING: ToldChange = { kind: 'everything', id: null, page: '' };

/** Tells whoever listens what was stored: by this process, and by others at the same database. */
export class Changes {
  private readonly listeners = new Set<Listener>();
  private readonly fromElsewhere = new Set<Listener>();

  /** @param wire to the other processes; none where this one has the database alone */
  constructor(private readonly wire?: Wire) {
    wire?.listen(
      (told) => this.hear(told as ToldChange),
      () => this.hear(EVERYTHING),
    );
  }
  private hear(change: ToldChange): void {
    each(this.fromElsewhere, change);
    each(this.listeners, change);
  }

  /** @returns ends it */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }
  /** Hears only of what another process stored: what this one holds in memory of it is to be read anew. */
  listenElsewhere(listener: Listener): void {
    this.fromElsewhere.add(listener);
  }
  tell(change: ToldChange): void {
    each(this.listeners, change);
    this.wire?.tell(change);
  }
  /** Tells other processes only: here it is known already. */
  tellElsewhere(change: ToldChange): void {
    this.wire?.tell(change);
  }
}

/** One that fails does not keep it from the others. */
function each(listeners: Iterable<Listener>, change: ToldChange): void {
  for (const listener of listeners)
    try {
      listener(change);
    } catch (error) {
      log.error({ err: error }, 'a change could not be told');
    }
}
