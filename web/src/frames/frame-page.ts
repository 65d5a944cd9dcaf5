import { api } from '../api/client';
import { useRecord } from '../ui/record';
import { useSaved } from '../stores/saved';

/** Everything of one frame, loaded when its page opens and again after something was stored. */
export function useFramePage(id: () => string) {
  const { record: page, failure, load } = useRecord(id, (own) => api('frame', { id: own }));
  async function changed(): Promise<void> {
    useSaved().stored();
    await load();
  }
  return { page, failure, load, changed };
}
