import { computed, onScopeDispose, ref, shallowRef, type Ref } from 'vue';
import {
  Fault,
  curvesOn,
  figuresOf,
  markedOf,
  type Corners,
  type FrameShape,
  type OutlineRead,
  type PhotoAnswer,
  type PhotoTrouble,
  type SheetName,
} from '@kevro/core';
import type { OutlineWorker } from '../workers/outline.worker';
import OutlineWorkerFile from '../workers/outline.worker?worker';
import { useWorker } from '../workers/use-worker';
import { openPhoto, partAround, type OpenPhoto, type Part } from './photo';

/** How far the length on record may be from the photo's and still be taken for it, in standard uncertainties. */
const ALIKE = 2.5;

/** An outline on its way: from a photo, by what is found in it and what the fitter corrects, to what it comes to. */
export function useOutlining(shape: Ref<FrameShape | undefined>, thicknessCm: Ref<number>) {
  const { working, failure, ask, stop } = useWorker<OutlineWorker>(() => new OutlineWorkerFile());
  const opened = shallowRef<OpenPhoto>();
  const trouble = ref<PhotoTrouble | 'photo-unreadable'>();
  /** The part of the photo that is shown: it stays while something in it is dragged. */
  const part = shallowRef<Part>();
  const corners = shallowRef<Corners>();
  const read = shallowRef<OutlineRead>();
  /** The sheet, where the fitter says which it is. */
  const sheet = ref<SheetName>();
  const scalesToRecord = ref(true);
  let opening = 0;

  /** What comes of the outline as it is; nothing while it was dragged into none. */
  function ofOutline<T>(work: (on: OutlineRead, of: FrameShape) => T): T | undefined {
    if (!read.value || !shape.value) return undefined;
    try {
      return work(read.value, shape.value);
    } catch (error) {
      if (error instanceof Fault) return undefined;
      throw error;
    }
  }
  /** What the photo alone says. */
  const bySight = computed(() => ofOutline((on, { sport }) => figuresOf(on, sport)));
  const lengthIsAlike = computed(() => {
    const seen = bySight.value?.length;
    const known = shape.value?.lengthCm;
    return seen && known ? Math.abs(seen.value - known) < ALIKE * seen.uncertainty : false;
  });
  const found = computed(() =>
    scalesToRecord.value
      ? ofOutline((on, { sport, lengthCm }) => figuresOf(on, sport, lengthCm))
      : bySight.value,
  );
  const curves = computed(() => ofOutline((on, { sport }) => curvesOn(on, sport)));

  async function look(by: { corners?: Corners | undefined } = {}): Promise<void> {
    const [from, of] = [opened.value, shape.value];
    if (!from || !of) return;
    // Read once before, it is the fitter's to say whether it is scaled.
    const wasRead = read.value !== undefined;
    const given = {
      sport: of.sport,
      thicknessCm: thicknessCm.value,
      focal35Mm: from.focal35Mm,
      sheet: sheet.value,
      ...by,
    };
    await ask<PhotoAnswer>(
      async (worker) => worker.read(from.photo, given),
      (answer) => {
        const isRefused = 'trouble' in answer;
        trouble.value = isRefused ? answer.trouble : undefined;
        read.value = isRefused ? undefined : answer;
        corners.value = (isRefused ? answer.corners : answer.taken.corners) ?? by.corners;
        if (!isRefused && !wasRead) scalesToRecord.value = lengthIsAlike.value;
        if (!isRefused) {
          const { butt, sides } = markedOf(answer);
          part.value = partAround(from.photo, [...answer.taken.corners, butt, ...sides.flat()]);
        }
      },
    );
  }
  /** Opens a photo and reads it; one that was opened later wins. */
  async function open(file: Blob): Promise<void> {
    forget();
    const mine = opening;
    try {
      const now = await openPhoto(file);
      if (mine !== opening) {
        URL.revokeObjectURL(now.address);
        return;
      }
      opened.value = now;
      part.value = partAround(now.photo, []);
    } catch {
      if (mine === opening) trouble.value = 'photo-unreadable';
      return;
    }
    await look();
  }
  function forget(): void {
    opening++;
    stop();
    if (opened.value) URL.revokeObjectURL(opened.value.address);
    opened.value = trouble.value = corners.value = read.value = sheet.value = undefined;
  }
  /** Four corners in the middle, to be dragged where the sheet is. */
  function markCorners(): void {
    const { width = 0, height = 0 } = opened.value?.photo ?? {};
    const at = (x: number, y: number) => ({ x: x * width, y: y * height });
    corners.value = [at(0.35, 0.35), at(0.65, 0.35), at(0.65, 0.65), at(0.35, 0.65)];
    read.value = undefined;
  }
  onScopeDispose(forget);
  return {
    working,
    failure,
    opened,
    part,
    trouble,
    corners,
    read,
    sheet,
    found,
    bySight,
    lengthIsAlike,
    scalesToRecord,
    curves,
    open,
    look,
    forget,
    markCorners,
  };
}
