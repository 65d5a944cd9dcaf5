import { shallowRef } from 'vue';
import { dayIn } from '@kevro/core';

/** The application speaks English, so its dates do too, whatever the browser's language. */
const LANGUAGE = 'en-GB';
const zone = shallowRef<string>();
/** Days are the shop's own, wherever the page is looked at. */
export const setShopZone = (timeZone: string): void => {
  zone.value = timeZone;
};

/** Whether it is a day without a time. */
export const isDayAlone = (iso: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(iso);

/** Each way of saying a date is made once: a list says a hundred of them, and to make one takes longer than to use it. */
const ways = new Map<string, Intl.DateTimeFormat>();
function said(iso: string, options: Intl.DateTimeFormatOptions): string {
  // A day without a time stands for itself: it is read at noon of no place in particular.
  const [moment, timeZone] = isDayAlone(iso) ? [`${iso}T12:00Z`, 'UTC'] : [iso, zone.value];
  const key = JSON.stringify([timeZone, options]);
  let way = ways.get(key);
  if (!way)
    ways.set(key, (way = new Intl.DateTimeFormat(LANGUAGE, timeZone ? { ...options, timeZone } : options)));
  return way.format(new Date(moment));
}

/** A moment's day where the shop is, as it is sorted: «2026-11-09». */
export const shopDay = (iso: string): string => (isDayAlone(iso) ? iso : dayIn(zone.value ?? '', iso));
/** What day it is in the shop. */
export const shopToday = (): string => shopDay(new Date().toISOString());
export const shopYear = (): number => Number(shopToday().slice(0, 4));

/** The year is said where it is not this one. */
const day = (iso: string): Intl.DateTimeFormatOptions => ({
  day: 'numeric',
  month: 'short',
  ...(shopDay(iso).slice(0, 4) === shopToday().slice(0, 4) ? {} : { year: 'numeric' }),
});

/** A day as it is said: «9 Nov», «9 Nov 2025». */
export const dayWords = (iso: string): string => said(iso, day(iso));
/** A day as it is said on paper, which is read in other years too: «9 November 2026». */
export const wholeDayWords = (iso: string): string =>
  said(iso, { day: 'numeric', month: 'long', year: 'numeric' });
/** A moment as it is said: «9 Nov, 14:05». */
export const momentWords = (iso: string): string =>
  said(iso, { ...day(iso), hour: '2-digit', minute: '2-digit' });
export const wholeMomentWords = (iso: string): string =>
  said(iso, { day: 'numeric', month: 'long', year: 'numeric', hour: '2-digit', minute: '2-digit' });
/** A time of today: «14:05». */
export const timeWords = (iso: string): string => said(iso, { hour: '2-digit', minute: '2-digit' });
