<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import type { SeasonTask } from '@kevro/core';
import { SEASON_KIND_NAMES, type SeasonPage } from '@kevro/contract';
import { api } from '../api/client';
import { useRecord } from '../api/queries';
import { useActKey } from '../forms/act-key';
import { useSaved } from '../stores/saved';
import FileDrop from '../ui/FileDrop.vue';
import NotOpened from '../ui/NotOpened.vue';
import { dayWords, shopToday } from '../words/days';
import { IS_OF_FRAME, readWords, seasonLines, spanWords, taskWords } from '../words/season';
import { DAY_WORDS } from '../words/sessions';
import SeasonDateForm from './SeasonDateForm.vue';

// What a fitter comes here to do: see what is to be done next and by when; put a match or a rest into the calendar; take the calendar over from a file, or hand it on as one.
const props = defineProps<{ id: string }>();
const { record: page, failure, load, show } = useRecord('season', () => props.id);
const saved = useSaved();
const form = ref<InstanceType<typeof SeasonDateForm>>();
const lines = computed(() => (page.value ? seasonLines(page.value) : []));
const heading = ref<HTMLElement>();

/** Where a task is done: a step in its fitting, strings with the frame. */
function placeOf({ tag, what }: SeasonTask): string | undefined {
  const frame = page.value?.frames.find((one) => one.tag === tag);
  if (!frame) return undefined;
  return frame.fittingId === null || IS_OF_FRAME[what]
    ? `/frames/${frame.id}`
    : `/fittings/${frame.fittingId}/play?frame=${frame.id}`;
}

async function stored(now: SeasonPage): Promise<void> {
  await show(now);
  saved.stored();
}
const busy = ref(false);
const said = ref('');
const wrong = ref('');
/** Does one thing at a time, and says what went wrong. */
async function once(work: () => Promise<void>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  said.value = '';
  wrong.value = '';
  try {
    await work();
  } catch (error) {
    wrong.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
const key = useActKey();
const read = (file: File): Promise<void> =>
  once(async () => {
    const text = await file.text();
    const { added, changed, skipped, ...now } = await key.once((own) =>
      api('readSeason', { id: props.id, body: { key: own, text } }),
    );
    await stored(now);
    said.value = readWords({ added, changed, skipped });
  });
const remove = (id: string): Promise<void> =>
  once(async () => {
    await stored(await api('removeSeasonDate', { id, body: {} }));
    // Its line is gone: the list takes the focus.
    await nextTick();
    heading.value?.focus();
  });
</script>

<template>
  <NotOpened v-if="failure" what="season" :why="failure" @again="load" />
  <p v-else-if="!page" class="page soft" role="status">Opening the season…</p>
  <FileDrop
    v-else
    v-slot="{ choose }"
    class="page"
    accept="text/calendar,.ics"
    label="A calendar file"
    @file="read"
  >
    <div class="page-top">
      <h1>
        Season of
        <RouterLink :to="`/players/${page.player.id}`" class="link">{{ page.player.name }}</RouterLink>
      </h1>
      <span class="spring" />
      <v-btn variant="outlined" size="large" :loading="busy" @click="choose">Read a calendar file…</v-btn>
      <v-btn color="primary" size="large" @click="form?.show()">Add matches or a rest</v-btn>
    </div>
    <p class="soft">
      Steps lie between matches, never in the seven days that end with one. What is missed moves to the next
      day that is free.
      <a :href="`/api/v1/players/${page.player.id}/season.ics`" download class="link"
        >Save it as a calendar file</a
      >
    </p>
    <p v-if="said" class="good" role="status">{{ said }}</p>
    <p v-if="wrong" class="miss" role="alert">{{ wrong }}</p>
    <section aria-label="By day">
      <h2 ref="heading" class="heading" tabindex="-1">By day</h2>
      <p v-if="lines.length === 0" class="soft">
        Nothing yet. Add a match, or drop a calendar file here: strings, steps and follow-ups are planned
        around it.
      </p>
      <ol class="lines">
        <li
          v-for="(line, i) in lines"
          :key="'task' in line ? `${line.task.what} ${i}` : line.date.id"
          :class="[{ past: line.day < shopToday() }, 'date' in line ? line.date.kind : '']"
        >
          <template v-if="'task' in line">
            <span>{{ line.day === shopToday() ? 'today' : dayWords(line.day) }}</span>
            <span :class="{ warn: line.task.late }">{{ taskWords(line.task) }}</span>
            <RouterLink v-if="placeOf(line.task)" :to="placeOf(line.task) ?? ''" class="link"
              >open<span class="d-sr-only">: {{ taskWords(line.task) }}</span></RouterLink
            >
          </template>
          <template v-else>
            <span>{{ spanWords(line.date) }}</span>
            <span>
              <b>{{ SEASON_KIND_NAMES[line.date.kind] }}</b>
              {{ line.date.title }}
              <span v-if="line.date.venue !== 'usual'" class="soft"> · {{ DAY_WORDS[line.date.venue] }}</span>
            </span>
            <span class="acts">
              <button type="button" class="link" @click="form?.show(line.date)">
                change<span class="d-sr-only">: {{ line.date.title || spanWords(line.date) }}</span>
              </button>
              <button type="button" class="link" :disabled="busy" @click="remove(line.date.id)">
                remove<span class="d-sr-only">: {{ line.date.title || spanWords(line.date) }}</span>
              </button>
            </span>
          </template>
        </li>
      </ol>
    </section>
    <SeasonDateForm ref="form" :player-id="page.player.id" @stored="stored" />
  </FileDrop>
</template>

<style scoped>
.lines {
  list-style: none;
  padding: 0;
  margin: 4px 0 0;
}
.lines li {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: baseline;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 6px 8px;
}
.lines li.match {
  border-left: 4px solid rgb(var(--v-theme-ink));
}
.lines li.past {
  color: rgb(var(--v-theme-soft));
}
.acts {
  display: flex;
  gap: 12px;
}
@media (max-width: 600px) {
  .lines li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
