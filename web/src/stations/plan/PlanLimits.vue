<script setup lang="ts">
import { computed } from 'vue';
import type { Frame, ZoneName } from '@kevro/core';
import MoreFields from '../../ui/MoreFields.vue';
import NumberField from '../../forms/NumberField.vue';
import { ZONE_NAMES } from '../../words';
import type { Limits } from './limits';

/** How much each zone may take, and the room that is kept in each for the last correction. */
const props = defineProps<{ frame: Frame }>();
const limits = defineModel<Limits>({ required: true });
const shape = computed(() => ({ sport: props.frame.sport.sport, lengthCm: props.frame.lengthCm }));
const setCap = (zone: ZoneName, value: unknown): void => {
  const { [zone]: _, ...caps } = limits.value.caps;
  limits.value = { ...limits.value, caps: typeof value === 'number' ? { ...caps, [zone]: value } : caps };
};
const changed = computed(() => Object.keys(limits.value.caps).length > 0 || limits.value.roomG > 0);
</script>

<template>
  <MoreFields title="Limits by zone" :open="changed">
    <p class="soft small mb-0">Most per zone, both sides together. Empty: usual limit; 0: none</p>
    <div class="caps">
      <NumberField
        v-for="zone in frame.sport.zones"
        :key="zone.name"
        :model-value="limits.caps[zone.name] ?? null"
        :label="ZONE_NAMES[zone.name]"
        spec="massG"
        :shape="shape"
        width
        :placeholder="String(zone.capG)"
        hide-details="auto"
        @update:model-value="setCap(zone.name, $event)"
      />
      <NumberField
        :model-value="limits.roomG > 0 ? limits.roomG : null"
        label="Keep free for trims"
        spec="massG"
        :shape="shape"
        width
        hint="in each zone"
        @update:model-value="limits = { ...limits, roomG: typeof $event === 'number' ? $event : 0 }"
      />
    </div>
  </MoreFields>
</template>

<style scoped>
.caps {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
