import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import type { Shop } from '@kevro/contract';
import { api } from '../api/client';
import { setShopZone } from '../parts/day-words';

/** The shop: its name for the head line and for paper, its time zone for every day that is said. */
export const useShop = defineStore('shop', () => {
  const shop = shallowRef<Shop>();
  async function load(): Promise<Shop> {
    const now = await api('shop');
    setShopZone(now.timeZone);
    shop.value = now;
    return now;
  }
  return { shop, load };
});
