import { ref } from 'vue';
import { changePieces, dragTo, nudge, type Placement } from '@kevro/core';
import { useKeys } from '../../app/keys';
import { useFitting } from '../../stores/fitting';
import type { useHistory } from './history';
import type { Standing } from './standing';

/** How far an arrow key moves a weight, cm; with Shift the finer one. */
const STEP_CM = 0.5;
const FINE_CM = 0.1;

/** Changing the standing plan by hand: choose a weight, drag or nudge it, one piece more or less, undo and redo. */
export function useByHand(history: ReturnType<typeof useHistory<Standing>>) {
  const fitting = useFitting();
  const selected = ref<number>();
  let pieces = 0;

  function edit(index: number, next: Placement | undefined, mark: string): void {
    const { placements, ...rest } = history.now.value;
    const list = [...placements];
    if (next) list[index] = next;
    else {
      list.splice(index, 1);
      selected.value = undefined;
    }
    history.change({ ...rest, byHand: true, placements: list }, mark);
  }
  function withSelected(change: (placement: Placement) => Placement | undefined, mark: string): void {
    const index = selected.value;
    const placement = index === undefined ? undefined : history.now.value.placements[index];
    if (placement && index !== undefined) edit(index, change(placement), `${mark} ${index}`);
  }
  function move(byCm: number): void {
    const { frame } = fitting;
    if (frame) withSelected((p) => nudge(frame, p, byCm), 'nudge');
  }
  function piece(by: 1 | -1): void {
    const { frame } = fitting;
    const { materials } = history.now.value;
    // Each piece is a step of its own to undo.
    if (frame && materials) withSelected((p) => changePieces(frame, p, materials, by), `piece ${++pieces}`);
  }
  function drag(index: number, xCm: number, yCm: number, last: boolean): void {
    const placement = history.now.value.placements[index];
    if (placement && fitting.frame)
      edit(index, dragTo(fitting.frame, placement, { xCm, yCm }), `drag ${index}`);
    if (last) history.rest();
  }

  const arrow = (sign: 1 | -1) => (event: KeyboardEvent) => move(sign * (event.shiftKey ? FINE_CM : STEP_CM));
  useKeys({
    ArrowRight: arrow(1),
    ArrowLeft: arrow(-1),
    '+': () => piece(1),
    '-': () => piece(-1),
    z: history.undo,
    'Shift+z': history.redo,
  });
  return { selected, drag, piece, forward: () => move(STEP_CM), back: () => move(-STEP_CM) };
}
