// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, expect, it, vi } from 'vitest';
import type { FittingView } from '@kevro/contract';
import { useFitting } from './fitting';

/** A server whose answers come when the test says so. */
const waiting: { answer: (value: FittingView) => void; fail: (error: Error) => void }[] = [];
vi.mock('../api/client', async (real) => ({
  ...(await real<object>()),
  api: (name: string) =>
    name === 'fitting'
      ? new Promise((answer, fail) => waiting.push({ answer, fail }))
      : Promise.reject(new Error('away')),
}));
const told = (): Promise<void> => new Promise((done) => setTimeout(done, 5));
const as = (note: string, id = 'f-one') => ({ id, note, frames: [] }) as unknown as FittingView;
async function settle(i: number, fitting: FittingView): Promise<void> {
  waiting[i]?.answer(fitting);
  await told();
}
const noteOf = (): unknown => (useFitting().view as unknown as { note: string } | undefined)?.note;

beforeEach(() => {
  waiting.length = 0;
  setActivePinia(createPinia());
});

/** An open fitting that is asked for twice more: after something was stored here, and elsewhere. */
async function askedTwice(): Promise<void> {
  void useFitting().open('f-one');
  await settle(0, as('opened'));
  void useFitting().stored();
  void useFitting().refresh();
}

it('shows the fitting as it was asked for last', async () => {
  await askedTwice();
  await settle(2, as('changed elsewhere'));
  await settle(1, as('stored'));
  expect(noteOf()).toBe('changed elsewhere');
});

it('shows what came, where what was asked for later could not be read', async () => {
  await askedTwice();
  waiting[2]?.fail(new Error('away'));
  await settle(1, as('stored'));
  expect(noteOf()).toBe('stored');
});

it('asks anew for what was changed before it has come', async () => {
  void useFitting().open('f-one');
  void useFitting().refresh();
  await settle(1, as('changed'));
  await settle(0, as('as it was'));
  expect(noteOf()).toBe('changed');
});

it('shows nothing of another fitting than the one that was opened last', async () => {
  void useFitting().open('f-one');
  await settle(0, as('opened'));
  void useFitting().stored();
  void useFitting().open('f-two');
  expect(noteOf()).toBeUndefined();
  await settle(1, as('stored'));
  expect(noteOf()).toBeUndefined();
  await settle(2, as('the other', 'f-two'));
  expect(noteOf()).toBe('the other');
});
