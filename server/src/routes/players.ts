import type { Router } from 'express';
import type { Player } from '@kevro/contract';
import type { Db } from '../db/db';
import { ApiProblem } from '../problem';
import {
  addPlayer,
  archivePlayer,
  armHistoryOf,
  changePlayer,
  findPlayer,
  listPlayers,
} from '../records/player';
import { answer } from './route';

export function playerRoutes(router: Router, db: Db): void {
  const orNone = (player: Player | undefined): Player => {
    if (!player) throw new ApiProblem('not-found');
    return player;
  };

  answer(router, 'players', ({ query }) => listPlayers(db, query));
  answer(router, 'player', async ({ params }) => orNone(await findPlayer(db, params.id ?? '')));
  answer(router, 'armHistory', async ({ params }) => {
    const text = await armHistoryOf(db, params.id ?? '');
    if (text === undefined) throw new ApiProblem('not-found');
    return { text };
  });
  answer(router, 'addPlayer', ({ body }) => addPlayer(db, body));
  answer(router, 'editPlayer', async ({ params, body }) =>
    orNone(await changePlayer(db, params.id ?? '', body)),
  );
  answer(router, 'archivePlayer', async ({ params, body }) =>
    orNone(await archivePlayer(db, params.id ?? '', body.archived)),
  );
}
