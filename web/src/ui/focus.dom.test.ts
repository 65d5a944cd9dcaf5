// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { afterEach, expect, it } from 'vitest';
import { nextTick } from 'vue';
import MoreFields from './MoreFields.vue';
import { focusWrong, vFirst } from './focus';

const frame = (): Promise<unknown> => new Promise((done) => requestAnimationFrame(done));
const form = (template: string) =>
  mount({ template, directives: { first: vFirst } }, { attachTo: document.body });
let shown: ReturnType<typeof form> | undefined;
const idOfFocus = (): string => document.activeElement?.id ?? '';
afterEach(() => shown?.unmount());

it('a field has the focus as soon as it is there, and again where a heading or a dialog took it', async () => {
  shown = form('<h1 id="heading" tabindex="-1">New</h1><div v-first><input id="field" /></div>');
  expect(idOfFocus()).toBe('field');
  document.getElementById('heading')?.focus();
  await frame();
  await frame();
  expect(idOfFocus()).toBe('field');
});

it('who has gone on to another field stays there', async () => {
  shown = form('<div v-first><input id="field" /></div><input id="other" />');
  document.getElementById('other')?.focus();
  await frame();
  await frame();
  expect(idOfFocus()).toBe('other');
});

it('who goes back to where they came from stays there too', async () => {
  const from = document.body.appendChild(document.createElement('button'));
  from.id = 'from';
  from.focus();
  shown = form('<div v-first><input id="field" /></div>');
  expect(idOfFocus()).toBe('field');
  from.focus();
  await frame();
  await frame();
  expect(idOfFocus()).toBe('from');
  from.remove();
});

it('a button of a form that comes while somebody types beside it leaves them there', async () => {
  shown = mount(
    {
      template:
        '<div role="dialog"><input id="typed" /><button v-if="done" id="next" v-first>Next</button></div>',
      directives: { first: vFirst },
      props: ['done'],
    },
    { attachTo: document.body },
  ) as ReturnType<typeof form>;
  document.getElementById('typed')?.focus();
  await shown.setProps({ done: true } as never);
  await nextTick();
  await frame();
  expect(idOfFocus()).toBe('typed');
});

it('one of several is chosen by a condition', () => {
  shown = form('<div v-for="i in 3" v-first="i === 2"><input :id="`field-${i}`" /></div>');
  expect(idOfFocus()).toBe('field-2');
});

it('what is wrong behind a line that nobody has opened is shown, and has the focus', async () => {
  const template =
    '<MoreFields title="More"><div class="v-input--error"><input id="wrong" /></div></MoreFields><MoreFields title="Notes"><input /></MoreFields>';
  shown = mount({ template, components: { MoreFields } }, { attachTo: document.body });
  expect(await focusWrong(shown.element.parentElement)).toBe(true);
  expect(idOfFocus()).toBe('wrong');
  expect([...document.querySelectorAll('details')].map(({ open }) => open)).toEqual([true, false]);
});

it('where nothing is wrong the focus stays', async () => {
  shown = form('<div><input id="right" /></div>');
  expect(await focusWrong(shown.element)).toBe(false);
  expect(await focusWrong(null)).toBe(false);
  expect(idOfFocus()).toBe('');
});
