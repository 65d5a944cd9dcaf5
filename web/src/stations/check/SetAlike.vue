<script setup lang="ts">
import { computed } from 'vue';
import {
  specName,
  SPEC_KEYS,
  bringTo,
  checkOf,
  setApart,
  withinTolerance,
  type AxisSpecs,
} from '@kevro/core';
import { useFitting } from '../../stores/fitting';
import { useUnits } from '../../stores/units';
import { SPEC_NAMES } from '../../words';

/** The frames of a set against one another, as they are: each by its check, or by where its round starts. */
const fitting = useFitting();
const units = useUnits();
const shape = computed(() => fitting.record?.shape);
const frames = computed(() => {
  const dress = fitting.measurement?.dress ?? {};
  const axisCm = fitting.measurement?.specs.axisCm;
  return (fitting.view?.frames ?? []).flatMap(({ frame, rounds }) => {
    const round = rounds.at(-1);
    const plan = round?.plans.find(({ id }) => id === round.state.planId);
    const checked = round && plan ? checkOf(round, plan.id) : undefined;
    const measured = checked ?? round?.measurements.find(({ id }) => id === round.startId);
    if (!measured || axisCm === undefined) return [];
    const target = round?.aims.find(({ id }) => id === round.state.aimId)?.target;
    // In one dress: two frames are not alike because one has an overgrip more.
    const specs = bringTo(
      { shape: frame.shape, dress: measured.dress, specs: measured.specs, sourceKind: 'measured' },
      dress,
      axisCm,
    ).specs as AxisSpecs;
    return [
      {
        id: frame.id,
        tag: frame.tag,
        specs,
        checked: checked !== undefined,
        inside: target && checked ? withinTolerance(target, checked.specs) : undefined,
      },
    ];
  });
});
const missing = computed(() => (fitting.view?.frames.length ?? 0) - frames.value.length);
const apart = computed(() => (shape.value ? setApart(shape.value.sport, frames.value) : []));
const tag = (id: string): string => frames.value.find((f) => f.id === id)?.tag ?? '';
</script>

<template>
  <section aria-label="The set" class="set">
    <h2 class="heading">The set compared</h2>
    <table class="plain small">
      <thead>
        <tr>
          <th>Frame</th>
          <th v-for="key in SPEC_KEYS" :key="key" class="num">{{ SPEC_NAMES[key].split(' ')[0] }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="f in frames" :key="f.id">
          <td>
            <RouterLink :to="{ query: { frame: f.id } }">{{ f.tag }}</RouterLink>
            <div class="soft">
              {{ f.checked ? (f.inside ? 'inside' : 'outside') : 'before its build' }}
            </div>
          </td>
          <td v-for="key in SPEC_KEYS" :key="key" class="num">
            {{ f.specs[key] === undefined || !shape ? '–' : units.show(key, f.specs[key], shape) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="missing > 0" class="soft small mb-0">{{ missing }} of the set not measured yet.</p>
    <p v-for="pair in apart" :key="pair.ids.join()" class="small mb-0">
      {{ pair.ids.map(tag).join(' and ') }}:
      <b :class="pair.steps < 1 ? 'good' : 'warn'">{{
        pair.steps < 1 ? 'feel the same' : `${pair.steps.toFixed(1)} steps apart`
      }}</b><template v-if="pair.most">, mostly {{ specName(pair.most) }}</template>
    </p>
  </section>
</template>

<style scoped>
td,
th {
  padding: 4px 3px;
}
</style>
