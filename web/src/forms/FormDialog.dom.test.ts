// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { expect, it } from 'vitest';
import { nextTick } from 'vue';
import { Refused } from '../api/client';
import { vuetify } from '../ui/theme';
import FormDialog from './FormDialog.vue';

/** A form whose answers come as the test says, and the keys that it was sent under. */
async function form(answers: (Error | undefined)[]) {
  setActivePinia(createPinia());
  const keys: string[] = [];
  const submit = (key: string): Promise<unknown> => {
    keys.push(key);
    const answer = answers.shift();
    return answer ? Promise.reject(answer) : Promise.resolve({});
  };
  const wrapper = mount(FormDialog, {
    props: { modelValue: true, title: 'Add a player', submit },
    global: { plugins: [vuetify] },
  });
  await nextTick();
  const send = async (): Promise<void> => {
    await (wrapper.vm as unknown as { send: () => Promise<void> }).send();
    await nextTick();
  };
  const reopen = async (): Promise<void> => {
    await wrapper.setProps({ modelValue: false });
    await wrapper.setProps({ modelValue: true });
  };
  return { keys, send, reopen };
}
const refused = (code: 'cannot-reach-server' | 'missing' | 'stored-already') =>
  new Refused(code, 'a sentence');

it('is sent under one key from its opening on, however often the answer is lost or something is missing', async () => {
  const { keys, send } = await form([refused('cannot-reach-server'), refused('missing'), undefined]);
  for (let i = 0; i < 3; i++) await send();
  expect(keys).toHaveLength(3);
  expect(new Set(keys).size).toBe(1);
  expect(keys[0]?.length).toBeGreaterThanOrEqual(8);
});

it('opened again it is another act', async () => {
  const { keys, send, reopen } = await form([undefined, undefined]);
  await send();
  await reopen();
  await send();
  expect(new Set(keys).size).toBe(2);
});

it('goes on under another key once the server says that the first was stored with other content', async () => {
  const { keys, send } = await form([refused('cannot-reach-server'), refused('stored-already'), undefined]);
  for (let i = 0; i < 3; i++) await send();
  expect(keys[0]).toBe(keys[1]);
  expect(keys[2]).not.toBe(keys[1]);
});
