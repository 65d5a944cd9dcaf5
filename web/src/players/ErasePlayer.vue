<script setup lang="ts">
import { ref } from 'vue';
import type { Player } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { forgetDrafts } from '../forms/draft';
import { useSaved } from '../stores/saved';

/** Takes a person out of the shop for good, once their name has been typed. */
const NOT_CLEARED =
  'Erased. Old copies in the files are cleared at the next start: make room on the disk first.';
const saved = useSaved();
const emit = defineEmits<{ erased: [] }>();
const open = ref(false);
const player = ref<Player>();
const name = ref('');
function show(of: Player): void {
  player.value = of;
  name.value = '';
  open.value = true;
}
defineExpose({ show });
async function submit(): Promise<void> {
  const { id = '', name: called = '' } = player.value ?? {};
  const { ids, finished } = await api('erasePlayer', { id, body: { name: name.value } });
  forgetDrafts([...ids, called]);
  if (!finished) saved.failed(new Error(NOT_CLEARED));
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="`Erase ${player?.name}`"
    store="Erase for good"
    :submit="submit"
    @stored="emit('erased')"
  >
    <template #default="{ at }">
      <p class="mb-0">
        Deletes their name, health notes, sessions and every note about them for good. Frames, measurements
        and builds stay, without the name. Older backups and other devices may still hold them.
      </p>
      <v-text-field v-model="name" v-first label="Their name, to be sure" :error-messages="at('name')" />
    </template>
  </FormDialog>
</template>
