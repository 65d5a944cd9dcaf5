import { reactive } from 'vue';
import type { NumberKey, Working } from '@kevro/core';
import { NUMBER_NAMES } from '../words';

/** The state of a working sheet: opened with a number's parts, closed by the sheet itself. */
export function useWorking() {
  const sheet = reactive<{ open: boolean; title: string; parts: Working | undefined }>({
    open: false,
    title: '',
    parts: undefined,
  });
  function show(what: NumberKey, parts: Working | undefined, of = ''): void {
    if (!parts) return;
    const name = NUMBER_NAMES[what];
    Object.assign(sheet, { open: true, title: of ? `${name}, ${of}` : name, parts });
  }
  return { sheet, show };
}
