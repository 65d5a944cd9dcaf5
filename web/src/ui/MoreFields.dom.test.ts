import { mount } from '@vue/test-utils';
import { expect, it } from 'vitest';
import MoreFields from './MoreFields.vue';

const folded = (open: boolean) =>
  mount(MoreFields, { props: { title: 'Notes', open }, slots: { default: '<input />' } });
async function toggle(wrapper: ReturnType<typeof folded>, open: boolean): Promise<void> {
  const details = wrapper.get('details');
  details.element.open = open;
  await details.trigger('toggle');
}

it('fields behind a line are made when it is opened first, and stay with what was typed', async () => {
  const wrapper = folded(false);
  expect(wrapper.find('input').exists()).toBe(false);
  await toggle(wrapper, true);
  await wrapper.get('input').setValue('for hot courts');
  await toggle(wrapper, false);
  expect(wrapper.get('input').element.value).toBe('for hot courts');
});

it('fields that hold something are there at once', async () => {
  expect(folded(true).find('input').exists()).toBe(true);
  const wrapper = folded(false);
  await wrapper.setProps({ open: true });
  expect(wrapper.find('input').exists()).toBe(true);
});
