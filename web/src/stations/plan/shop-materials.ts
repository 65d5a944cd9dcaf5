import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import type { Materials } from '@kevro/core';
import { useFitting } from '../../stores/fitting';

const withoutId = <T extends { id: string }>({ id: _, ...rest }: T): Omit<T, 'id'> => rest;

/** The shop's tape and filling that plans are laid out in: those of the stored plan, else those chosen last on this device, else the first. */
export function useShopMaterials() {
  const fitting = useFitting();
  const chosen = useLocalStorage('kevro-materials', { tape: '', filling: '' });
  const stored = fitting.view?.plan?.materials;
  const named = <T extends { id: string; name: string }>(
    list: T[] | undefined,
    name: string | undefined,
  ): string => list?.find((part) => part.name === name)?.id ?? '';
  if (stored) {
    chosen.value = {
      tape: named(fitting.parts?.tapes, stored.tape.name) || chosen.value.tape,
      filling: named(fitting.parts?.fillings, stored.filling.name) || chosen.value.filling,
    };
  }
  const pick = <T extends { id: string }>(list: T[] | undefined, id: string): T | undefined =>
    list?.find((part) => part.id === id) ?? list?.[0];
  const tape = computed(() => pick(fitting.parts?.tapes, chosen.value.tape));
  const filling = computed(() => pick(fitting.parts?.fillings, chosen.value.filling));
  const materials = computed<Materials | undefined>(() =>
    tape.value && filling.value
      ? { tape: withoutId(tape.value), filling: withoutId(filling.value) }
      : undefined,
  );
  return { chosen, tape, filling, materials };
}
