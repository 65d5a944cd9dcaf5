import { ref } from 'vue';
import { changePieces, dragTo, nudge, partNamed, type HoopPlace, type Placement } from '@kevro/core';
import { useKeys } from '../../app/keys';
import { useFitting } from '../../stores/fitting';
import type { useHistory } from './history';
import type { Standing } from './standing';

/** How far an arrow key moves a weight, cm; with Shift the finer one. */
export const STEP_CM = 0.5;
export const FINE_CM = 0.1;

/** Changing the standing plan by hand: choose a weight, drag or nudge it, one piece more or less, undo and redo. */
export function useByHand(history: ReturnType<typeof useHistory<Standing>>) {
  const fitting = useFitting();
  /** The chosen placement, by its id: it stays chosen when others come and go. */
  const selected = ref<string>();
  let pieces = 0;

  const named = (id: string | undefined): Placement | undefined =>
    history.now.value.placements.find((p) => p.id === id);

  function edit(id: string, next: Placement | undefined, mark: string): void {
    const { placements, ...rest } = history.now.value;
    if (!next) selected.value = undefined;
    history.change(
      {
        ...rest,
        byHand: true,
        placements: placements.flatMap((p) => (p.id === id ? (next ?? []) : p)),
      },
      mark,
    );
  }
  function withSelected(change: (placement: Placement) => Placement | undefined, mark: string): void {
    const placement = named(selected.value);
    if (placement) edit(placement.id, change(placement), `${mark} ${placement.id}`);
  }
  function move(byCm: number): void {
    const { frame } = fitting;
    if (frame) withSelected((p) => nudge(frame, p, byCm), 'nudge');
  }
  function piece(by: 1 | -1): void {
    const { frame } = fitting;
    const placement = named(selected.value);
    const part = placement && partNamed(history.now.value.parts, placement.partId);
    // Each piece is a step of its own to undo.
    if (frame && part) withSelected((p) => changePieces(frame, p, part, by), `piece ${++pieces}`);
  }
  const layOn = (hoop: HoopPlace): void =>
    withSelected((p) => (p.path === 'rim' ? { ...p, hoop } : p), 'hoop');
  function drag(id: string, xCm: number, yCm: number, last: boolean): void {
    const placement = named(id);
    if (placement && fitting.frame) edit(id, dragTo(fitting.frame, placement, { xCm, yCm }), `drag ${id}`);
    if (last) history.rest();
  }

  const arrow = (sign: 1 | -1) => (event: KeyboardEvent) => move(sign * (event.shiftKey ? FINE_CM : STEP_CM));
  useKeys({
    ArrowRight: arrow(1),
    ArrowLeft: arrow(-1),
    '+': () => piece(1),
    '-': () => piece(-1),
    z: history.undo,
    'Ctrl+z': history.undo,
    'Shift+z': history.redo,
    'Ctrl+Shift+z': history.redo,
  });
  return { selected, drag, piece, move, layOn };
}
