<script setup lang="ts">
import BackupsPart from './BackupsPart.vue';
import OtherDevices from './OtherDevices.vue';

// What a fitter comes here to do: save a backup; see that the daily ones are made; let a tablet in.
</script>

<template>
  <div class="page">
    <div class="page-top">
      <h1>Backups and devices</h1>
      <span class="spring" />
      <RouterLink to="/settings">Settings</RouterLink>
    </div>
    <BackupsPart class="mb-8" />
    <OtherDevices />
  </div>
</template>
