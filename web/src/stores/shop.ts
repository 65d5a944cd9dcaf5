import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { ALL_SPORTS, WANTED_CHANCE, sportData, withOwn, type Sport, type SportData } from '@kevro/core';
import type { Shop } from '@kevro/contract';
import { api } from '../api/client';
import { onChanged } from '../ui/changes';
import { setShopZone } from '../words/days';
import { setPartUnit } from '../words/part-weight';

/** The shop: its name for the head line and for paper, its time zone for every day that is said. */
export const useShop = defineStore('shop', () => {
  const shop = shallowRef<Shop>();
  let latest = 0;
  async function load(): Promise<Shop> {
    const own = ++latest;
    const now = await api('shop');
    if (own !== latest) return now;
    setShopZone(now.timeZone);
    setPartUnit(now.partUnit);
    shop.value = now;
    return now;
  }
  /** Once it was read; what waits for it together asks once. */
  let asked: Promise<unknown> | undefined;
  const ready = async (): Promise<void> => {
    if (shop.value) return;
    asked ??= load().finally(() => (asked = undefined));
    await asked;
  };
  onChanged(() => shop.value && load().catch(() => undefined), ['shop']);
  /** A sport with the numbers that the shop works to. */
  const sportOf = (sport: Sport): SportData => withOwn(sportData(sport), shop.value?.sports[sport]);
  /** In which order the shop strings, where it said so. */
  const orderOf = (sport: Sport): string | undefined => shop.value?.sports[sport]?.strings?.order;
  /** How often a check is to pass at first. */
  const wanted = computed(() => shop.value?.wantedChance ?? WANTED_CHANCE);
  const fits = computed(() => shop.value?.fits ?? []);
  /** What a new frame or player is taken to be of, until somebody says otherwise. */
  const usualSport = computed<Sport>(() => fits.value[0] ?? ALL_SPORTS[0]);
  const measuresWith = computed(() => shop.value?.measuresWith ?? []);
  return { shop, load, ready, sportOf, orderOf, wanted, fits, usualSport, measuresWith };
});
