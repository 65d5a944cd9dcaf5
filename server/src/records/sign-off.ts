import type { AnswerOf } from '@kevro/contract';
import { tableOf } from '../db/table';

export type SignOff = AnswerOf<'signOff'>;

export const signOffs = tableOf<SignOff & { key: string }>('sign_off', {
  id: 'id',
  key: 'key',
  planId: 'plan_id',
  measurementId: 'measurement_id',
  at: 'at',
  passed: 'passed',
  verdict: 'verdict',
  by: 'by',
  note: 'note',
  onFrame: 'on_frame',
});
