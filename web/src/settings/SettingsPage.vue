<script setup lang="ts">
import { WAYS, useUnits } from '../stores/units';
import SportNumbers from './SportNumbers.vue';
import ShopSettings from './ShopSettings.vue';
import { useKept } from '../ui/kept';

const units = useUnits();
const theme = useKept<'light' | 'dark' | 'system'>('kevro-theme', 'light');
</script>

<template>
  <div class="page">
    <div class="page-top">
      <h1>Settings</h1>
      <span class="spring" />
      <v-btn variant="outlined" size="large" to="/settings/changes">Change log</v-btn>
      <v-btn variant="outlined" size="large" to="/settings/safety">Backups and devices</v-btn>
      <v-btn variant="outlined" size="large" to="/settings/instruments">Instruments and calibration</v-btn>
    </div>
    <div class="columns">
      <div>
        <ShopSettings class="mb-6" />
        <SportNumbers class="mb-6" />
      </div>
      <div>
        <v-radio-group v-model="units.index" label="Units (or press u anywhere)">
          <v-radio v-for="(way, i) in WAYS" :key="way.label" :label="way.label" :value="i" />
        </v-radio-group>
        <v-radio-group v-model="units.sizes" label="Lengths, heads and handles">
          <v-radio label="match weight units" value="as weights" />
          <v-radio label="centimetres and cm²" value="cm" />
          <v-radio label="inches and square inches" value="in" />
        </v-radio-group>
        <v-radio-group v-model="theme" label="Light or dark" class="mt-2">
          <v-radio label="light" value="light" />
          <v-radio label="dark, for evening courts" value="dark" />
          <v-radio label="system" value="system" />
        </v-radio-group>
        <p class="soft small mt-4">
          These are kept on this device. Everything else is stored once for the shop: in grams, centimetres
          and kg·cm².
        </p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 520px) minmax(0, 1fr);
  gap: 12px 48px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
