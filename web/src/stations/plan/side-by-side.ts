import { computed, ref, type Ref } from 'vue';
import {
  chanceAfterTrim,
  chanceWithEnough,
  withinTolerance,
  type Change,
  type Part,
  type Plan,
} from '@kevro/core';
import { useKept } from '../../ui/kept';
import { useFitting } from '../../stores/fitting';
import { useShop } from '../../stores/shop';
import { SCHOOL_NAMES } from '../../words';
import { planCheck } from './plan-check';
import type { Standing } from './standing';
import type { Variant } from './VariantsList.vue';
import type { Compared } from './WaysTable.vue';

/** What was kept by name for a round, on this device. */
export function useVariants(standing: Ref<Standing>) {
  const fitting = useFitting();
  const all = useKept<Record<string, Variant[]>>('kevro-variants', {});
  const roundId = computed(() => fitting.round?.id ?? '');
  const variants = computed(() => all.value[roundId.value] ?? []);
  const set = (now: Variant[]): void => {
    all.value = { ...all.value, [roundId.value]: now };
  };
  const drop = (name: string): void => set(variants.value.filter((v) => v.name !== name));
  const keep = (name: string): void =>
    set([...variants.value.filter((v) => v.name !== name), { name, standing: standing.value }]);
  return { variants, keep, drop };
}

/** Every way, what stands by hand, and the variants, worked out alike for one table. */
export function useSideBySide(
  plans: Ref<readonly Plan[]>,
  parts: Ref<readonly Part[]>,
  standing: Ref<Standing>,
  variants: Ref<readonly Variant[]>,
) {
  const shop = useShop();
  const open = ref(false);

  function comparedOf(id: string, name: string, change: Change): Compared[] {
    const check = planCheck(change);
    if (!check) return [];
    const { after: specs, before, aim } = check;
    const { chance, readings } = chanceWithEnough(check, shop.wanted);
    const { placements, swaps, removals } = change;
    const inside = withinTolerance(aim, specs);
    return [
      {
        id,
        name,
        specs,
        places: placements.length + swaps.length + removals.length,
        addedG: specs.massG - before.massG,
        chance,
        trimmed: inside ? chanceAfterTrim(check, chance, readings) : undefined,
        inside,
      },
    ];
  }
  const compared = computed(() => {
    if (!open.value) return [];
    const ways = plans.value.flatMap((plan) =>
      comparedOf(`way ${plan.school}`, SCHOOL_NAMES[plan.school], { ...plan, parts: parts.value }),
    );
    const kept = variants.value.flatMap((v) => comparedOf(`variant ${v.name}`, v.name, v.standing));
    const own = standing.value.byHand ? comparedOf('hand', 'As edited', standing.value) : [];
    return [...own, ...ways, ...kept];
  });
  const on = computed(() => (standing.value.byHand ? 'hand' : `way ${standing.value.school ?? ''}`));
  /** What a row of the table stands for. */
  const wayOf = (id: string): Plan | undefined => plans.value.find((plan) => id === `way ${plan.school}`);
  const variantOf = (id: string): Variant | undefined =>
    variants.value.find((v) => id === `variant ${v.name}`);
  return { open, compared, on, wayOf, variantOf };
}
