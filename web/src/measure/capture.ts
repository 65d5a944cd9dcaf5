import { computed, ref, type Ref } from 'vue';
import { nanoid } from 'nanoid';
import {
  byAnySpec,
  ALL_SPEC_KEYS,
  QUANTITIES,
  judge,
  sameDress,
  settleCapture,
  settleFrame,
  specProblems,
  typedReading,
  type Dress,
  type Judgement,
  type Purpose,
  type KnownSpecs,
  type Quantity,
  type Reading,
  type SpecUncertainty,
} from '@kevro/core';
import {
  fieldError,
  sentence,
  type CaptureRecord,
  type FramePage,
  type FrameRecord,
  type NewReading,
} from '@kevro/contract';
import { Refused, api } from '../api/client';
import { sendOrKeep, sendWaiting } from '../api/waiting';
import { MEANS_WORDS, QUANTITY_NAMES, useQuantities } from './quantities';
import { withWaiting } from './waiting-readings';
import { useSaved } from '../stores/saved';
import { dressProblem, dressWords } from '../words/dress';
import { useDraft } from '../forms/draft';
import { numberOf, type Typed } from '../ui/typed';
import { useTypedAxis } from '../forms/typed-axis';

const nothingTyped = (): Record<Quantity, Typed> => ({
  ...byAnySpec(() => null),
  leftRightG: null,
});

/** The readings of a frame that are not stored yet: kept by the server reading by reading, and what is typed but not entered in this browser. */
export function useCapture(frame: FrameRecord) {
  const saved = useSaved();
  const settled = settleFrame(frame.shape);
  const { show, unit } = useQuantities();
  /** As the server has it. */
  const stands = ref<CaptureRecord>();
  /** With what was read since the server went away. */
  const capture = computed(() => stands.value && withWaiting(settled, stands.value));
  const page = ref<FramePage>();
  const failure = ref('');
  const busy = ref(false);
  const draft = useDraft(nothingTyped);
  draft.begin(`readings ${frame.id}`, nothingTyped());
  const typed = draft.value;
  const left = ref(new Set<Quantity>());
  /** What is typed off a machine of the shop: about which axis it reads is asked once. */
  const typedAxis = useTypedAxis(
    () => settled.sport,
    () => 'typed here',
  );

  /** Another page stored these readings or began anew: what stands now is shown beside the sentence that says so. */
  async function showWhatStands(): Promise<void> {
    stands.value = await api('capture', { id: frame.id }).catch(() => stands.value);
  }
  let before: Promise<unknown> = Promise.resolve();
  let asked = 0;
  /** As the server answered last. */
  let known: CaptureRecord | undefined;
  /**
   * Does something that answers with the capture; what goes wrong is said and nothing typed is lost. One after the other: of two that are sent at once, the server
   * may do the later first, and the answer that is shown would lack what the other did.
   */
  function change(work: () => Promise<CaptureRecord | undefined>): Promise<boolean> {
    const own = ++asked;
    const done = before.then(() => changeNow(work, own));
    before = done;
    return done;
  }
  /** Where more was asked since, what was shown at once for that stays until its own answer comes. */
  async function changeNow(work: () => Promise<CaptureRecord | undefined>, own: number): Promise<boolean> {
    try {
      known = (await work()) ?? known;
      failure.value = '';
      return true;
    } catch (error) {
      if (error instanceof Refused && error.code === 'capture-gone') void showWhatStands();
      failure.value =
        error instanceof Refused
          ? (error.errors[0]?.message ?? error.message)
          : error instanceof Error
            ? error.message
            : String(error);
      return false;
    } finally {
      // Where this failed, what came before it was done all the same.
      if (own === asked && known) stands.value = known;
    }
  }
  const load = (): Promise<boolean> =>
    change(async () => {
      const [now, whole] = await Promise.all([
        api('capture', { id: frame.id }),
        api('frame', { id: frame.id }),
      ]);
      page.value = whole;
      return now;
    });
  function reload(): Promise<boolean> {
    return change(() => api('capture', { id: frame.id }));
  }

  const typedValue = (quantity: Quantity): number | undefined => numberOf(typed.value[quantity]);
  const isTyped = (quantity: Quantity): boolean => (typed.value[quantity] ?? null) !== null;
  const started = computed(() => QUANTITIES.some(isTyped));

  /** What is wrong with what is typed, for each field. */
  const errors = computed<Partial<Record<Quantity, string>>>(() => {
    const found: Partial<Record<Quantity, string>> = {};
    for (const quantity of QUANTITIES) {
      if (!isTyped(quantity)) continue;
      const value = typedValue(quantity);
      if (value === undefined) found[quantity] = sentence('not-a-number');
      else if ((quantity === 'swingWeight' || quantity === 'twistWeight') && !(value > 0)) {
        found[quantity] = sentence('not-positive');
      } else if (quantity !== 'leftRightG') {
        // Alone: beside values that go with any. How values go together is judged with all of them.
        const { axisCm } = settled.sport;
        const beside = { massG: 1e-3, balanceCm: axisCm, swingWeight: 1e5, axisCm };
        const [problem] = specProblems({ ...beside, [quantity]: value }, settled.lengthCm, '');
        if (problem) found[quantity] = fieldError(problem).message;
      }
    }
    return found;
  });
  const type = (quantity: Quantity, now: Typed): void => {
    typed.value[quantity] = now;
  };
  const errorAt = (quantity: Quantity): string | undefined =>
    left.value.has(quantity) ? errors.value[quantity] : undefined;

  /** What is typed counts in the preview as it will when it is entered. */
  const pending = computed<Reading[]>(() =>
    QUANTITIES.flatMap((quantity) => {
      const value = typedValue(quantity);
      if (value === undefined || errors.value[quantity]) return [];
      const read = typedReading(settled.sport, quantity, value, 'typed', typedAxis.axisCm.value);
      return [{ ...read, id: `typed ${quantity}`, setAside: false }];
    }),
  );
  const found = computed(() =>
    settleCapture(settled, [...(capture.value?.readings ?? []), ...pending.value]),
  );
  const anything = computed(() => started.value || (capture.value?.readings.length ?? 0) > 0);

  const specs = computed<KnownSpecs>(() => pick((s) => s.value));
  const uncertainty = computed<KnownSpecs>(() => pick((s) => s.uncertainty));
  function pick(of: (settled: { value: number; uncertainty: number }) => number): KnownSpecs {
    const known: KnownSpecs = {};
    for (const key of ALL_SPEC_KEYS) {
      const one = found.value.settled[key];
      if (one) known[key] = of(one);
    }
    return known;
  }
  const fullUncertainty = computed<SpecUncertainty>(() => ({
    ...settled.sport.typicalReading,
    ...uncertainty.value,
  }));
  const estimated = computed(() => QUANTITIES.filter((q) => found.value.settled[q]?.estimated));

  const judgements = computed<Judgement[]>(() => {
    const dress = capture.value?.dress;
    if (!dress || !anything.value) return [];
    const nominal = page.value?.frame.nominal ?? undefined;
    const last = page.value?.measurements.find((m) => m.counts && sameDress(m.dress, dress));
    return judge(
      frame.shape,
      { specs: specs.value, uncertainty: uncertainty.value, estimated: estimated.value, dress },
      { ...(nominal ? { nominal } : {}), ...(last ? { last } : {}) },
    );
  });

  /** The axis that goes with a typed swing weight. */
  const aboutOf = (quantity: Quantity): { axisCm?: number } => {
    const axisCm = typedAxis.axisCm.value;
    return quantity === 'swingWeight' && axisCm !== undefined ? { axisCm } : {};
  };
  /** Where others stand by now than these, nothing is added to those. */
  const ofShown = (): { captureId?: string } => (stands.value ? { captureId: stands.value.id } : {});
  /** A reading as it is said while it waits for the server. */
  const said = (body: NewReading): string => {
    const { quantity, means } = body;
    const value =
      'value' in body
        ? `${show(quantity, body.value, frame.shape, 1)} ${unit(quantity)}`
        : MEANS_WORDS[means];
    return `${QUANTITY_NAMES[quantity]} ${value}`;
  };
  const addReading = (body: NewReading): Promise<boolean> =>
    change(() =>
      sendOrKeep('addReading', {
        id: frame.id,
        body: { ...body, ...ofShown() },
        what: `${frame.tag}: ${said(body)}`,
      }),
    );

  /** Enters what is typed for a quantity as a reading. The key belongs to the value, so that sent twice it counts once. */
  const keys = new Map<string, string>();
  async function enter(quantity: Quantity): Promise<boolean> {
    left.value.add(quantity);
    const value = typedValue(quantity);
    if (value === undefined || errors.value[quantity]) return false;
    const name = `${quantity} ${value}`;
    const key = keys.get(name) ?? nanoid();
    keys.set(name, key);
    if (!(await addReading({ means: 'typed', key, quantity, value, ...aboutOf(quantity) }))) return false;
    keys.delete(name);
    // What was typed meanwhile stays.
    if (typed.value[quantity] === value) typed.value[quantity] = null;
    left.value.delete(quantity);
    return true;
  }

  const isKnown = (quantity: Quantity): boolean =>
    Boolean(found.value.settled[quantity]) || (isTyped(quantity) && !errors.value[quantity]);
  /** Weight and balance are known and the swing weight is not: it can be estimated from them. */
  const canEstimate = computed(
    () =>
      isKnown('massG') && isKnown('balanceCm') && !found.value.settled.swingWeight && !isTyped('swingWeight'),
  );
  /** Enters what it is estimated from, then the estimate; nothing is stored meanwhile. */
  async function estimateSwingWeight(): Promise<void> {
    if (busy.value) return;
    busy.value = true;
    try {
      for (const quantity of ['massG', 'balanceCm'] as const)
        if (isTyped(quantity) && !(await enter(quantity))) return;
      await addReading({ means: 'estimate', key: nanoid(), quantity: 'swingWeight' });
    } finally {
      busy.value = false;
    }
  }

  const setAside = (readingId: string, aside: boolean): Promise<boolean> =>
    change(() =>
      sendOrKeep('setAside', {
        id: frame.id,
        body: { readingId, setAside: aside },
        what: `${frame.tag}: a reading ${aside ? 'set aside' : 'counted again'}`,
      }),
    );
  function setDress(dress: Dress): Promise<boolean> {
    // Shown at once, so that a second click counts from it.
    if (stands.value) stands.value = { ...stands.value, dress };
    // What is no weight yet stays in its field with its sentence; the readings keep the dress that was said last.
    if (dressProblem(dress)) return Promise.resolve(false);
    return change(() =>
      sendOrKeep('setDress', {
        id: frame.id,
        body: { dress, ...ofShown() },
        what: `${frame.tag}: on it ${dressWords(dress, settled.sport.sport)}`,
      }),
    );
  }
  const drop = (): Promise<boolean> => {
    typed.value = nothingTyped();
    left.value.clear();
    return change(() => api('dropCapture', { id: frame.id, body: { captureId: capture.value?.id ?? '' } }));
  };

  /** Enters what is typed and stores all readings as one measurement. @returns whether it is stored */
  async function store(takenFor: {
    purpose: Purpose;
    roundId: string | null;
    step: string | null;
  }): Promise<boolean> {
    for (const quantity of QUANTITIES) if (isTyped(quantity)) left.value.add(quantity);
    if (busy.value || Object.keys(errors.value).length > 0) return false;
    busy.value = true;
    try {
      // Who types and stores before the page has read what stands is heard all the same.
      await before;
      await sendWaiting();
      if (!capture.value) return false;
      const wrong = dressProblem(capture.value.dress);
      if (wrong) {
        failure.value = `The weight of the strings: ${wrong}`;
        return false;
      }
      for (const quantity of QUANTITIES) {
        if (isTyped(quantity) && !(await enter(quantity))) return false;
      }
      const body = { captureId: capture.value.id, ...takenFor };
      let stored = false;
      await change(async () => {
        await api('storeCapture', { id: frame.id, body });
        stored = true;
        saved.stored();
        return api('capture', { id: frame.id });
      });
      if (stored) await load();
      return stored;
    } finally {
      busy.value = false;
    }
  }

  return {
    frame,
    settledFrame: settled,
    capture,
    page: page as Ref<FramePage | undefined>,
    failure,
    busy,
    typed,
    left,
    started,
    typedAxis,
    aboutOf,
    type,
    errors,
    errorAt,
    found,
    anything,
    specs,
    uncertainty: fullUncertainty,
    estimated,
    canEstimate,
    estimateSwingWeight,
    judgements,
    load,
    reload,
    addReading,
    enter,
    setAside,
    setDress,
    drop,
    store,
  };
}

export type CaptureBench = ReturnType<typeof useCapture>;
