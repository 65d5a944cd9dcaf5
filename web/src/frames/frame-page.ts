import { useRecord } from '../api/queries';
import { useSaved } from '../stores/saved';

/** Everything of one frame, loaded when its page opens and again after something was stored. */
export function useFramePage(id: () => string) {
  const { record: page, failure, load } = useRecord('frame', id);
  async function changed(): Promise<void> {
    useSaved().stored();
    await load();
  }
  return { page, failure, load, changed };
}
