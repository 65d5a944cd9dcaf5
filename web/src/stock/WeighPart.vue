<script setup lang="ts">
import { ref } from 'vue';
import type { PartRecord } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import NumberField from '../forms/NumberField.vue';
import { sampleWords, weightWords } from '../forms/starters';
import { sent, type Typed } from '../ui/typed';
import { partUnit } from '../words/part-weight';

/** One field: what a sample of a part weighed. From then on its weight is the shop's own. */
const emit = defineEmits<{ stored: [part: PartRecord] }>();
const open = ref(false);
const part = ref<PartRecord>();
const sampleG = ref<Typed>(null);
function show(of: PartRecord): void {
  part.value = of;
  sampleG.value = null;
  open.value = true;
}
defineExpose({ show });
const submit = (): Promise<PartRecord> =>
  api('weighPart', { id: part.value?.id ?? '', body: { sampleG: sent(sampleG.value) } });
</script>

<template>
  <FormDialog
    v-model="open"
    :title="`Weigh ${part?.name ?? ''}`"
    store="Store"
    :width="420"
    :submit="submit"
    @stored="emit('stored', $event as PartRecord)"
  >
    <template v-if="part" #default="{ said }">
      <p class="soft small mb-0">
        Now {{ weightWords(part) }}{{ part.typical ? ', typical of its kind' : '' }}.
      </p>
      <NumberField
        v-model="sampleG"
        v-first
        :label="sampleWords(part) ?? ''"
        measure="mass"
        :unit="partUnit()"
        :error="said('sampleG')"
      />
    </template>
  </FormDialog>
</template>
