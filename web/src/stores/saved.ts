import { defineStore } from 'pinia';
import { ref } from 'vue';
import { timeWords } from '../words/days';

/** When something was last stored, for the foot line; and the last thing that went wrong. */
export const useSaved = defineStore('saved', () => {
  const at = ref('');
  const failure = ref('');
  const stored = (): void => {
    failure.value = '';
    at.value = timeWords(new Date().toISOString());
  };
  const failed = (error: unknown): void => {
    failure.value = error instanceof Error ? error.message : String(error);
  };
  return { at, failure, stored, failed };
});
