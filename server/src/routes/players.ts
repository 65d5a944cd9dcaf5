import type { Router } from 'express';
import type { Db } from '../db/db';
import { addPlayer, listPlayers } from '../records/player';
import { answer } from './route';

export function playerRoutes(router: Router, db: Db): void {
  answer(router, 'players', () => listPlayers(db));
  answer(router, 'addPlayer', ({ body }) => addPlayer(db, body));
}
