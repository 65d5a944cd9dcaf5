<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue';
import { SPECS, ALL_SPORTS, SPEC_KEYS, sportData, type SpecKey, type Sport } from '@kevro/core';
import { Refused, api } from '../api/client';
import NumberField from '../forms/NumberField.vue';
import { sentOrNone, type Typed } from '../ui/typed';
import { useSaved } from '../stores/saved';
import { partNumber, partUnit } from '../words/part-weight';
import { useShop } from '../stores/shop';
import { SPEC_NAMES, SPORT_NAMES } from '../words';
import { USUAL_ORDER } from '../words/strings';

/** What the shop works to, sport by sport: the tolerance that an aim begins with, and what it takes a hand to notice. An empty field stays as the sport ships. */
const shop = useShop();
const saved = useSaved();
const sport = ref<Sport>('tennis');
const refused = ref<Refused>();
const failure = ref('');
const busy = ref(false);
const loaded = ref(false);

interface Row {
  tolerance: Typed;
  noticeable: Typed;
}
const empty = (): Record<SpecKey, Row> =>
  Object.fromEntries(SPEC_KEYS.map((key) => [key, { tolerance: null, noticeable: null }])) as Record<
    SpecKey,
    Row
  >;
const rows = reactive(
  Object.fromEntries(ALL_SPORTS.map((of) => [of, empty()])) as Record<Sport, Record<SpecKey, Row>>,
);
/** Swing weight is noticed as a share of itself: typed in per cent. */
const PERCENT = 100;
const noticedKey = (key: SpecKey) => (key === 'swingWeight' ? ('swingWeightShare' as const) : key);
const usual = computed(() => sportData(sport.value));
const shipped = (key: SpecKey): { tolerance: string; noticeable: string } => {
  const noticed = usual.value.noticeable[noticedKey(key)];
  return {
    tolerance: `${usual.value.tolerance[key]}`,
    noticeable: key === 'swingWeight' ? `${Number((PERCENT * noticed).toFixed(2))}` : `${noticed}`,
  };
};
interface DueDraft {
  days: Typed;
  hours: Typed;
  felt: boolean;
  settleHours: Typed;
  order: string;
}
/** When strings are due for new ones. */
const due = reactive(
  Object.fromEntries(
    ALL_SPORTS.map((of) => [of, { days: null, hours: null, felt: true, settleHours: null, order: '' }]),
  ) as Record<Sport, DueDraft>,
);
const smallest = reactive(Object.fromEntries(ALL_SPORTS.map((of) => [of, null])) as Record<Sport, Typed>);
onMounted(async () => {
  try {
    const { sports } = await shop.load();
    for (const of of ALL_SPORTS) {
      smallest[of] = sports[of]?.smallestPieceG ?? null;
      const {
        days = null,
        hours = null,
        felt = true,
        settleHours = null,
        order = '',
      } = sports[of]?.strings ?? {};
      due[of] = { days, hours, felt, settleHours, order };
      for (const key of SPEC_KEYS) {
        const noticed = sports[of]?.noticeable?.[noticedKey(key)];
        rows[of][key].tolerance = sports[of]?.tolerance?.[key] ?? null;
        rows[of][key].noticeable =
          noticed === undefined ? null : key === 'swingWeight' ? PERCENT * noticed : noticed;
      }
    }
    loaded.value = true;
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
});
const dueOf = ({ days, hours, felt, settleHours, order }: DueDraft) => ({
  settleHours: sentOrNone(settleHours),
  days: sentOrNone(days),
  hours: sentOrNone(hours),
  ...(felt ? {} : { felt }),
  ...(order.trim() ? { order: order.trim() } : {}),
});
const numbersOf = (of: Sport) => ({
  strings: dueOf(due[of]),
  smallestPieceG: sentOrNone(smallest[of]),
  tolerance: Object.fromEntries(SPEC_KEYS.map((key) => [key, sentOrNone(rows[of][key].tolerance)])),
  noticeable: Object.fromEntries(
    SPEC_KEYS.map((key) => {
      const typed = rows[of][key].noticeable;
      const value = key === 'swingWeight' && typeof typed === 'number' ? typed / PERCENT : typed;
      return [noticedKey(key), sentOrNone(value)];
    }),
  ),
});
async function store(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  refused.value = undefined;
  failure.value = '';
  try {
    const { name, town, calibrationHours } = await shop.load();
    const sports = Object.fromEntries(ALL_SPORTS.map((of) => [of, numbersOf(of)]));
    await api('editShop', { body: { name, town, calibrationHours, sports } });
    await shop.load();
    saved.stored();
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) {
      refused.value = error;
      // What is wrong may stand in a sport that is not looked at now.
      const of = ALL_SPORTS.find((one) => error.at(`sports.${one}`));
      if (of) sport.value = of;
    } else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
const at = (path: string): string | undefined => refused.value?.at(`sports.${sport.value}.${path}`);
</script>

<template>
  <form class="numbers" novalidate @submit.prevent="store">
    <h2 class="heading">Tolerances</h2>
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <template v-if="loaded">
      <p class="soft small mb-0">Default tolerance and smallest noticeable change. Empty: Kevro’s default.</p>
      <v-select
        v-model="sport"
        :items="ALL_SPORTS.map((value) => ({ value, title: SPORT_NAMES[value] }))"
        label="Sport"
      />
      <div v-for="key in SPEC_KEYS" :key="`${sport} ${key}`" class="pair">
        <NumberField
          v-model="rows[sport][key].tolerance"
          :label="`${SPEC_NAMES[key]}, tolerance ±`"
          :unit="SPECS[key].unit"
          :placeholder="shipped(key).tolerance"
          :error="at(`tolerance.${key}`)"
        />
        <NumberField
          v-model="rows[sport][key].noticeable"
          label="noticeable"
          :unit="key === 'swingWeight' ? '%' : SPECS[key].unit"
          :placeholder="shipped(key).noticeable"
          :error="at(`noticeable.${noticedKey(key)}`)"
        />
      </div>
      <NumberField
        :key="`${sport} smallest`"
        v-model="smallest[sport]"
        label="Smallest piece worth cutting"
        measure="mass"
        :unit="partUnit()"
        :placeholder="partNumber(usual.smallestPieceG)"
        :error="at('smallestPieceG')"
      />
      <template v-if="usual.stringing">
        <h3 class="heading">New strings are due</h3>
        <div class="pair">
          <NumberField
            :key="`${sport} days`"
            v-model="due[sport].days"
            label="After, days"
            placeholder="by sessions a week"
            :error="at('strings.days')"
          />
          <NumberField
            :key="`${sport} hours`"
            v-model="due[sport].hours"
            label="After"
            measure="hours"
            :placeholder="`${usual.stringing.hours}`"
            :error="at('strings.hours')"
          />
        </div>
        <v-checkbox
          v-model="due[sport].felt"
          label="When two sessions in a row went long or lost spin"
          hide-details
        />
        <NumberField
          :key="`${sport} settle`"
          v-model="due[sport].settleHours"
          label="New strings settle before the check"
          measure="hours"
          placeholder="0"
          :error="at('strings.settleHours')"
        />
        <v-text-field
          v-model="due[sport].order"
          label="In which order we string"
          :placeholder="USUAL_ORDER"
          persistent-placeholder
          :error-messages="at('strings.order')"
        />
      </template>
      <div><v-btn type="submit" color="primary" :loading="busy">Save</v-btn></div>
    </template>
  </form>
</template>

<style scoped>
.numbers {
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-width: 520px;
}
.pair {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: 12px;
}
</style>
