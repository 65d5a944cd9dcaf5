import { mount } from '@vue/test-utils';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, h, nextTick, ref } from 'vue';
import { isNumber, tagIn, useBurst, useTypingDevices, watchBursts } from './bursts';

/** Keys with the times at which they were pressed. */
function keys(target: Element, text: string, gapMs: number, from = 1000): number {
  let at = from;
  const press = (key: string): boolean => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    Object.defineProperty(event, 'timeStamp', { value: (at += gapMs) });
    target.dispatchEvent(event);
    return !event.defaultPrevented;
  };
  for (const key of text) {
    // The browser types what nobody prevents.
    if (press(key) && target instanceof HTMLInputElement && !target.readOnly) {
      target.value += key;
      target.dispatchEvent(new Event('input', { bubbles: true }));
    }
  }
  press('Enter');
  return at;
}

const shortcuts: string[] = [];
function page({ takes = (_: string): boolean => true, otherwise = (_: string): boolean => true } = {}) {
  const taken: string[] = [];
  const left: string[] = [];
  const model = ref('');
  const wrapper = mount(
    defineComponent({
      setup() {
        useBurst((text) => {
          if (!takes(text)) return false;
          taken.push(text);
          return true;
        });
        watchBursts((text) => {
          if (!otherwise(text)) return false;
          left.push(text);
          return true;
        });
        return () =>
          h('div', [
            h('button', 'one'),
            h('input', {
              value: model.value,
              onInput: (e: InputEvent) => (model.value = (e.target as HTMLInputElement).value),
            }),
            h('input', { class: 'number', inputmode: 'decimal' }),
          ]);
      },
    }),
    { attachTo: document.body },
  );
  window.addEventListener('keydown', note);
  const [text, number] = wrapper.findAll('input').map(({ element }) => element);
  const button = wrapper.find('button').element;
  return { wrapper, taken, left, model, text, number, button };
}
const note = (event: KeyboardEvent): void => {
  if (!event.defaultPrevented) shortcuts.push(event.key);
};
let open: ReturnType<typeof page> | undefined;
const show = (...with_: Parameters<typeof page>) => (open = page(...with_));
afterEach(() => {
  open?.wrapper.unmount();
  window.removeEventListener('keydown', note);
  shortcuts.length = 0;
  useTypingDevices().value = true;
});

describe('a burst of keys that ends with Enter', () => {
  it('is a device’s, and presses no key of the page', () => {
    const { taken, button } = show();
    keys(button, 'MU-040', 8);
    expect(taken).toEqual(['MU-040']);
    expect(shortcuts).toEqual([]);
  });

  it('goes to nobody’s half-typed field, which stays as it was', () => {
    const { taken, text, model } = show();
    if (!text) throw new Error('no field');
    text.value = 'slow';
    text.dispatchEvent(new Event('input'));
    keys(text, '312.4', 10);
    expect(taken).toEqual(['312.4']);
    expect([text.value, model.value]).toEqual(['slow', 'slow']);
  });

  it('is typed into an empty field that somebody pointed at; a tag not into one for numbers', () => {
    const { taken, text, number } = show({ takes: (code) => !isNumber(code) && code !== 'note' });
    if (!text || !number) throw new Error('no field');
    keys(number, '312.4', 10);
    expect([number.value, taken]).toEqual(['312.4', []]);
    number.value = '';
    keys(number, 'BD-040', 10);
    expect([number.value, taken]).toEqual(['', ['BD-040']]);
    keys(text, 'note', 10);
    expect(text.value).toBe('note');
  });

  it('goes on to what is there for all, where nothing on the page takes it', () => {
    const { left, button } = show({ takes: () => false });
    keys(button, 'BD-040', 8);
    expect(left).toEqual(['BD-040']);
  });
});

describe('a person', () => {
  it('types, and each key does what it did', () => {
    const { taken, button, text } = show();
    keys(button, 'mu4', 90);
    keys(text ?? button, 'hello', 60);
    expect(taken).toEqual([]);
    expect(shortcuts.filter((key) => key !== 'Enter').slice(0, 2)).toEqual(['m', 'u']);
    expect(text?.value).toBe('hello');
  });

  it('has a single key let through at once after it could have been a device', async () => {
    vi.useFakeTimers();
    const { button } = show();
    const event = new KeyboardEvent('keydown', { key: 'm', bubbles: true, cancelable: true });
    button.dispatchEvent(event);
    expect(shortcuts).toEqual([]);
    await vi.advanceTimersByTimeAsync(60);
    expect(shortcuts).toEqual(['m']);
    vi.useRealTimers();
  });

  it('may press two keys at once, and a quick Enter', () => {
    const { taken, button } = show();
    keys(button, 'ab', 5);
    expect(taken).toEqual([]);
    expect(shortcuts).toEqual(['a', 'b', 'Enter']);
  });

  it('can say that no device types here', async () => {
    const { taken, button } = show();
    useTypingDevices().value = false;
    await nextTick();
    keys(button, 'BD-040', 8);
    expect(taken).toEqual([]);
    expect(shortcuts.join('')).toBe('BD-040Enter');
  });
});

it('knows a number and a tag', () => {
  for (const text of ['312.4', '312,4 g', '+ 11.02oz', '7']) expect(isNumber(text)).toBe(true);
  for (const text of ['BD-040', 'g 312', '', '12-7', 'http://10.0.0.5/tag/7'])
    expect(isNumber(text)).toBe(false);
  expect(tagIn('http://10.0.0.5:4780/tag/BD%20040')).toBe('BD 040');
  expect(tagIn('BD-040')).toBe('BD-040');
  expect(tagIn('http://10.0.0.5:4780/tag/%E0%A4%A')).toBe('%E0%A4%A');
});
