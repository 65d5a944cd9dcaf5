<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { nanoid } from 'nanoid';
import type { AnswerOf } from '@kevro/contract';
import { Refused, api } from '../api/client';
import { keepSending, leaveOut, refused as notTaken, sendOrKeep, unsent } from '../api/waiting';
import DraftNotice from '../forms/DraftNotice.vue';
import { dayWords } from '../words/days';
import { useDraft } from '../forms/draft';
import { focusWrong } from '../ui/focus';
import SessionFields from '../forms/SessionFields.vue';
import LinkPage from './LinkPage.vue';
import { checkSession, emptySession, sessionBody } from '../forms/session-draft';

// What a player comes here to do, by a link from the shop: say how one session went, in under a minute; nothing else of the shop is here.
const props = defineProps<{ code: string }>();
const page = ref<AnswerOf<'linkPage'>>();
const failure = ref('');
const refused = ref<Refused>();
const stored = ref(false);
const busy = ref(false);
const form = ref<HTMLFormElement>();
const draft = useDraft(() => emptySession());
const { value } = draft;
/** One key a session: sent twice, it is noted once. */
const key = nanoid();

async function look(): Promise<void> {
  failure.value = '';
  try {
    page.value = await api('linkPage', { id: props.code });
    draft.begin(`played ${props.code}`, emptySession());
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(look);
async function send(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  failure.value = '';
  refused.value = undefined;
  try {
    checkSession(value.value);
    const body = { key, ...sessionBody(value.value) };
    await sendOrKeep('noteByLink', { id: props.code, body, what: dayWords(value.value.playedOn) });
    draft.stored();
    stored.value = true;
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) {
      refused.value = error;
      if (!(await focusWrong(form.value)))
        failure.value = error.errors.map(({ message }) => message).join(' ');
    } else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
keepSending();
/** What was noted here and is still on this phone; and what the shop would not take. */
const waits = computed(() => unsent.value.some(({ id }) => id === props.code));
const nope = computed(() => notTaken.value.find(({ id }) => id === props.code));
const at = (path: string): string[] => [refused.value?.at(path)].filter((s) => s !== undefined);
</script>

<template>
  <LinkPage :shop="page?.shop" title="How did it play?">
    <template v-if="nope">
      <p class="miss" role="alert">{{ nope.refused?.message }}</p>
      <v-btn variant="outlined" @click="leaveOut(nope)">Forget what I noted</v-btn>
    </template>
    <template v-else-if="waits">
      <p role="status"><b>Kept on this device.</b> The shop does not answer now.</p>
      <p class="soft">
        It is sent as soon as the shop answers: leave this page open, or open the link again later.
      </p>
    </template>
    <template v-else-if="stored || page?.noted">
      <p class="good" role="status">Thanks, it’s saved.</p>
      <p class="soft">You can close this page. Ask the shop for a new link next time.</p>
    </template>
    <template v-else-if="page">
      <p class="soft">
        {{ page.frame.maker }} {{ page.frame.model }}, {{ page.frame.tag }}. This link notes one session and
        works until {{ dayWords(page.endsAt) }}.
      </p>
      <form ref="form" novalidate @submit.prevent="send">
        <DraftNotice :draft="draft" />
        <SessionFields v-model="value" :at="at" who="Your name" :asks-of-ball="page.asksOfBall" />
        <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
        <v-btn type="submit" color="primary" size="large" block :loading="busy">Send</v-btn>
      </form>
    </template>
    <template v-else-if="failure">
      <p class="miss" role="alert">{{ failure }}</p>
      <v-btn variant="outlined" @click="look">Try again</v-btn>
    </template>
    <p v-else class="soft" role="status">Looking up the link…</p>
  </LinkPage>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 16px;
}
form :deep(.two) {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
