import { describe, expect, it } from 'vitest';
import { useHistory } from './history';

describe('undo and redo', () => {
  it('goes back and forth, and drops what was undone when something new is done', () => {
    const h = useHistory('a');
    h.change('b');
    h.change('c');
    h.undo();
    expect(h.now.value).toBe('b');
    h.redo();
    expect(h.now.value).toBe('c');
    h.undo();
    h.change('d');
    expect(h.canRedo.value).toBe(false);
    h.undo();
    h.undo();
    h.undo();
    expect(h.now.value).toBe('a');
  });

  it('takes a drag as one step', () => {
    const h = useHistory(0);
    for (const step of [1, 2, 3]) h.change(step, 'drag 0');
    h.rest();
    h.change(4, 'drag 0');
    h.undo();
    expect(h.now.value).toBe(3);
    h.undo();
    expect(h.now.value).toBe(0);
  });

  it('starts anew', () => {
    const h = useHistory(1);
    h.change(2);
    h.restart(9);
    expect([h.now.value, h.canUndo.value]).toEqual([9, false]);
  });
});
