import { useEventListener } from '@vueuse/core';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import type { InstrumentMessage, ToldChange } from '@kevro/contract';
import { tellChanged } from '../ui/changes';
import { tabId } from '../ui/tab';

/** How long to wait before asking a server again that refused the stream, ms. */
const AGAIN_MS = 1000;
/** How often pages are read anew while there is no stream, ms. */
const POLL_MS = 2000;

/**
 * The one stream of a page: what is stored elsewhere, and with it what instruments say while something listens to them. While the page is not seen and listens to no
 * instrument there is none; where it cannot be had, pages are read anew now and then.
 */
export const useStream = defineStore('stream', () => {
  /** Undefined until the stream has answered for the first time. */
  const connected = ref<boolean>();
  let stream: EventSource | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  let polling: ReturnType<typeof setInterval> | undefined;
  let hear: ((message: InstrumentMessage) => void) | undefined;
  /** Whether anything may have been missed since the page was read. */
  let missed = false;
  let kept = false;

  function close(): void {
    clearTimeout(again);
    clearInterval(polling);
    polling = undefined;
    stream?.close();
    stream = undefined;
    connected.value = undefined;
  }
  /** The browser connects again by itself when a stream breaks, but not when it was refused, as by a server that is still starting. */
  function open(): void {
    close();
    const opened = new EventSource(`/api/v1/stream${hear ? '?instruments=yes' : ''}`);
    stream = opened;
    opened.onopen = () => {
      connected.value = true;
      clearInterval(polling);
      polling = undefined;
      if (missed) tellChanged(undefined);
      missed = false;
    };
    opened.onerror = () => {
      connected.value = false;
      missed = true;
      polling ??= setInterval(() => tellChanged(undefined), POLL_MS);
      if (opened.readyState !== EventSource.CLOSED) return;
      clearTimeout(again);
      again = setTimeout(reopen, AGAIN_MS);
    };
    opened.onmessage = (event) => hear?.(JSON.parse(event.data as string) as InstrumentMessage);
    opened.addEventListener('change', (event) => {
      const { kind, id, page } = JSON.parse((event as MessageEvent<string>).data) as ToldChange;
      // What this page stored it shows already.
      if (page !== tabId()) tellChanged(kind === 'everything' ? undefined : { kind, id });
    });
  }
  function reopen(): void {
    const was = polling;
    polling = undefined;
    open();
    polling = was;
  }

  /** Listens to the instruments too. @returns stops that */
  function withInstruments(listener: (message: InstrumentMessage) => void): () => void {
    hear = listener;
    open();
    return () => {
      hear = undefined;
      if (kept && document.visibilityState === 'visible') open();
      else close();
    };
  }
  /** Keeps the page up to date from here on, while it is seen. */
  function keepUp(): void {
    if (kept) return;
    kept = true;
    if (!stream && document.visibilityState === 'visible') open();
    useEventListener(document, 'visibilitychange', () => {
      if (document.visibilityState === 'visible') {
        if (stream) return;
        missed = true;
        open();
      } else if (!hear) close();
    });
  }
  return { connected, withInstruments, keepUp };
});
