import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import {
  instrumentsAfter,
  measuredWith,
  renewedSince,
  settleFrame,
  type AxisSpecs,
  type Dress,
  type Instruments,
} from '@kevro/core';
import type { FittingView, Measurement, RoundView } from '@kevro/contract';
import { api } from '../api/client';
import { waitingFor } from '../api/waiting';
import { same } from '../ui/same';
import { useSaved } from './saved';
import { useShop } from './shop';
import { withWaitingMarks } from './waiting-marks';

type FrameOfFitting = FittingView['frames'][number];

/** The open fitting: its player, the frame of it that is worked on, and that frame's last round. */
export const useFitting = defineStore('fitting', () => {
  const shop = useShop();
  /** As the server has it. */
  const stands = shallowRef<FittingView>();
  /** With what was ticked since the server went away. */
  const view = computed({
    get: () => stands.value && withWaitingMarks(stands.value, waitingFor('markStep', stands.value.id)),
    set: (now) => (stands.value = now),
  });
  const frameId = ref<string>();
  const failure = ref('');
  /** The one that is to be shown. */
  let opened: string | undefined;
  /** Counts what was asked for, and which of it is shown: nothing that was asked for before. */
  let asked = 0;
  let shown = 0;
  const isNewer = (own: number, { id }: FittingView): boolean => own > shown && id === opened;
  function show(own: number, next: FittingView): void {
    shown = own;
    stands.value = next;
  }

  /** A fitting that was asked for while the code of its page is still on the way. */
  let early: { id: string; answer: Promise<FittingView> } | undefined;
  function askEarly(id: string): void {
    early = { id, answer: api('fitting', { id }) };
    // Said where it is opened.
    early.answer.catch(() => undefined);
  }

  async function open(id: string): Promise<void> {
    const own = ++asked;
    const answering = early?.id === id ? early.answer : api('fitting', { id });
    early = undefined;
    failure.value = '';
    if (opened !== id) stands.value = undefined;
    opened = id;
    try {
      // What the shop works to is known before anything is begun from it; without it the sport's own numbers stand.
      const [answer] = await Promise.all([answering, shop.ready().catch(() => undefined)]);
      if (isNewer(own, answer)) show(own, answer);
    } catch (error) {
      if (own === asked) failure.value = error instanceof Error ? error.message : String(error);
    }
  }

  /** Shows what a call that stored something answered, or asks anew where the call answers something else. */
  async function stored(answer?: FittingView): Promise<void> {
    useSaved().stored();
    const { value: now } = view;
    if (!now) return;
    const own = ++asked;
    const next = answer ?? (await api('fitting', { id: now.id }));
    if (isNewer(own, next)) show(own, next);
  }

  /** Asks again for what was changed elsewhere; the old is shown until the answer comes. */
  async function refresh(): Promise<void> {
    if (opened === undefined) return;
    // What is on its way was asked for before the change.
    if (!stands.value) return open(opened);
    const own = ++asked;
    const next = await api('fitting', { id: opened }).catch(() => undefined);
    if (next && isNewer(own, next) && !same(next, stands.value)) show(own, next);
  }

  const entry = computed<FrameOfFitting | undefined>(
    () => view.value?.frames.find(({ frame }) => frame.id === frameId.value) ?? view.value?.frames[0],
  );
  const record = computed(() => entry.value?.frame);
  /** The strings that are in it. */
  const bed = computed(() => entry.value?.bed ?? undefined);
  const rounds = computed(() => entry.value?.rounds ?? []);
  /** The programme that goes on on the frame, or is paused. */
  const programme = computed(() => entry.value?.programmes.find(({ state }) => state !== 'ended'));
  const round = computed<RoundView | undefined>(() => entry.value?.rounds.at(-1));
  const settled = computed(() => record.value && settleFrame(record.value.shape));
  /** The frame, with the numbers that the shop works to: the same object while those are as they ship. */
  const frame = computed(() => {
    if (!settled.value) return undefined;
    const sport = shop.sportOf(settled.value.sport.sport);
    return sport === settled.value.sport ? settled.value : { ...settled.value, sport };
  });

  /** Things that stay the same object as long as their id does: nothing is worked out anew because something else was stored. */
  const measurement = shallowComputed(() =>
    round.value?.measurements.find(({ id }) => id === round.value?.startId),
  );
  const aim = shallowComputed(() => round.value?.aims.find(({ id }) => id === round.value?.state.aimId));
  const plan = shallowComputed(() => round.value?.plans.find(({ id }) => id === round.value?.state.planId));
  const before = computed<AxisSpecs | undefined>(() => measurement.value?.specs);
  const dress = computed<Dress | undefined>(() => measurement.value?.dress);
  /** With what the check of work that starts from a measurement is read: with what that was read with, as far as it is still the same. */
  const instrumentsFrom = (from: Measurement): Instruments | undefined =>
    frame.value &&
    instrumentsAfter(
      frame.value.sport,
      measuredWith(from),
      renewedSince(from.how, view.value?.instruments ?? []),
    );
  const instruments = computed(() => measurement.value && instrumentsFrom(measurement.value));
  const references = computed(() => view.value?.references ?? []);

  return {
    view,
    frameId,
    failure,
    askEarly,
    open,
    stored,
    refresh,
    record,
    bed,
    rounds,
    programme,
    round,
    frame,
    measurement,
    instruments,
    instrumentsFrom,
    before,
    dress,
    aim,
    plan,
    references,
  };
});

/** A record that is replaced only by one of another id: records never change, so that of the same id is the same. */
function shallowComputed<T extends { id: string }>(of: () => T | undefined) {
  return computed<T | undefined>((before) => {
    const now = of();
    return before && now?.id === before.id ? before : now;
  });
}
