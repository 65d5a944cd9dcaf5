import { useStorage, type RemovableRef, type UseStorageOptions } from '@vueuse/core';

type Storage = Pick<globalThis.Storage, 'getItem' | 'setItem' | 'removeItem'> & { keys: () => string[] };

/** What the browser would keep, for as long as the page is open. */
function memory(): Storage {
  const kept = new Map<string, string>();
  return {
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => void kept.set(key, value),
    removeItem: (key) => void kept.delete(key),
    keys: () => [...kept.keys()],
  };
}

/** One of the browser's own storages, or where that is denied (some settings do) one that lasts as long as the page. */
function storageOrMemory(which: 'localStorage' | 'sessionStorage'): Storage {
  try {
    const own = window[which];
    return {
      getItem: (key) => own.getItem(key),
      setItem: (key, value) => own.setItem(key, value),
      removeItem: (key) => own.removeItem(key),
      keys: () => Object.keys(own),
    };
  } catch {
    return memory();
  }
}
/** What this device keeps; and what only this tab does, over a reload. */
export const deviceStorage = storageOrMemory('localStorage');
/** Whether it keeps anything beyond the page. */
export const remembers = (): boolean => {
  try {
    return typeof window.localStorage === 'object';
  } catch {
    return false;
  }
};
export const tabStorage = storageOrMemory('sessionStorage');

/** Something that was chosen last on this device: kept over a reload, the same in all tabs. */
export const useKept = <T>(key: string, initial: T, options: UseStorageOptions<T> = {}): RemovableRef<T> =>
  useStorage<T>(key, initial, deviceStorage, options);
