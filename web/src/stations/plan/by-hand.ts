import { onBeforeUnmount, ref } from 'vue';
import {
  atClock,
  changePieces,
  dragAcross,
  newPiece,
  nudge,
  partNamed,
  withGrams,
  withLength,
  withSwap,
  type Frame,
  type HoopPlace,
  type Part,
  type Placement,
  type Swap,
  type ZoneName,
} from '@kevro/core';
import { useKeys } from '../../ui/keys';
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
  const partOf = (placement: Placement): Part | undefined =>
    partNamed(history.now.value.parts, placement.partId);

  /** Whether a weight is held: what is costly waits until it is let go. */
  const dragging = ref(false);
  let moved: { id: string; xCm: number; yCm: number } | undefined;
  let frameAsked = 0;
  function follow(): void {
    cancelAnimationFrame(frameAsked);
    frameAsked = 0;
    const to = moved;
    moved = undefined;
    const placement = named(to?.id);
    if (!to || !placement || !fitting.frame) return;
    edit(to.id, dragAcross(fitting.frame, placement, partOf(placement), to), `drag ${to.id}`);
  }
  /** However often the hand is heard, the weight follows once a frame. */
  function drag(id: string, xCm: number, yCm: number, last: boolean): void {
    moved = { id, xCm, yCm };
    dragging.value = !last;
    if (last) {
      follow();
      history.rest();
    } else frameAsked ||= requestAnimationFrame(follow);
  }
  onBeforeUnmount(() => cancelAnimationFrame(frameAsked));

  /** What is typed of the chosen piece: each is a step of its own to undo. */
  const typed =
    (change: (frame: Frame, p: Placement, part: Part | undefined, value: number) => Placement) =>
    (value: number): void => {
      const { frame } = fitting;
      if (frame) withSelected((p) => change(frame, p, partOf(p), value), `typed ${++pieces}`);
    };
  const grams = typed(withGrams);
  const span = typed(withLength);
  const clock = typed((frame, p, _, hour) => atClock(frame, p, hour));
  const takeOff = (): void => withSelected(() => undefined, `off ${++pieces}`);
  /** Puts the least piece of a part on a zone, and chooses it. */
  function add(zone: ZoneName, part: Part): void {
    const { frame } = fitting;
    const { placements, parts, ...rest } = history.now.value;
    let n = placements.length + 1;
    while (named(`h${n}`)) n++;
    const piece = frame && newPiece(frame, zone, part, `h${n}`);
    if (!piece) return;
    history.change({
      ...rest,
      byHand: true,
      placements: [...placements, piece],
      parts: parts.some(({ id }) => id === part.id) ? parts : [...parts, part],
    });
    selected.value = piece.id;
  }

  /** Changes a part of the dress for another, or leaves it as it is. */
  const swap = (what: Swap['what'], to: Swap | undefined): void =>
    history.change({ ...withSwap(history.now.value, what, to), byHand: true }, `swap ${what}`);

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
  return { selected, dragging, drag, piece, move, layOn, grams, span, clock, takeOff, add, swap };
}
