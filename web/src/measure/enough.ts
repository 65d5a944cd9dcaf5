import { computed, type Ref } from 'vue';
import {
  isPlanned,
  SPEC_KEYS,
  bySpec,
  chanceToPass,
  chanceWithStart,
  enoughReadings,
  instrumentsShown,
  readingsToStart,
  timesRead,
  type Purpose,
  type Quantity,
  type Readings,
  type SpecKey,
  type ToCheck,
} from '@kevro/core';
import { KINDS } from '@kevro/contract';
import { useInstruments } from '../stores/instruments';
import { useShop } from '../stores/shop';
import type { CaptureBench } from './capture';

/** A plan whose check this may be. */
export interface Planned {
  check: ToCheck;
  readings: Readings | null;
}

/**
 * How often each quantity is to be read for what the measurement is for: a start so that a usual build passes, a check so that its own plan does; and what it costs
 * to read less often.
 */
/** Whether readings of it are counted: those that a build is judged by. */
const isAsked = (quantity: Quantity): quantity is SpecKey => quantity !== 'leftRightG' && isPlanned(quantity);

export function useEnough(
  { settledFrame, found }: CaptureBench,
  purpose: Ref<Purpose>,
  planned: () => Planned | undefined,
) {
  const shop = useShop();
  const instruments = useInstruments();
  const { sport } = settledFrame;
  const byMachine = computed(
    () =>
      shop.measuresWith.includes('machine') ||
      (instruments.all?.some((one) => !one.retired && KINDS[one.kind].reads.includes('twistWeight')) ??
        false),
  );
  const counts = computed(() => timesRead(found.value));
  // Where a machine stands there, the twist weight is read edge-on less face-on.
  const readBy = computed(() => instrumentsShown(settledFrame, found.value, byMachine.value));
  const before = computed(() => {
    const read = bySpec((key) => found.value.settled[key]?.value ?? sport.usual[key]);
    return { ...read, axisCm: sport.axisCm };
  });
  const frame = computed(() => ({ ...settledFrame, sport: shop.sportOf(sport.sport) }));

  const asked = computed<Record<SpecKey, number>>(() => {
    if (purpose.value === 'check') {
      const plan = planned();
      if (!plan) return bySpec(() => 1);
      const readings = plan.readings ?? enoughReadings(plan.check, shop.wanted).readings;
      return bySpec((key) => readings[key].check);
    }
    if (purpose.value !== 'found') return bySpec(() => 1);
    return readingsToStart(frame.value, before.value, readBy.value);
  });
  const timesOf = (quantity: Quantity): number => (isAsked(quantity) ? asked.value[quantity] : 1);
  /** How many more readings of a quantity are asked for. */
  const left = (quantity: Quantity): number =>
    isAsked(quantity) ? Math.max(0, asked.value[quantity] - counts.value[quantity]) : 0;

  /** What was read, but less often than asked, and what that costs. */
  const cost = computed(() => {
    const short = SPEC_KEYS.filter((key) => counts.value[key] > 0 && left(key) > 0);
    if (short.length === 0) return undefined;
    const now = bySpec((key) => Math.max(1, counts.value[key]));
    const plan = planned();
    if (purpose.value === 'check' && plan) {
      const chance = (times: Record<SpecKey, number>): number => {
        const readings = bySpec((key) => ({ start: plan.readings?.[key].start ?? 1, check: times[key] }));
        return chanceToPass(plan.check, readings).chance;
      };
      return { short, from: chance(now), to: chance(asked.value) };
    }
    const chance = (times: Record<SpecKey, number>): number =>
      chanceWithStart(frame.value, before.value, readBy.value, times);
    return { short, from: chance(now), to: chance(asked.value) };
  });
  return { timesOf, left, cost };
}
