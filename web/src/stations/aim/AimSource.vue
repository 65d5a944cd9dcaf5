<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  BOTHERS,
  OF_STRINGS,
  complaintMoves,
  guidesOf,
  isStrung,
  isTender,
  kindsOf,
  leversFor,
  swingSchools,
  type Bother,
  type GuideName,
} from '@kevro/core';
import { BOTHER_WORDS } from '../../words/players';
import { leverWords, movesWords } from '../../words/strings';
import { useFitting } from '../../stores/fitting';
import { useLearned } from '../../stores/learned';
import { useUnits } from '../../stores/units';
import { GUIDE_NAMES, GUIDE_REASON_WORDS } from '../../words';
import { usePlayersGuide } from './players-guide';
import { PART_OF, type useAimDraft } from './aim-draft';

/** Where an aim comes from: a setup, another frame, a guide, or complaints; and how far of the way. */
const props = defineProps<{
  aim: ReturnType<typeof useAimDraft>;
  setups: { value: string; title: string; subtitle: string }[];
}>();
const emit = defineEmits<{ search: [text: string] }>();
const fitting = useFitting();
const units = useUnits();
const { told } = useLearned();
const draft = props.aim.kept.value;

const guides = computed(() =>
  guidesOf(props.aim.shape.value.sport).map((value) => ({ value, title: GUIDE_NAMES[value] })),
);
const { proposed, bands } = usePlayersGuide(props.aim);
const schools = computed(() =>
  fitting.frame && bands.value
    ? swingSchools(
        fitting.frame.sport,
        bands.value,
        fitting.view?.player.ceilings[props.aim.shape.value.sport],
      )
    : undefined,
);
const swing = (value: number): string => units.show('swingWeight', value, props.aim.shape.value);

/** What bothers the player stands in their record: shown when it is asked for, since others may look on. */
const asked = ref(false);
function takeTheirs(): void {
  asked.value = true;
  props.aim.choose({ bothers: [...(fitting.view?.player.bothers ?? [])] });
}
function toggle(bother: Bother): void {
  const { bothers } = draft.value;
  props.aim.choose({
    bothers: bothers.includes(bother) ? bothers.filter((b) => b !== bother) : [...bothers, bother],
  });
}
const strung = computed(() => isStrung(props.aim.shape.value.sport));
/** What is about strings is asked only where there are some. */
const bothers = computed(() => BOTHERS.filter((one) => strung.value || !OF_STRINGS.includes(one)));
/** What can be done about each complaint, what costs least first: strings beside weight. */
const levers = computed(() => {
  const { bed } = fitting;
  const now = {
    kind: bed && kindsOf(bed.stringing).mains,
    isDue: bed && bed.due.length > 0,
    isTender: isTender(draft.value.bothers),
    learned: told.value,
  };
  const unit = bed?.stringing.unit ?? 'kg';
  if (!strung.value) return [];
  return draft.value.bothers.map((bother) => ({
    bother,
    list: leversFor(props.aim.shape.value.sport, bother, now).map((lever) => leverWords(lever, unit)),
  }));
});
</script>

<template>
  <v-autocomplete
    v-if="draft.way === 'copy' || draft.way === 'part-way'"
    :model-value="draft.setupId"
    :items="setups"
    label="Setup"
    item-props
    no-filter
    :error-messages="draft.setupId ? [] : ['Choose a setup.']"
    @update:search="emit('search', $event)"
    @update:model-value="aim.choose({ setupId: $event })"
  />
  <v-autocomplete
    v-else-if="draft.way === 'frame'"
    :model-value="draft.frameId"
    :items="aim.others.items.value"
    label="Match this frame"
    item-props
    no-filter
    :error-messages="draft.frameId ? [] : [aim.others.failure.value || 'Choose a frame that was measured.']"
    @update:search="aim.others.search($event)"
    @update:model-value="aim.choose({ frameId: $event })"
  />
  <template v-else-if="draft.way === 'guide'">
    <v-select
      :model-value="draft.guide"
      :items="guides"
      label="Guide"
      :error-messages="draft.guide ? [] : ['Choose a guide.']"
      @update:model-value="aim.choose({ guide: $event as GuideName })"
    />
    <p v-if="proposed" class="small mb-0">
      For this player: <b>{{ GUIDE_NAMES[proposed.guide] }}</b>,
      {{ proposed.reasons.map((r) => GUIDE_REASON_WORDS[r]).join('; ') }}.
      <button
        v-if="draft.guide !== proposed.guide"
        type="button"
        class="link"
        @click="aim.choose({ guide: proposed.guide })"
      >
        Use
      </button>
    </p>
    <dl v-if="schools && (schools.carry !== undefined || schools.late !== undefined)" class="schools small">
      <div v-if="schools.carry !== undefined">
        <dt>As heavy as you can handle</dt>
        <dd>
          One step below the ceiling.
          <button
            type="button"
            class="link"
            @click="aim.typedByHand('swingWeight', Number(schools.carry.toFixed(1)))"
          >
            {{ swing(schools.carry) }} kg·cm²
          </button>
        </dd>
      </div>
      <div v-if="schools.late !== undefined">
        <dt>Never late</dt>
        <dd>
          The lightest stable: the low end of the guide.
          <button
            type="button"
            class="link"
            @click="aim.typedByHand('swingWeight', Number(schools.late.toFixed(1)))"
          >
            {{ swing(schools.late) }} kg·cm²
          </button>
        </dd>
      </div>
    </dl>
  </template>
  <fieldset v-else-if="draft.way === 'complaints'" class="bothers">
    <legend class="d-sr-only">Complaints</legend>
    <v-checkbox
      v-for="bother in bothers"
      :key="bother"
      :model-value="draft.bothers.includes(bother)"
      density="compact"
      @update:model-value="toggle(bother)"
    >
      <template #label>
        <span class="bother"
          >{{ BOTHER_WORDS[bother]
          }}<span class="soft small">{{ movesWords(complaintMoves(bother)) || 'strings' }}</span></span
        >
      </template>
    </v-checkbox>
    <v-btn v-if="!asked" variant="outlined" @click="takeTheirs">Use the player’s complaints</v-btn>
    <p v-else-if="draft.bothers.length === 0" class="soft small mb-0">No complaints on record</p>
    <section v-if="levers.length > 0" aria-label="What can be done" class="levers">
      <h3 class="heading">Least cost first, one change at a time</h3>
      <div v-for="{ bother, list } in levers" :key="bother">
        <b class="small">{{ BOTHER_WORDS[bother] }}</b>
        <ol class="small">
          <li v-for="one in list" :key="one.what">
            {{ one.what }} <span class="soft">({{ one.why }})</span>
            <b v-if="one.learned"> · {{ one.learned }}</b>
          </li>
        </ol>
      </div>
    </section>
    <p v-if="draft.bothers.includes('sore-arm')" class="warn small mb-0">
      Go lighter first. If pain persists, see a physician or physiotherapist.
    </p>
  </fieldset>
  <div v-if="PART_OF.includes(draft.way)">
    <label for="share" class="small soft">How far: {{ draft.share }} % of the way</label>
    <v-slider
      id="share"
      :model-value="draft.share"
      :min="0"
      :max="100"
      :step="5"
      aria-label="Share of the way, per cent"
      @update:model-value="aim.choose({ share: Number($event) })"
    />
  </div>
</template>

<style scoped>
.levers {
  margin-top: 8px;
}
.levers ol {
  padding-left: 20px;
  margin: 2px 0 6px;
}
.bothers {
  border: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
.bother {
  display: flex;
  flex-direction: column;
  line-height: 1.2;
}
.schools {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin: 0;
}
.schools dt {
  font-weight: 700;
}
.schools dd {
  margin: 0;
}
@media (max-width: 820px) {
  .v-slider :deep(.v-input__control),
  .v-slider :deep(.v-slider__container) {
    min-height: 44px;
  }
}
</style>
