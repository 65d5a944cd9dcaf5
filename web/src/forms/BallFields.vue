<script setup lang="ts">
import SessionQuestion from './SessionQuestion.vue';
import { items } from '../words/players';
import { COMPARED_WORDS, DEPTH_WORDS } from '../words/sessions';
import type { SessionDraft } from './session-draft';

/** What strings answer: where balls landed, and their spin. */
const form = defineModel<SessionDraft>({ required: true });
</script>

<template>
  <SessionQuestion v-model="form.depth" label="Where balls landed" :choices="items(DEPTH_WORDS)" />
  <SessionQuestion v-model="form.spin" label="Spin" :choices="items(COMPARED_WORDS)" />
</template>
