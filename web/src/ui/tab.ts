import { nanoid } from 'nanoid';
import { tabStorage } from './kept';

/** Which tab this is: the same after a reload, another in every other tab. Drafts belong to one. */
let own = tabStorage.getItem('kevro-tab') ?? nanoid();
export const tabId = (): string => own;

const LOCK = 'kevro-tab-';

/**
 * Claims this tab's id for as long as the page stands. A tab that was duplicated brings the id of the first along: it takes a new one.
 * Where the browser has no locks (a page that is not on localhost or https), the id is taken as it is.
 */
export async function claimTab(): Promise<void> {
  const { locks } = navigator as { locks?: LockManager };
  const claim = (id: string): Promise<boolean> =>
    new Promise((claimed) => {
      void locks?.request(LOCK + id, { ifAvailable: true }, (lock) => {
        claimed(lock !== null);
        // Held until the page is gone.
        return lock ? new Promise(() => undefined) : undefined;
      });
    });
  if (locks && !(await claim(own))) {
    own = nanoid();
    await claim(own);
  }
  tabStorage.setItem('kevro-tab', own);
}

/** Those of some tabs that are still open; undefined where that cannot be known. */
export async function openTabs(): Promise<ReadonlySet<string> | undefined> {
  const { locks } = navigator as { locks?: LockManager };
  if (!locks) return undefined;
  const { held = [] } = await locks.query();
  return new Set(held.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : [])));
}
