<script setup lang="ts">
import { ref } from 'vue';
import { Refused, api } from '../api/client';
import { useCatalogue } from '../stores/catalogue';
import { useSaved } from '../stores/saved';
import { useShop } from '../stores/shop';
import { useActKey } from './act-key';
import StarterStock from './StarterStock.vue';
import { noStarters, picked } from './starters';

/** The offer of common parts where the stock is empty: added, the page that it stands in goes on. */
const emit = defineEmits<{ added: [] }>();
const shop = useShop();
const catalogue = useCatalogue();
const saved = useSaved();
const draft = ref(noStarters());
const refused = ref<Refused>();
const failure = ref('');
const busy = ref(false);
const key = useActKey();
async function add(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  refused.value = undefined;
  failure.value = '';
  try {
    const starters = picked(draft.value, shop.fits);
    await key.once((own) => api('addStarters', { body: { starters, key: own } }));
    saved.stored();
    await catalogue.load();
    emit('added');
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) refused.value = error;
    failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="starters" novalidate @submit.prevent="add">
    <p class="soft small mb-0">
      Common parts with typical weights, marked <i>typical</i> until you weigh yours.
    </p>
    <StarterStock v-model="draft" :sports="shop.fits" :said="(path) => refused?.at(path)" />
    <p v-if="failure" class="miss small mb-0" role="alert">{{ failure }}</p>
    <div><v-btn type="submit" color="primary" :loading="busy">Add these to Stock</v-btn></div>
  </form>
</template>

<style scoped>
.starters {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
</style>
