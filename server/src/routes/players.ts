import type { Router } from 'express';
import type { Player } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem, badInput, wrongAt } from '../problem';
import { aboutPlayer, erasePlayer } from '../records/person';
import {
  addPlayer,
  archivePlayer,
  armHistoryOf,
  changePlayer,
  findPlayer,
  listPlayers,
} from '../records/player';
import { answer } from './route';

export function playerRoutes(router: Router, db: Db, now: Clock): void {
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
  router.get('/players/:id/data', async (request, response) => {
    const found = await aboutPlayer(db, request.params.id);
    if (!found) throw new ApiProblem('not-found');
    response.attachment('kevro-player.json').json({ takenAt: now(), ...found });
  });
  answer(router, 'erasePlayer', async ({ params, body }) => {
    const { id, name } = orNone(await findPlayer(db, params.id ?? ''));
    if (body.name.trim() !== name) throw badInput([wrongAt('name', 'not-the-name')]);
    return { erased: true as const, ids: await erasePlayer(db, id, now()) };
  });
  answer(router, 'addPlayer', ({ body }) => addPlayer(db, body));
  answer(router, 'editPlayer', async ({ params, body }) =>
    orNone(await changePlayer(db, params.id ?? '', body)),
  );
  answer(router, 'archivePlayer', async ({ params, body }) =>
    orNone(await archivePlayer(db, params.id ?? '', body.archived)),
  );
}
