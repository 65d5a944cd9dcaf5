<script setup lang="ts">
import { api } from '../api/client';
import { useAsked } from '../api/queries';
import BackupsPart from './BackupsPart.vue';
import OtherDevices from './OtherDevices.vue';
import StaffPart from './StaffPart.vue';

// What a fitter comes here to do: save a backup; see that the daily ones are made; let a tablet or a colleague in.

const { record: access } = useAsked(
  'access',
  () => 'own',
  () => api('access'),
);
</script>

<template>
  <div class="page">
    <div class="page-top">
      <h1>Backups and devices</h1>
      <span class="spring" />
      <RouterLink to="/settings">Settings</RouterLink>
    </div>
    <BackupsPart v-if="access && access.role !== 'reader'" class="mb-8" />
    <OtherDevices class="mb-8" />
    <StaffPart />
  </div>
</template>
