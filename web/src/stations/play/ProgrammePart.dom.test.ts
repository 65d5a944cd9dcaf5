// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, expect, it, vi } from 'vitest';
import { fittingView, plan } from '../../../test/fixtures';
import { useFitting } from '../../stores/fitting';
import ProgrammePart from './ProgrammePart.vue';

afterEach(() => vi.unstubAllGlobals());

it('without a programme says what it works out, what it could not, and only then that there is none', async () => {
  const answers: ((answer: Response) => void)[] = [];
  vi.stubGlobal('fetch', (url: string) =>
    url.includes('/answer')
      ? new Promise<Response>((done) => answers.push(done))
      : Promise.reject(new Error(url)),
  );
  setActivePinia(createPinia());
  useFitting().view = fittingView(plan([]));
  const wrapper = mount(ProgrammePart, { props: { ending: false }, global: { stubs: { VBtn: true } } });
  await flushPromises();
  expect(wrapper.text()).toContain('Working out the next step…');
  expect(wrapper.text()).not.toContain('No programme yet');

  const problem = { code: 'internal', title: 'It broke', detail: 'It broke.', errors: [] };
  answers.shift()?.(
    Response.json(problem, { status: 500, headers: { 'content-type': 'application/problem+json' } }),
  );
  await flushPromises();
  expect(wrapper.get('[role=alert]').text()).toContain('Try again');
  expect(wrapper.text()).not.toContain('No programme yet');

  await wrapper.get('[role=alert] button').trigger('click');
  answers.shift()?.(Response.json({}));
  await flushPromises();
  expect(wrapper.text()).toContain('No programme yet');
  wrapper.unmount();
});
