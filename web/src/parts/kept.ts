import { useStorage, type RemovableRef, type StorageLike, type UseStorageOptions } from '@vueuse/core';

/** What the browser would keep, for as long as the page is open. */
function memory(): StorageLike {
  const kept = new Map<string, string>();
  return {
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => void kept.set(key, value),
    removeItem: (key) => void kept.delete(key),
  };
}

/** The browser's own storage, or where that is denied (some settings do) one that lasts as long as the page. */
function storageOrMemory(): StorageLike {
  try {
    return window.localStorage;
  } catch {
    return memory();
  }
}
const storage = storageOrMemory();

/** Something that is kept by the browser over a reload: drafts, and what was chosen last on this device. */
export const useKept = <T>(key: string, initial: T, options: UseStorageOptions<T> = {}): RemovableRef<T> =>
  useStorage<T>(key, initial, storage, options);
