import { useRouter } from 'vue-router';
import { api } from '../api/client';
import { useSaved } from '../stores/saved';
import { isDialogOpen } from '../ui/keys';
import { tagIn, type TakeBurst } from '../ui/bursts';

/** What nothing on the page takes is a frame's tag or a part's label, and opens it. */
export function openScanned(): TakeBurst {
  const router = useRouter();
  const saved = useSaved();
  async function open(tag: string): Promise<void> {
    try {
      const { rows } = await api('frames', { query: { tag, limit: 2 } });
      const [only] = rows;
      const part = only ? undefined : (await api('parts')).find((one) => one.part.id === tag)?.part;
      if (only) await router.push(`/frames/${only.id}`);
      else if (part) await router.push({ name: 'stock', query: { part: part.id } });
      else saved.failed(new Error(`A device typed “${tag}”, and no frame or part has that label.`));
    } catch (error) {
      saved.failed(error);
    }
  }
  return (text) => {
    // What is half filled in is not left for a label.
    if (isDialogOpen()) saved.failed(new Error(`A device typed “${text}”. Close this form first.`));
    else void open(tagIn(text));
    return true;
  };
}
