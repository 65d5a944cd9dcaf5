import { computed, watch } from 'vue';
import {
  SPEC_KEYS,
  aimProblems,
  partWay,
  sportData,
  type Aim,
  type Priority,
  type SpecKey,
} from '@kevro/core';
import { fieldError, sentence } from '@kevro/contract';
import { useDraft } from '../../parts/draft';
import { numberOf, type Typed } from '../../parts/typed';
import { useFitting } from '../../stores/fitting';
import { useLibrary } from '../../stores/library';

export type Way = 'copy' | 'part-way' | 'by-hand';
interface Row {
  value: Typed;
  tolerance: Typed;
  priority: Priority;
}
interface Draft {
  way: Way;
  setupId: string | null;
  share: number;
  rows: Record<SpecKey, Row>;
}

/**
 * The aim of the open fitting as it is typed: from the one that is set, else from a setup.
 * @param setupAsked the setup to start from; that set beside the frame first if left out
 */
export function useAimDraft(setupAsked: string | undefined) {
  const fitting = useFitting();
  const library = useLibrary();
  /** The station stands on a frame: without one the page says what is missing. */
  const shape = computed(() => fitting.record?.shape ?? { sport: 'tennis' as const, lengthCm: 0 });
  const sport = computed(() => sportData(shape.value.sport));
  const lengthCm = computed(() => shape.value.lengthCm);
  const rowsOf = (aim: Aim): Record<SpecKey, Row> =>
    Object.fromEntries(
      SPEC_KEYS.map((key): [SpecKey, Row] => {
        const target = aim[key];
        return [
          key,
          {
            value: target?.value ?? null,
            tolerance: target?.tolerance ?? sport.value.tolerance[key],
            priority: target?.priority ?? (target ? 'want' : 'free'),
          },
        ];
      }),
    ) as Record<SpecKey, Row>;

  const startSetup = setupAsked ?? fitting.references[0] ?? null;
  const startDraft = (): Draft => {
    const { aim } = fitting;
    if (aim) return { way: aim.way, setupId: aim.setupId, share: 50, rows: rowsOf(aim.target) };
    return {
      way: startSetup ? 'copy' : 'by-hand',
      setupId: startSetup,
      share: 50,
      rows: rowsOf(fitting.before ? partWay(sport.value, fitting.before, {}, 0) : {}),
    };
  };
  const kept = useDraft(startDraft);
  kept.begin(`aim ${fitting.round?.id ?? ''}`, startDraft());
  const draft = kept.value;
  // An aim that was set meanwhile, here or in another tab, is what stands; what was typed is offered beside it.
  watch([() => fitting.aim?.id, () => fitting.measurement?.id], () => kept.restart(startDraft()));

  const setup = computed(() => library.named(draft.value.setupId));

  /** The numbers of the chosen way. */
  function taken(): Record<SpecKey, Row> | undefined {
    const own = fitting.before;
    if (!own || draft.value.way === 'by-hand' || !setup.value) return undefined;
    const share = draft.value.way === 'copy' ? 1 : draft.value.share / 100;
    return rowsOf(partWay(sport.value, own, setup.value.specs, share));
  }
  function choose(change: Partial<Pick<Draft, 'way' | 'setupId' | 'share'>>): void {
    Object.assign(draft.value, change);
    draft.value.rows = taken() ?? draft.value.rows;
  }
  // The setup may still be on its way from the server: its numbers are taken when it is there.
  watch(
    () => setup.value?.setup.id,
    () => {
      const rows = taken();
      if (!fitting.aim && rows && !kept.dirty.value) kept.restart({ ...draft.value, rows });
    },
    { immediate: true },
  );
  /** What is typed is aimed at, also where it was left free. */
  function typedByHand(key: SpecKey, typed: Typed): void {
    const row = draft.value.rows[key];
    draft.value.way = 'by-hand';
    row.value = typed;
    if (row.priority === 'free' && typed !== null) row.priority = 'want';
  }

  const read = computed(() => {
    const aim: Aim = {};
    const errors: Record<string, string> = {};
    for (const key of SPEC_KEYS) {
      const row = draft.value.rows[key];
      const empty = row.value === null;
      if (empty && row.priority === 'free') continue;
      const value = numberOf(row.value);
      const tolerance = numberOf(row.tolerance);
      if (value === undefined) errors[`${key}.value`] = sentence(empty ? 'missing' : 'not-a-number');
      if (tolerance === undefined)
        errors[`${key}.tolerance`] = sentence(row.tolerance === null ? 'missing' : 'not-a-number');
      if (value !== undefined && tolerance !== undefined)
        aim[key] = { value, tolerance, priority: row.priority };
    }
    for (const problem of fitting.before ? aimProblems(aim, lengthCm.value, fitting.before) : []) {
      errors[problem.path.replace('target.', '')] ??= fieldError(problem).message;
    }
    return { aim, errors };
  });

  return { kept, draft, shape, setup, choose, typedByHand, read };
}
