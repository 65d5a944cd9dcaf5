import { defineAsyncComponent, type Component } from 'vue';
import { sentence } from '@kevro/contract';
import { useSaved } from './saved';

/** A part of a page that is loaded after the page. Where it cannot be loaded, the foot line says so. */
export const later = <T extends Component>(load: () => Promise<{ default: T }>): T =>
  defineAsyncComponent<T>({
    loader: async () => (await load()).default,
    onError: (_error, _retry, fail) => {
      useSaved().failed(new Error(sentence('cannot-reach-server')));
      fail();
    },
  });
