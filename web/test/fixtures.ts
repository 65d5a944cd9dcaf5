import { createPinia, setActivePinia } from 'pinia';
import { defineComponent, h } from 'vue';
import { mount, type VueWrapper } from '@vue/test-utils';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { fromSpot, settleFrame, usualParts, type Part, type Placement, type ZoneName } from '@kevro/core';
import type { FittingView, FrameRecord, Measurement, PlanRecord, RoundView } from '@kevro/contract';

/** Records as the server would answer them, for tests of components. */
export const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
export const frame = settleFrame(shape);
export const tape: Part = {
  id: 'tape',
  kind: 'tape',
  name: 'tape 6 mm',
  material: 'tungsten',
  widthMm: 6,
  gPerCm: 0.265,
  stepCm: 0.5,
};
export const laid = (zone: ZoneName, massG: number, spanCm: number, id: string = zone): Placement =>
  fromSpot(frame, { at: { zone }, massG, spanCm }, { id, partId: 'tape' });

export const frameRecord: FrameRecord = {
  id: 'f1',
  tag: 'OT-1',
  maker: 'Oskerra',
  model: 'Tide',
  paint: '',
  ownerId: null,
  shape,
  pattern: '',
  beam: '',
  stiffness: null,
  gripSize: '',
  note: '',
  onIt: {},
  weights: [],
  nominal: null,
  archived: false,
};
export const measurement: Measurement = {
  id: 'm1',
  frameId: 'f1',
  takenAt: '2026-11-20T10:00:00.000Z',
  purpose: 'found',
  roundId: 'r1',
  dress: {},
  specs: { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6, axisCm: 10.16 },
  uncertainty: { massG: 0.3, balanceCm: 0.07, swingWeight: 0.8, twistWeight: 0.15 },
  parts: usualParts({ massG: 0.3, balanceCm: 0.07, swingWeight: 0.8, twistWeight: 0.15 }),
  estimated: [],
  leftRight: null,
  how: {},
  note: '',
  counts: true,
  why: '',
  supersedes: null,
  supersededBy: null,
};
export const plan = (placements: Placement[]): PlanRecord => ({
  id: 'p1',
  createdAt: '2026-11-21T10:00:00.000Z',
  roundId: 'r1',
  startId: 'm1',
  aimId: 'a1',
  trims: null,
  school: 'free',
  byHand: false,
  placements: placements as PlanRecord['placements'],
  swaps: [],
  removals: [],
  parts: [{ ...tape, note: '' } as PlanRecord['parts'][number]],
  steps: [],
  specs: measurement.specs,
  uncertainty: measurement.uncertainty,
  chance: null,
  truly: null,
  readings: null,
  withinTolerance: true,
});
/** A fitting of one frame, measured and aimed, with a plan where one is given. */
export function fittingView(planned?: PlanRecord): FittingView {
  const round: RoundView = {
    id: 'r1',
    frameId: 'f1',
    number: 1,
    why: 'first',
    note: '',
    begunAt: '2026-11-20T09:00:00.000Z',
    startId: 'm1',
    programmeId: null,
    onFrame: null,
    measurements: [measurement],
    aims: [
      {
        id: 'a1',
        createdAt: '2026-11-20T11:00:00.000Z',
        roundId: 'r1',
        way: 'by-hand',
        setupId: null,
        source: {},
        note: '',
        target: { massG: { value: 333, tolerance: 1, priority: 'want' } },
        finish: null,
        guards: [],
        by: '',
      },
    ],
    plans: planned ? [planned] : [],
    marks: [],
    signOffs: [],
    sessions: [],
    state: {
      stations: {
        measure: 'done',
        compare: 'done',
        aim: 'done',
        plan: planned ? 'done' : 'due',
        build: planned ? 'due' : 'blocked',
        check: 'blocked',
        play: 'blocked',
      },
      blockedBy: {},
      next: null,
      aimId: 'a1',
      planId: planned?.id ?? null,
      lapsed: {},
      steps: {},
      built: false,
    },
  };
  return {
    id: 'x1',
    openedAt: '2026-11-20T09:00:00.000Z',
    closed: null,
    player: {
      id: 'pl1',
      name: 'Ilka Morrow',
      sports: ['tennis'],
      birthYear: null,
      heightCm: null,
      build: null,
      level: '',
      levelScale: null,
      handedness: null,
      style: '',
      putsFirst: null,
      bothers: [],
      botherNote: '',
      ceilings: { tennis: 340 },
      sessionsAWeek: null,
      guides: {},
      hasArmHistory: false,
      archived: false,
    },
    references: [],
    parts: [],
    instruments: [],
    beside: [],
    frames: [{ frame: frameRecord, bed: null, rounds: [round], programmes: [] }],
  };
}

const router = (): Router =>
  createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/', component: { render: () => null } }],
  });

/** Runs a composable inside a component, as a page does. */
export function within<T>(use: () => T): { result: T; wrapper: VueWrapper } {
  let result: T | undefined;
  const Host = defineComponent({
    setup() {
      result = use();
      return () => h('div');
    },
  });
  const pinia = createPinia();
  setActivePinia(pinia);
  const wrapper = mount(Host, { global: { plugins: [pinia, router()] }, attachTo: document.body });
  return { result: result as T, wrapper };
}
