<script setup lang="ts">
import { onMounted, reactive, ref } from 'vue';
import { Refused, api } from '../api/client';
import { typedNumber } from '../parts/typed-number';
import { useSaved } from '../stores/saved';

/** The shop's name, and how long a calibration counts. */
const saved = useSaved();
const draft = reactive({ name: '', town: '', hours: '' });
const refused = ref<Refused>();
const failure = ref('');
const loaded = ref(false);
const busy = ref(false);
onMounted(async () => {
  try {
    const { name, town, calibrationHours } = await api('shop');
    Object.assign(draft, { name, town, hours: String(calibrationHours) });
    loaded.value = true;
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
});
async function store(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  refused.value = undefined;
  failure.value = '';
  try {
    const { name, town, hours } = draft;
    await api('editShop', { body: { name, town, calibrationHours: typedNumber(hours) } });
    saved.stored();
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) refused.value = error;
    else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
const at = (path: string): string[] => [refused.value?.at(path)].filter((s) => s !== undefined);
</script>

<template>
  <form class="shop" novalidate @submit.prevent="store">
    <h2 class="heading">The shop</h2>
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <template v-if="loaded">
      <v-text-field v-model="draft.name" label="Name" :error-messages="at('name')" />
      <v-text-field v-model="draft.town" label="Town" :error-messages="at('town')" />
      <v-text-field
        v-model="draft.hours"
        label="A calibration counts for"
        suffix="h"
        inputmode="numeric"
        :error-messages="at('calibrationHours')"
      />
      <div><v-btn type="submit" color="primary" :loading="busy">Store</v-btn></div>
    </template>
  </form>
</template>

<style scoped>
.shop {
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-width: 420px;
}
</style>
