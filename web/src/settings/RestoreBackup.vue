<script setup lang="ts">
import { ref } from 'vue';
import { Refused, api, upload } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { momentWords } from '../words/days';

/** Puts a backup in the place of the shop: one that is kept on this machine, or a file. */
type Kept = { name: string; takenAt: string };
const open = ref(false);
const kept = ref<Kept>();
const file = ref<File>();
const isStarting = ref(false);
function show(of?: Kept): void {
  kept.value = of;
  file.value = undefined;
  open.value = true;
}
defineExpose({ show });

/** How long the server may take to start with the restored shop, and how often it is asked, ms. */
const LONGEST_MS = 120_000;
const ASK_MS = 500;
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
async function untilItIsBack(): Promise<void> {
  const last = Date.now() + LONGEST_MS;
  while (Date.now() < last) {
    await pause(ASK_MS);
    if (
      await api('health').then(
        () => true,
        () => false,
      )
    )
      return;
  }
  throw new Error('Kevro has not started again. Start it by hand: the backup is in place.');
}
async function submit(): Promise<void> {
  if (!kept.value && !file.value)
    throw new Refused('missing', '', [{ path: 'file', message: 'Choose the backup file.', code: 'missing' }]);
  await upload(
    'restoreBackup',
    file.value ?? '',
    file.value ? 'application/zip' : 'text/plain',
    kept.value ? { name: kept.value.name } : {},
  );
  isStarting.value = true;
  try {
    await untilItIsBack();
  } finally {
    isStarting.value = false;
  }
  window.location.assign('/');
}
</script>

<template>
  <FormDialog v-model="open" title="Restore a backup" store="Restore" :submit="submit">
    <template #default="{ at }">
      <p v-if="kept" class="mb-0">The backup of {{ momentWords(kept.takenAt) }} replaces this shop.</p>
      <template v-else>
        <p class="mb-0">The backup in the file replaces this shop.</p>
        <v-file-input
          v-model="file"
          v-first
          label="Backup file"
          accept=".zip"
          prepend-icon=""
          :error-messages="at('file')"
        />
      </template>
      <p class="mb-0">
        A backup of the shop as it is now is made first, so you can go back. Then Kevro starts again, which
        takes a few seconds.
      </p>
      <p v-if="isStarting" class="mb-0" role="status">Starting with the restored shop…</p>
    </template>
  </FormDialog>
</template>
