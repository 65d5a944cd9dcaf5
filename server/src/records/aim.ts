import type { AimRecord } from '@kevro/contract';
import { tableOf } from '../db/table';

export const aims = tableOf<AimRecord>('aim', {
  id: 'id',
  createdAt: 'created_at',
  roundId: 'round_id',
  way: 'way',
  setupId: 'setup_id',
  source: 'source',
  note: 'note',
  target: 'target',
  finish: 'finish',
  guards: 'guards',
  by: 'by',
});
