// @vitest-environment happy-dom
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { flushPromises } from '@vue/test-utils';
import { within } from '../../test/fixtures';
import * as tabs from '../ui/tab';
import { forgetDrafts, useDraft } from './draft';

interface Aim {
  massG: number | string | null;
}
const tab = { id: 'one', open: ['one'] };
vi.spyOn(tabs, 'tabId').mockImplementation(() => tab.id);
vi.spyOn(tabs, 'openTabs').mockImplementation(() => Promise.resolve(new Set(tab.open)));
afterAll(() => void vi.restoreAllMocks());
beforeEach(() => {
  localStorage.clear();
  tab.id = 'one';
  tab.open = ['one', 'two'];
});
/** A form that opens with what is stored. */
const form = (stored: Aim = { massG: 320 }) => {
  const draft = within(() => useDraft<Aim>(() => ({ massG: null }))).result;
  draft.begin('aim', stored);
  return draft;
};
async function typed(massG: Aim['massG']) {
  const draft = form();
  draft.value.value.massG = massG;
  await nextTick();
  return draft;
}

describe('a draft', () => {
  it('is there when the form opens again, until it is stored', async () => {
    const first = await typed('33 zz');
    expect(form().value.value.massG).toBe('33 zz');
    expect(form().resumed.value).toBe(true);
    first.stored();
    expect(form({ massG: 320 }).value.value.massG).toBe(320);
  });

  it('about a person is forgotten with them, by what it is named or by what it says; others stay', async () => {
    const kept = async (name: string, note: string): Promise<void> => {
      const { result: draft } = within(() => useDraft(() => ({ note: '' })));
      draft.begin(name, { note: '' });
      draft.value.value.note = note;
      await nextTick();
    };
    await kept('session r-17', 'arm sore after an hour');
    await kept('part new', 'like that of ODA MERRIN');
    await kept('setup new', 'told by\nAl, with balls');
    await kept('session r-18', 'lively, plays with an alder frame');
    forgetDrafts(['r-17', 'Oda Merrin', 'Al', ' ']);
    expect(Object.keys(localStorage)).toEqual(['kevro-draft one session r-18']);
  });

  it('belongs to its tab: another one that is open neither shows nor changes it', async () => {
    await typed(345);
    tab.id = 'two';
    const other = form();
    await flushPromises();
    expect(other.dirty.value).toBe(false);
    other.value.value.massG = 300;
    await nextTick();
    tab.id = 'one';
    expect(form().value.value.massG).toBe(345);
  });

  it('is taken over by the next tab where its own is gone', async () => {
    await typed(345);
    tab.id = 'three';
    tab.open = ['three'];
    const next = form();
    await flushPromises();
    expect(next.value.value.massG).toBe(345);
  });

  it('does not win over what was stored meanwhile, and is offered beside it', async () => {
    await typed(345);
    const later = form({ massG: 330 });
    expect(later.value.value.massG).toBe(330);
    expect(later.dirty.value).toBe(false);
    expect(later.older.value?.value.massG).toBe(345);
    later.takeUp();
    expect(later.value.value.massG).toBe(345);
    expect(later.dirty.value).toBe(true);
  });

  it('is told when what it began with changes while it is typed', async () => {
    const draft = await typed(345);
    draft.restart({ massG: 330 });
    expect(draft.value.value.massG).toBe(330);
    expect(draft.older.value?.value.massG).toBe(345);
    draft.forgetOlder();
    expect(form({ massG: 330 }).older.value).toBeUndefined();
  });

  it('follows where nothing was typed, and is nothing where what was typed is what is stored', async () => {
    const draft = form();
    draft.restart({ massG: 330 });
    expect(draft.value.value.massG).toBe(330);
    expect(draft.older.value).toBeUndefined();
    const back = await typed(345);
    back.value.value.massG = 320;
    await nextTick();
    expect(localStorage.length).toBe(0);
  });
});
