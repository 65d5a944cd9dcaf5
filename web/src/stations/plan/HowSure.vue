<script setup lang="ts">
import { computed } from 'vue';
import {
  specName,
  SPEC_KEYS,
  adviceFor,
  chanceAfterTrim,
  chanceWithEnough,
  type Advice,
  type Change,
  type Dress,
  type ErrorKind,
  type Frame,
  type SpecKey,
} from '@kevro/core';
import { useShop } from '../../stores/shop';
import { SPEC_NAMES } from '../../words';
import { planCheck } from './plan-check';
import { percent, timesWords } from '../../words/chance';

/** How likely a build of what stands passes its check, with how many readings, and what would raise it. */
const props = defineProps<{ frame: Frame; dress: Dress; change: Change; inside: boolean }>();
const shop = useShop();

const check = computed(() => planCheck(props.change));
const now = computed(() => check.value && chanceWithEnough(check.value, shop.wanted));
const trimmed = computed(() =>
  check.value && now.value ? chanceAfterTrim(check.value, now.value.chance, now.value.readings) : 0,
);
const MATTERS: Record<ErrorKind, string> = {
  density: 'from the true weights of tape and filling',
  placing: 'from where pieces end up',
  cutting: 'from the lengths that are cut',
  instruments: 'from the readings',
};
const most = computed(() => now.value?.contributions[0]);

const list = (specs: readonly { spec: SpecKey; times: number }[]): string =>
  specs.map(({ spec, times }) => `${specName(spec)} ${timesWords(times)}`).join(', ');
/** What the check has to read more than once. */
const asked = computed(() => {
  const { readings } = now.value ?? {};
  if (!readings) return '';
  return list(
    SPEC_KEYS.flatMap((spec) => {
      const times = readings[spec].check;
      return times > 1 ? [{ spec, times }] : [];
    }),
  );
});
const advice = computed(() =>
  check.value ? adviceFor(props.frame, props.dress, props.change, check.value, shop.wanted) : [],
);
function adviceWords(one: Advice): string {
  switch (one.does) {
    case 'read-check':
      return `At the check read ${list(one.specs)}`;
    case 'read-start':
      return `Measure again before you start: ${list(one.specs)}`;
    case 'weigh':
      return 'Weigh each piece before it goes on';
  }
}
</script>

<template>
  <section v-if="now" class="sure small" aria-label="How sure">
    <p>
      <b>{{ percent(now.chance) }}</b> pass the first check<template v-if="inside"
        >, <b>{{ percent(trimmed) }}</b> after one trim</template
      >.
    </p>
    <p class="soft">{{ percent(now.truly) }} sure to be really in tolerance.</p>
    <p v-if="asked" class="soft">At the check: {{ asked }}.</p>
    <details v-if="most && now.narrowest">
      <summary class="soft">
        {{ SPEC_NAMES[now.narrowest] }} has least margin, most {{ MATTERS[most.what] }}
      </summary>
      <p v-for="one in advice" :key="one.does" class="soft">
        {{ adviceWords(one) }}: {{ percent(one.from) }} → {{ percent(one.to) }}.
      </p>
      <p v-if="advice.length === 0" class="soft">Nothing a fitter can do raises it by much.</p>
    </details>
  </section>
</template>

<style scoped>
.sure p {
  margin: 0;
}
summary {
  cursor: pointer;
}
</style>
