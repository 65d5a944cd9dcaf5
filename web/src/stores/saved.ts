import { defineStore } from 'pinia';
import { ref } from 'vue';

/** When something was last stored, for the foot line; and the last thing that went wrong. */
export const useSaved = defineStore('saved', () => {
  const at = ref('');
  const failure = ref('');
  const stored = (): void => {
    failure.value = '';
    at.value = new Date().toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  };
  const failed = (error: unknown): void => {
    failure.value = error instanceof Error ? error.message : String(error);
  };
  return { at, failure, stored, failed };
});
