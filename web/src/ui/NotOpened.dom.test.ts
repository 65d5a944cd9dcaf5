// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { expect, it } from 'vitest';
import NotOpened from './NotOpened.vue';

it('says what could not be opened and why, tries again, and leads on', async () => {
  const wrapper = mount(NotOpened, {
    props: { what: 'season', why: 'There is nothing here by that name.' },
    global: {
      stubs: { VBtn: { props: ['to'], template: '<button :data-to="to"><slot /></button>' } },
    },
  });
  expect(wrapper.get('[role=alert]').text()).toContain('This season could not be opened');
  expect(wrapper.text()).toContain('There is nothing here by that name.');
  const [again, on] = wrapper.findAll('button');
  expect([on?.text(), on?.attributes('data-to')]).toEqual(['Go to Players', '/players']);
  await again?.trigger('click');
  expect(wrapper.emitted('again')).toHaveLength(1);
});
