import { nanoid } from 'nanoid';
import { Refused } from '../api/client';

/**
 * The key of something that a page can begin, made when the page opens. Sent again because the first answer was lost, it is the same act; once it is stored the
 * next one is another.
 */
export function useActKey() {
  let key = nanoid();
  const renew = (): void => {
    key = nanoid();
  };
  return {
    renew,
    now: (): string => key,
    /** Does something under the key. */
    async once<T>(act: (key: string) => Promise<T>): Promise<T> {
      try {
        const done = await act(key);
        renew();
        return done;
      } catch (error) {
        // What was stored first is shown: whatever comes next is something else.
        if (error instanceof Refused && error.code === 'stored-already') renew();
        throw error;
      }
    },
  };
}
