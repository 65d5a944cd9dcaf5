import { effectScope, ref } from 'vue';
import { expect, it, onTestFinished, vi } from 'vitest';
import { tellChanged } from '../ui/changes';
import { counted } from '../words/counted';
import { useAsked, useListing } from './queries';

/** The page hears of answers a moment later, of several at once. */
const told = (): Promise<void> => new Promise((done) => setTimeout(done, 5));

/** A server whose answers come when the test says so. */
function held() {
  const waiting: { key: string; answer: (value: string) => void; fail: (error: Error) => void }[] = [];
  const ask = (key: string): Promise<string> =>
    new Promise((answer, fail) => waiting.push({ key, answer, fail }));
  const settle = async (i: number, value: string): Promise<void> => {
    waiting[i]?.answer(value);
    await told();
  };
  return { waiting, ask, settle };
}
const inScope = <T>(work: () => T): T => {
  const scope = effectScope();
  onTestFinished(() => scope.stop());
  return scope.run(work) as T;
};

it('shows the record that was asked for last, whichever answer comes first', async () => {
  const { ask, settle } = held();
  const id = ref('first');
  const { record } = inScope(() => useAsked('test', () => id.value, ask));
  id.value = 'second';
  await told();
  await settle(1, 'the second');
  expect(record.value).toBe('the second');
  await settle(0, 'the first');
  expect(record.value).toBe('the second');
});

it('shows nothing of another key while the answer is on its way, and the same record while it is asked anew', async () => {
  const { ask, settle } = held();
  const id = ref<string | undefined>('first');
  const { record, load } = inScope(() => useAsked('test', () => id.value, ask));
  await settle(0, 'the first');
  void load();
  expect(record.value).toBe('the first');
  id.value = 'second';
  await told();
  expect(record.value).toBeUndefined();
  // Asked anew for the first, and answered only now.
  await settle(1, 'the first, later');
  expect(record.value).toBeUndefined();
  id.value = undefined;
  await told();
  await settle(2, 'the second');
  expect(record.value).toBeUndefined();
});

it('asks anew also before anything has come: what is on its way was asked for before the change', async () => {
  const { ask, waiting, settle } = held();
  const { record, failure, load } = inScope(() => useAsked('early', () => 'first', ask));
  await told();
  void load();
  await told();
  expect(waiting.length).toBe(2);
  await settle(0, 'as it was');
  expect([record.value, failure.value]).toEqual([undefined, '']);
  await settle(1, 'as it is');
  expect(record.value).toBe('as it is');
});

it('asks anew for everything that is on its way when something was stored elsewhere', async () => {
  const { ask, waiting, settle } = held();
  const { record } = inScope(() => useAsked('told', () => 'first', ask));
  const list = inScope(() =>
    useListing('names', {}, async () => ({ rows: [await ask('a list')], total: 1 })),
  );
  await told();
  tellChanged({ kind: 'round', id: 'r1' });
  await vi.waitFor(() => expect(waiting.length).toBe(4));
  await settle(0, 'as it was');
  await settle(1, 'a row as it was');
  expect([record.value, list.rows.value]).toEqual([undefined, undefined]);
  for (const [i, { key }] of waiting.entries()) await settle(i, `${key}, as it is`);
  expect([record.value, list.rows.value]).toEqual(['first, as it is', ['a list, as it is']]);
});

it('says what went wrong with what is asked for now, and not with what was asked before', async () => {
  const { ask, waiting, settle } = held();
  const id = ref('first');
  const { record, failure, show } = inScope(() => useAsked('test', () => id.value, ask));
  id.value = 'second';
  await told();
  waiting[0]?.fail(new Error('the first is gone'));
  await told();
  expect(failure.value).toBe('');
  waiting[1]?.fail(new Error('the second is gone'));
  await told();
  expect(failure.value).toBe('the second is gone');
  await show('stored');
  await told();
  expect([record.value, failure.value]).toEqual(['stored', '']);
  await settle(1, 'too late');
  expect(record.value).toBe('stored');
});

it('says how much of a list is shown until all of it is, and that there are more than were counted', async () => {
  const sizes = [
    { rows: [1, 2], total: 5 },
    { rows: [3, 4, 5], total: 5 },
    { rows: [1, 2], total: 10_000, orMore: true as const },
  ];
  let at = 0;
  const list = inScope(() =>
    useListing('numbers', {}, () => Promise.resolve(sizes[at++] ?? { rows: [], total: 0 })),
  );
  await told();
  expect([list.rows.value, list.left.value]).toEqual([[1, 2], '2 of 5']);
  await list.more();
  expect([list.rows.value, list.left.value]).toEqual([[1, 2, 3, 4, 5], '']);
  const throng = inScope(() =>
    useListing('a throng', {}, () => Promise.resolve(sizes[2] ?? { rows: [], total: 0 })),
  );
  await told();
  expect(throng.left.value).toBe('2 of over 10000');
  expect(counted(throng.inAll.value, 'setup', 'setups')).toBe('over 10000 setups');
});
