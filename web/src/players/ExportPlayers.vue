<script setup lang="ts">
import { ref, watch } from 'vue';
import FormDialog from '../forms/FormDialog.vue';
import { saveFile } from '../ui/save-file';
import { allPlayers, playersCsv } from './export-players';

/** Players as a file for a spreadsheet. What is private stays out unless it is chosen, each time anew. */
const open = defineModel<boolean>({ required: true });
const withArm = ref(false);
watch(open, () => {
  withArm.value = false;
});
async function submit(): Promise<void> {
  saveFile('players.csv', await playersCsv(await allPlayers(), withArm.value), 'text/csv');
}
</script>

<template>
  <FormDialog v-model="open" title="Players as a CSV file" store="Save the file" :submit="submit">
    <p class="mb-0">All players that are not archived, one row each.</p>
    <v-checkbox v-model="withArm" label="With their arm history, which is private" />
    <p v-if="withArm" class="warn small mb-0">Share only with the player’s consent.</p>
  </FormDialog>
</template>
