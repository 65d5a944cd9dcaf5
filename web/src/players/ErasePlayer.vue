<script setup lang="ts">
import { ref } from 'vue';
import type { Player } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../parts/FormDialog.vue';

/** Takes a person out of the shop for good, once their name has been typed. */
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
const submit = () => api('erasePlayer', { id: player.value?.id ?? '', body: { name: name.value } });
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
        Name, health notes, sessions and every word about them go, and do not come back. Frames, measurements
        and builds stay, without the person. Backups that were made before still hold them until they are
        dropped.
      </p>
      <v-text-field v-model="name" label="Their name, to be sure" autofocus :error-messages="at('name')" />
    </template>
  </FormDialog>
</template>
