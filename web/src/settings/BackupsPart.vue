<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import type { AnswerOf } from '@kevro/contract';
import { api, urlOf } from '../api/client';
import { momentWords } from '../words/days';
import RestoreBackup from './RestoreBackup.vue';
import { useShop } from '../stores/shop';

/** The whole shop as a file, and those that are made by themselves. */
const shop = useShop();
const backups = ref<AnswerOf<'backups'>>();
const failure = ref('');
async function load(): Promise<void> {
  failure.value = '';
  try {
    [backups.value, access.value] = await Promise.all([api('backups'), api('access'), shop.load()]);
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(load);
const restoring = ref<InstanceType<typeof RestoreBackup>>();
const access = ref<AnswerOf<'access'>>();
/** Only on the bench machine, and where the shop lies so that another can take its place. */
const mayRestore = computed(() => backups.value?.restores === true && access.value?.bench === true);
const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(bytes < 1e6 ? 2 : 1)} MB`;
const kept = computed(() => shop.shop?.backupsKept ?? 0);
</script>

<template>
  <section class="backups">
    <h2 class="heading">Backups</h2>
    <p v-if="failure" class="miss" role="alert">
      {{ failure }} <button type="button" class="link" @click="load">Try again</button>
    </p>
    <p v-else-if="!backups" class="soft" role="status">Loading…</p>
    <template v-else>
      <p>The whole shop in one file, including health notes: keep it private.</p>
      <div class="d-flex flex-wrap ga-2">
        <v-btn color="primary" :href="urlOf('backup')" download>Save a backup</v-btn>
        <v-btn v-if="mayRestore" variant="outlined" @click="restoring?.show()">Restore from a file</v-btn>
      </div>
      <p v-if="!backups.folder" class="mb-0">No automatic backups of the demo: it starts fresh each time.</p>
      <p v-else-if="kept > 0" class="mb-0">
        Automatic daily backups; the last {{ kept }} are in <code>{{ backups.folder }}</code>.
      </p>
      <p v-else class="mb-0">No automatic backups. Turn them on under Settings.</p>
      <table v-if="backups.rows.length > 0" class="plain">
        <thead>
          <tr>
            <th>Made</th>
            <th>File</th>
            <th class="num">Size</th>
            <th v-if="mayRestore"><span class="d-sr-only">Restore</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in backups.rows" :key="one.name">
            <td class="nowrap">{{ momentWords(one.takenAt) }}</td>
            <td>{{ one.name }}</td>
            <td class="num nowrap">{{ megabytes(one.bytes) }}</td>
            <td v-if="mayRestore">
              <v-btn variant="text" :aria-label="`Restore ${one.name}`" @click="restoring?.show(one)"
                >Restore</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="backups.database === 'server'" class="soft small mb-0">
        To restore: run <code>npm run restore -- the-file</code> with <code>DATABASE_URL</code> naming an
        empty database, and start Kevro with it. The current shop is not touched.
      </p>
      <p v-else-if="!mayRestore" class="soft small mb-0">
        To restore: stop Kevro, run <code>npm run restore -- the-file an-empty-folder</code> and start it
        there. The current shop is not touched.
      </p>
    </template>
    <RestoreBackup ref="restoring" />
  </section>
</template>

<style scoped>
.backups {
  display: flex;
  flex-direction: column;
  gap: 10px;
  max-width: 560px;
}
p {
  margin: 0;
}
code {
  overflow-wrap: anywhere;
}
</style>
