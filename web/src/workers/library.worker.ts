import { expose, transfer } from 'comlink';
import { SPEC_KEYS, reach, type FrameShape, type KnownSpecs, type OwnNumbers, type Specs } from '@kevro/core';
import { sentence, type BroughtSetups } from '@kevro/contract';

/** The whole library of a sport held against a frame, part by part: where each setup lies, and whether the frame can get there. */
export interface LibraryRequest {
  measurementId: string;
  shape: FrameShape;
  specs: Specs;
  /** What the shop takes a hand to notice. */
  own?: OwnNumbers | undefined;
}
/** Columns of one part; a value that is not known is NaN. */
export interface LibraryPart {
  ids: string[];
  massG: Float64Array;
  balanceCm: Float64Array;
  distanceSteps: Float64Array;
  reachable: Uint8Array;
  /** The least distance that there can be, and the grams for it. */
  leftSteps: Float64Array;
  addedG: Float64Array;
}

const PART = 4000;
const column = (values: readonly (number | null | undefined)[]): Float64Array =>
  Float64Array.from(values, (value) => value ?? Number.NaN);

async function read(
  { measurementId, shape, specs, own }: LibraryRequest,
  onPart: (part: LibraryPart, total: number) => void | Promise<void>,
): Promise<void> {
  let after = '';
  for (;;) {
    const query = new URLSearchParams({ after, limit: String(PART) }).toString();
    const response = await fetch(
      `/api/v1/measurements/${encodeURIComponent(measurementId)}/brought-setups?${query}`,
    );
    if (!response.ok) throw new Error(sentence('cannot-reach-server'));
    const found = (await response.json()) as BroughtSetups;
    const setups = found.ids.map((id, i) => {
      const known: KnownSpecs = {};
      for (const key of SPEC_KEYS) {
        const value = found[key][i];
        if (value !== null && value !== undefined) known[key] = value;
      }
      return { id, specs: known };
    });
    const reached = reach(shape, specs, setups, own);
    const part: LibraryPart = {
      ids: found.ids,
      massG: column(found.massG),
      balanceCm: column(found.balanceCm),
      distanceSteps: column(found.distanceSteps),
      reachable: Uint8Array.from(reached, (r) => (r.reachable ? 1 : 0)),
      leftSteps: column(reached.map((r) => r.distanceSteps)),
      addedG: column(reached.map((r) => r.addedG)),
    };
    const { ids: _, ...columns } = part;
    // The answer takes another way than the parts: it waits until each has arrived.
    await onPart(
      transfer(
        part,
        Object.values(columns).map((values) => values.buffer),
      ),
      found.total,
    );
    if (found.next === null) return;
    after = found.next;
  }
}

const library = { read };
export type LibraryWorker = typeof library;
expose(library);
