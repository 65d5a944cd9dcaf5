import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import {
  bringTo,
  nearest,
  settleFrame,
  type AxisSpecs,
  type BroughtSetup,
  type Dress,
  type StepDistance,
} from '@kevro/core';
import type { FittingView, Parts, Setup } from '@kevro/contract';
import { api } from '../api/client';
import { useSaved } from './saved';

/** A setup brought to the dress and axis of the frame in hand, with its distance. */
export type NearSetup = { setup: Setup; brought: BroughtSetup; specs: BroughtSetup['specs'] } & StepDistance;

/** The open fitting and what it is compared with. */
export const useFitting = defineStore('fitting', () => {
  const view = ref<FittingView>();
  const setups = ref<Setup[]>([]);
  const parts = ref<Parts>();
  const failure = ref('');

  async function open(id: string): Promise<void> {
    failure.value = '';
    if (view.value?.id !== id) view.value = undefined;
    try {
      const [fitting, library, catalogue] = await Promise.all([
        api('fitting', { id }),
        api('setups'),
        api('parts'),
      ]);
      view.value = fitting;
      setups.value = library;
      parts.value = catalogue;
    } catch (error) {
      failure.value = error instanceof Error ? error.message : String(error);
    }
  }

  /** Takes in a newer view after something was stored. */
  async function refresh(): Promise<void> {
    if (view.value) view.value = await api('fitting', { id: view.value.id });
    useSaved().stored();
  }

  const frame = computed(() => view.value && settleFrame(view.value.frame.shape));
  const measurement = computed(() => view.value?.measurement ?? undefined);
  const before = computed<AxisSpecs | undefined>(() => measurement.value?.specs);
  const dress = computed<Dress | undefined>(() => measurement.value?.dress);

  /** Every setup brought to the frame's dress and axis, nearest first. */
  const near = computed<NearSetup[]>(() => {
    const own = before.value;
    const to = dress.value;
    if (!own || !to) return [];
    return nearest(
      own,
      setups.value
        .filter((setup) => setup.shape.sport === view.value?.frame.shape.sport)
        .map((setup) => {
          const brought = bringTo(setup, to, own.axisCm);
          return { setup, brought, specs: brought.specs };
        }),
    );
  });
  const references = computed(() => {
    const ids = view.value?.references ?? [];
    return ids.flatMap((id) => near.value.find((n) => n.setup.id === id) ?? []);
  });

  return { view, setups, parts, failure, open, refresh, frame, measurement, before, dress, near, references };
});
