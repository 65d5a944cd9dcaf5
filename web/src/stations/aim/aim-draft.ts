import { computed, watch } from 'vue';
import {
  HALF_THE_WAY,
  SPEC_KEYS,
  aimFromComplaints,
  aimProblems,
  asWritten,
  guideBands,
  guideMiddle,
  isGrowing,
  judgedSport,
  partWay,
  proposeGuide,
  usualBuild,
  type Aim,
  asFinished,
  bringTo,
  sameDress,
  type Bother,
  type Dress,
  type GuideName,
  type HardToJudge,
  type KnownSpecs,
  type Priority,
  type SpecKey,
} from '@kevro/core';
import { fieldError, sentence, type AimRecord } from '@kevro/contract';
import { useDraft } from '../../forms/draft';
import { shopYear } from '../../words/days';
import { numberOf, type Typed } from '../../ui/typed';
import { useFitting } from '../../stores/fitting';
import { useGuides } from '../../stores/guides';
import { useLibrary } from '../../stores/library';
import { useShop } from '../../stores/shop';
import { guidedPlayer } from './guided-player';
import { useOtherFrames } from '../../bench/other-frames';

export type Way = AimRecord['way'];
interface Row {
  value: Typed;
  tolerance: Typed;
  priority: Priority;
}
interface Draft {
  way: Way;
  setupId: string | null;
  frameId: string | null;
  guide: GuideName | null;
  bothers: Bother[];
  /** How far of the way, per cent. */
  share: number;
  rows: Record<SpecKey, Row>;
  /** What is on the frame when it is done; null: as it is now. */
  finish: Dress | null;
  note: string;
  /** Why a guard was not heeded, by its code. */
  overridden: Partial<Record<string, string>>;
}

const HALF = 100 * HALF_THE_WAY;
/** Ways of which a part may be gone. */
export const PART_OF: readonly Way[] = ['copy', 'part-way', 'frame', 'guide'];
const fromSetup = (way: Way): boolean => way === 'copy' || way === 'part-way';

/**
 * The aim of the open fitting as it is typed: from the one that is set, else from a setup.
 * @param setupAsked the setup to start from; that set beside the frame first if left out
 */
export function useAimDraft(setupAsked: string | undefined) {
  const fitting = useFitting();
  const library = useLibrary();
  const guides = useGuides();
  /** The station stands on a frame: without one the page says what is missing. */
  const shape = computed(() => fitting.record?.shape ?? { sport: 'tennis' as const, lengthCm: 0 });
  const sport = computed(() => useShop().sportOf(shape.value.sport));
  /** The sport with the tolerances that an aim of this frame begins with: what its instruments can judge, where that is more than the shop works to. */
  const judged = computed(() => {
    const { frame, before, instruments } = fitting;
    return frame && before && instruments
      ? judgedSport(frame.sport, usualBuild(frame, before, instruments))
      : sport.value;
  });
  const lengthCm = computed(() => shape.value.lengthCm);
  const growing = computed(() => {
    const born = fitting.view?.player.birthYear;
    return typeof born === 'number' && isGrowing(born, shopYear());
  });
  const rowsOf = (aim: Aim): Record<SpecKey, Row> =>
    Object.fromEntries(
      SPEC_KEYS.map((key): [SpecKey, Row] => {
        const target = aim[key];
        return [
          key,
          {
            value: target?.value ?? null,
            tolerance: target?.tolerance ?? judged.value.tolerance[key],
            priority: target?.priority ?? (target ? 'want' : 'free'),
          },
        ];
      }),
    ) as Record<SpecKey, Row>;

  const startSetup = setupAsked ?? fitting.references[0] ?? null;
  const startDraft = (): Draft => {
    const { aim } = fitting;
    const nothing = {
      finish: null,
      frameId: null,
      guide: null,
      bothers: [],
      note: '',
      overridden: {},
      share: startSetup && !growing.value ? 100 : HALF,
    };
    if (aim) {
      const whole = aim.way === 'copy' ? 1 : HALF_THE_WAY;
      const { frameId = null, guide = null, bothers = [], share = whole } = aim.source;
      return {
        ...nothing,
        way: aim.way,
        setupId: aim.setupId,
        frameId,
        guide,
        bothers,
        share: Math.round(share * 100),
        rows: rowsOf(aim.target),
        finish: aim.finish,
        note: aim.note,
        overridden: Object.fromEntries(aim.guards.map(({ code, note }) => [code, note])),
      };
    }
    return {
      ...nothing,
      // Who still grows goes part of the way unless the fitter says otherwise.
      way: startSetup ? (growing.value ? 'part-way' : 'copy') : 'by-hand',
      setupId: startSetup,
      rows: rowsOf(fitting.before ? partWay(judged.value, fitting.before, {}, 0) : {}),
    };
  };
  const kept = useDraft(startDraft);
  kept.begin(`aim ${fitting.round?.id ?? ''}`, startDraft());
  const draft = kept.value;
  const others = useOtherFrames(computed(() => draft.value.frameId));
  /** The frame as it will be dressed when it is done: what is aimed at is read so. */
  const finished = computed(() => {
    const { frame, before, dress } = fitting;
    return frame && before && dress ? asFinished(frame, before, dress, draft.value.finish) : undefined;
  });
  // An aim that was set meanwhile, here or in another tab, is what stands; what was typed is offered beside it.
  watch([() => fitting.aim?.id, () => fitting.measurement?.id], () => kept.restart(startDraft()));

  const setup = computed(() => library.named(draft.value.setupId));
  /** The chosen setup, which stands beside the frame as that is dressed now, as it would be dressed when it is done. */
  const setupFinished = computed((): KnownSpecs | undefined => {
    const { dress } = fitting;
    const to = finished.value?.dress;
    const { value: one } = setup;
    const axisCm = fitting.before?.axisCm;
    if (!one || !dress || !to || axisCm === undefined || sameDress(dress, to)) return one?.specs;
    return bringTo({ shape: one.setup.shape, dress, specs: one.specs }, to, axisCm).specs;
  });
  /** What of the chosen way's source there is to go to, shown as this frame is strung and gripped. */
  const source = computed((): KnownSpecs | undefined => {
    const { way, guide } = draft.value;
    const { frame, measurement } = fitting;
    const dress = finished.value?.dress;
    if (fromSetup(way)) return setupFinished.value;
    if (way === 'frame' && dress && measurement) return others.brought(dress, measurement.specs.axisCm);
    if (way === 'guide' && guide && frame && dress)
      return asWritten(guideMiddle(guideBands(frame, guide, dress, guides.edited)), sport.value);
    return undefined;
  });

  /** The numbers of the chosen way. */
  function taken(): Record<SpecKey, Row> | undefined {
    const own = finished.value?.specs;
    const { way, share, bothers } = draft.value;
    if (!own || way === 'by-hand') return undefined;
    if (way === 'complaints') return rowsOf(aimFromComplaints(judged.value, own, bothers));
    if (!source.value) return undefined;
    return rowsOf(partWay(judged.value, own, source.value, PART_OF.includes(way) ? share / 100 : 1));
  }
  /** The guide of the player, or the one that suits them. */
  function theirGuide(): GuideName | null {
    const player = fitting.view?.player;
    const { sport: of } = shape.value;
    return player?.guides[of] ?? (player ? (proposeGuide(of, guidedPlayer(player))?.guide ?? null) : null);
  }
  function choose(
    change: Partial<Pick<Draft, 'way' | 'setupId' | 'frameId' | 'guide' | 'bothers' | 'share' | 'finish'>>,
  ): void {
    // Whole, unless the player grows.
    if (change.way !== undefined && change.way !== draft.value.way)
      draft.value.share = growing.value ? HALF : 100;
    Object.assign(draft.value, change);
    // A setup is copied, or gone toward, by how far that is.
    if (fromSetup(draft.value.way)) draft.value.way = draft.value.share < 100 ? 'part-way' : 'copy';
    if (draft.value.way === 'guide') draft.value.guide ??= theirGuide();
    draft.value.rows = taken() ?? draft.value.rows;
  }
  /** Says what is on the frame when it is done: numbers that were taken from somewhere follow, those that were typed stand. */
  function finishAs(dress: Dress): void {
    const now = fitting.dress;
    choose({ finish: now && sameDress(now, dress) ? null : dress });
  }
  // The setup, or the frame, may still be on its way from the server: its numbers are taken when it is there.
  watch(
    () => setup.value?.setup.id,
    () => {
      const rows = taken();
      if (!fitting.aim && rows && !kept.dirty.value) kept.restart({ ...draft.value, rows });
    },
    { immediate: true },
  );
  // The shop's own guides may come after the guide was chosen.
  watch(
    () => guides.edited,
    () => {
      if (draft.value.way === 'guide' && kept.dirty.value) draft.value.rows = taken() ?? draft.value.rows;
    },
  );
  /** What is typed is aimed at, also where it was left free. */
  function typedByHand(key: SpecKey, typed: Typed): void {
    const row = draft.value.rows[key];
    draft.value.way = 'by-hand';
    row.value = typed;
    if (row.priority === 'free' && typed !== null) row.priority = 'want';
  }
  /** Takes a gentler aim that a guard proposes. */
  function take(aim: Aim): void {
    draft.value.way = 'by-hand';
    for (const key of SPEC_KEYS) if (aim[key]) draft.value.rows[key].value = aim[key].value;
  }

  /** Takes the least tolerance that can be judged. */
  function loosen({ spec, judgeable }: HardToJudge): void {
    draft.value.rows[spec].tolerance = judgeable;
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
    const own = finished.value?.specs;
    for (const problem of own ? aimProblems(aim, lengthCm.value, own, sport.value) : []) {
      errors[problem.path.replace('target.', '')] ??= fieldError(problem).message;
    }
    return { aim, errors };
  });
  /** What the aim was taken from, for the record. */
  const taking = computed((): AimRecord['source'] => {
    const { way, frameId, guide, bothers, share } = draft.value;
    return {
      ...(way === 'frame' && frameId ? { frameId } : {}),
      ...(way === 'guide' && guide ? { guide } : {}),
      ...(way === 'complaints' ? { bothers } : {}),
      ...(PART_OF.includes(way) && way !== 'copy' ? { share: share / 100 } : {}),
    };
  });

  return {
    kept,
    draft,
    shape,
    setup,
    finished,
    source,
    others,
    choose,
    typedByHand,
    finishAs,
    take,
    loosen,
    read,
    taking,
  };
}
