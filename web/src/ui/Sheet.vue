<script setup lang="ts">
import { onUnmounted, useId, watch } from 'vue';
import { focusElsewhere, focusHeading } from './focus';

/** Something that lies over the page: named by its title; the focus goes back to where it was opened from. */
const {
  title,
  width = 560,
  persistent = false,
} = defineProps<{ title: string; width?: number; persistent?: boolean }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ refusedToClose: [] }>();
const heading = useId();

let opener: HTMLElement | null = null;
/** Whether the focus is still to go back. */
let owed = false;
watch(
  open,
  (now) => {
    if (!now) return;
    focusElsewhere();
    opener = document.activeElement instanceof HTMLElement ? document.activeElement : null;
    owed = true;
  },
  { flush: 'sync', immediate: true },
);
/** Unless something else has taken the focus meanwhile. */
function giveBack(): void {
  if (!owed) return;
  owed = false;
  const now = document.activeElement;
  if (now && now !== document.body && !now.closest('.v-overlay')) return;
  if (opener?.isConnected && opener !== document.body && opener.offsetParent !== null) opener.focus();
  else focusHeading();
}
// A sheet that is gone the moment it is closed does not come to the end of its leaving.
onUnmounted(giveBack);
</script>

<template>
  <v-dialog
    v-model="open"
    :max-width="width"
    :persistent="persistent"
    :aria-labelledby="heading"
    scrollable
    @click:outside="persistent && emit('refusedToClose')"
    @keydown.esc="persistent && emit('refusedToClose')"
    @after-leave="giveBack"
  >
    <v-card class="sheet-card">
      <h2 :id="heading" class="text-h6">{{ title }}</h2>
      <slot />
    </v-card>
  </v-dialog>
</template>

<style>
.sheet-card.v-card {
  display: block;
  padding: 20px;
  overflow-y: auto;
}
</style>
