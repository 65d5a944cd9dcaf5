import type { Router } from 'express';
import type { Player } from '@kevro/contract';
import type { Acts } from '../act';
import type { Clock } from '../clock';
import type { Queries } from '../db/db';
import { ApiProblem, badInput, wrongAt } from '../problem';
import { aboutPlayer, erasePlayer, finishErasing } from '../records/person';
import {
  addPlayer,
  archivePlayer,
  armHistoryOf,
  changePlayer,
  findPlayer,
  listPlayers,
} from '../records/player';
import { answer } from './route';

const orNone = (player: Player | undefined): Player => {
  if (!player) throw new ApiProblem('not-found');
  return player;
};
const thePlayer = async (q: Queries, id: string): Promise<Player> => orNone(await findPlayer(q, id));

export function playerRoutes(router: Router, acts: Acts, now: Clock): void {
  const { db } = acts;
  answer(router, 'players', ({ query }) => listPlayers(db, query));
  answer(router, 'player', ({ params }) => thePlayer(db, params.id ?? ''));
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
  acts.on(router, 'erasePlayer', async ({ tx, id, body, now: at }) => {
    const { name } = await thePlayer(tx, id);
    if (body.name.trim() !== name) throw badInput([wrongAt('name', 'not-the-name')]);
    const ids = await erasePlayer(tx, id, at);
    // What cannot be finished now, on a full disk, is finished at the next start.
    return async () => ({ erased: true as const, ids, finished: await finishErasing(db) });
  });
  acts.begin(router, 'addPlayer', async ({ tx, body }) => (await addPlayer(tx, body)).id, thePlayer);
  acts.on(router, 'editPlayer', async ({ tx, id, body }) => orNone(await changePlayer(tx, id, body)));
  acts.on(router, 'archivePlayer', async ({ tx, id, body }) =>
    orNone(await archivePlayer(tx, id, body.archived)),
  );
}
