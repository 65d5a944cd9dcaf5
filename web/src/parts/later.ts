import { until } from '@vueuse/core';
import { markRaw, ref, shallowRef, type Component, type Ref } from 'vue';
import { sentence } from '@kevro/contract';
import { useSaved } from '../stores/saved';

/**
 * A part of a page that comes after the page: `<component :is="later.component.value" :ref="later.stands" />`.
 * @param load its module
 * @returns what draws it, and `get`: itself once it stands; undefined where it cannot be loaded, which the foot line says
 */
export function useLater<T>(load: () => Promise<{ default: Component }>) {
  const component = shallowRef<Component>();
  const instance = ref() as Ref<T | undefined>;
  const saved = useSaved();
  async function fetch(): Promise<boolean> {
    try {
      component.value ??= markRaw((await load()).default);
      return true;
    } catch {
      return false;
    }
  }
  async function get(): Promise<T | undefined> {
    if (!(await fetch())) {
      saved.failed(new Error(sentence('cannot-reach-server')));
      return undefined;
    }
    await until(instance).toBeTruthy();
    return instance.value;
  }
  const stands = (now: unknown): void => {
    instance.value = (now ?? undefined) as T | undefined;
  };
  return { component, stands, fetch, get };
}
