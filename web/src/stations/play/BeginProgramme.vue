<script setup lang="ts">
import { computed, watch } from 'vue';
import { SPECS, programmeTraits, programmesOf, suggestProgramme, type Programme } from '@kevro/core';
import { PROGRAMME_HINTS, PROGRAMME_NAMES, growingIn } from '@kevro/contract';
import { api } from '../../api/client';
import FormDialog from '../../forms/FormDialog.vue';
import NumberField from '../../forms/NumberField.vue';
import { shopYear } from '../../words/days';
import { useDraft } from '../../forms/draft';
import { useKept } from '../../ui/kept';
import { sent, type Typed } from '../../ui/typed';
import { useBeside } from '../../stores/beside';
import { useFitting } from '../../stores/fitting';
import { useLearned } from '../../stores/learned';
import { useUnits } from '../../stores/units';
import { restsOn } from '../../words/learned';
import { useLibrary } from '../../stores/library';

/** Begins a programme on the frame: the one that suits what was felt last stands first. */
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const library = useLibrary();
const others = useBeside();
const units = useUnits();
const by = useKept('kevro-by', '');
const draft = useDraft(() => ({
  name: 'find-ceiling' as Programme,
  massG: null as Typed,
  swingWeight: null as Typed,
  byHappiest: true,
  note: '',
}));
const form = draft.value;

const suggested = computed(() => {
  const { view, record } = fitting;
  if (!view || !record) return 'find-ceiling';
  const last = fitting.rounds.flatMap(({ sessions }) => sessions).findLast(({ counts }) => counts);
  return suggestProgramme({
    ...(last ? { last } : {}),
    growing: growingIn(shopYear(), view.player),
    soreArm: view.player.bothers.includes('sore-arm'),
    ceilingKnown: view.player.ceilings[record.shape.sport] !== undefined,
    strung: fitting.bed !== undefined,
  });
});
const listed = computed(() => [
  suggested.value,
  ...(fitting.frame ? programmesOf(fitting.frame.sport) : []).filter((one) => one !== suggested.value),
]);
/** What stands beside the frame first, else what was aimed at: half the way goes toward it. */
const goal = computed(() => {
  const setup = library.named(fitting.references[0] ?? '') ?? others.all[0];
  const { massG, swingWeight } = setup?.specs ?? {};
  const aim = fitting.aim?.target;
  return {
    massG: massG ?? aim?.massG?.value ?? null,
    swingWeight: swingWeight ?? aim?.swingWeight?.value ?? null,
  };
});
watch(
  open,
  (now) => {
    if (!now) return;
    draft.begin(`programme ${fitting.round?.id ?? ''}`, {
      name: suggested.value,
      note: '',
      massG: null,
      swingWeight: null,
      byHappiest: true,
    });
  },
  { immediate: true },
);
/** What stands beside the frame comes later than the form: it is filled in where it is asked for and nothing is typed. */
watch([() => form.value.name, goal, open], ([name, { massG, swingWeight }, isOpen]) => {
  if (!isOpen || !programmeTraits(name).needsTarget) return;
  form.value.massG ??= massG;
  form.value.swingWeight ??= swingWeight;
});
const { told } = useLearned();
const learned = computed(() => told.value.find(({ what }) => what === 'swingWeight'));
const happiestWords = computed(() => {
  const { record } = fitting;
  if (!learned.value || !record) return '';
  const { from, to } = learned.value.happiest;
  const show = (value: number): string => units.show('swingWeight', value, record.shape);
  return `First step toward ${show(from)} to ${show(to)} ${units.unit('swingWeight')}, where players here were happiest (${restsOn(learned.value)})`;
});
async function submit(key: string): Promise<void> {
  const { view, record } = fitting;
  if (!view || !record) return;
  const { name, massG, swingWeight, byHappiest, note } = form.value;
  const happiest =
    byHappiest && programmeTraits(name).goesByHappiest ? (learned.value?.happiest ?? null) : null;
  const towards = programmeTraits(name).needsTarget
    ? { massG: sent(massG), swingWeight: sent(swingWeight) }
    : null;
  await fitting.stored(
    await api('beginProgramme', {
      id: view.id,
      body: { key, frameId: record.id, name, towards, happiest, note, by: by.value },
    }),
  );
}
</script>

<template>
  <FormDialog v-model="open" title="Begin a programme" store="Begin it" :submit="submit" :draft="draft">
    <template #default="{ at, said }">
      <p class="soft mb-0">
        One change at a time, a session after each. Another programme of this frame ends.
      </p>
      <div role="radiogroup" aria-label="Which programme" class="list">
        <label v-for="name in listed" :key="name" :class="{ on: form.name === name }">
          <input v-model="form.name" type="radio" name="programme" :value="name" class="d-sr-only" />
          <b>{{ PROGRAMME_NAMES[name] }}</b>
          <span v-if="name === suggested" class="small"> · suits what is known</span>
          <span class="soft small d-block">{{ PROGRAMME_HINTS[name] }}</span>
        </label>
      </div>
      <div v-if="programmeTraits(form.name).needsTarget && fitting.record" class="two">
        <NumberField
          v-model="form.massG"
          label="Half-way toward weight"
          spec="massG"
          :shape="fitting.record.shape"
          :error="said('towards.massG') ?? said('towards')"
        />
        <NumberField
          v-model="form.swingWeight"
          :label="`and ${SPECS.swingWeight.name}`"
          spec="swingWeight"
          :shape="fitting.record.shape"
          :error="said('towards.swingWeight')"
        />
      </div>
      <v-checkbox
        v-if="happiestWords && programmeTraits(form.name).goesByHappiest"
        v-model="form.byHappiest"
        :label="happiestWords"
        hide-details
      />
      <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
    </template>
  </FormDialog>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
}
.list label {
  padding: 7px 10px;
  border-top: 1px solid rgb(var(--v-theme-line));
  cursor: pointer;
}
.list label.on {
  box-shadow: inset 4px 0 rgb(var(--v-theme-ink));
  background: rgb(var(--v-theme-paper));
}
.list label:focus-within {
  outline: 3px solid rgb(var(--v-theme-reference));
  outline-offset: -3px;
}
</style>
