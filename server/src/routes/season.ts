import type { Router } from 'express';
import { dayIn } from '@kevro/core';
import type { SeasonPage } from '@kevro/contract';
import type { Acts } from '../act';
import type { Clock } from '../clock';
import type { Compute } from '../compute/compute';
import type { Queries } from '../db/db';
import { readCalendar, writeCalendar } from '../exchange/calendar-file';
import { outlookCase } from '../fitting/outlook';
import { seasonPage } from '../fitting/season';
import { ApiProblem } from '../problem';
import { newId } from '../records/id';
import { findPlayer } from '../records/player';
import { findSeasonDate, seasonDates, storeFileDates } from '../records/season';
import { theShop } from '../records/shop';
import { answer } from './route';

/** A player's season: matches and rests, typed or read from a calendar file, and what is to be done by when. */
export function seasonRoutes(router: Router, acts: Acts, now: Clock, compute: Compute): void {
  const { db } = acts;
  async function pageOr404(q: Queries, playerId: string): Promise<SeasonPage> {
    const page = await seasonPage(q, playerId, now(), async (fitting, programmeId) => {
      const found = await outlookCase(q, fitting, programmeId);
      return found && compute('programmeOutlook', found);
    });
    if (!page) throw new ApiProblem('not-found');
    return page;
  }
  async function requireDate(q: Queries, id: string): Promise<{ playerId: string }> {
    const date = await findSeasonDate(q, id);
    if (!date) throw new ApiProblem('not-found');
    return date;
  }
  async function requirePlayer(q: Queries, id: string): Promise<void> {
    if (!(await findPlayer(q, id))) throw new ApiProblem('not-found');
  }

  answer(router, 'season', ({ params: { id = '' } }) => pageOr404(db, id));
  router.get('/players/:id/season.ics', async (request, response) => {
    const page = await pageOr404(db, request.params.id);
    const { name } = await theShop(db);
    response
      .attachment(`kevro-season-${page.player.id}.ics`)
      .type('text/calendar; charset=utf-8')
      .send(writeCalendar(name, page, now()));
  });

  acts.begin(
    router,
    'addSeasonDate',
    async ({ tx, id, key, body: date }) => {
      await requirePlayer(tx, id);
      await seasonDates.insert(tx, { id: newId(), key, playerId: id, uid: '', ...date });
      return id;
    },
    pageOr404,
  );
  acts.begin(
    router,
    'readSeason',
    async ({ tx, id, key, body: { text }, now: at }) => {
      await requirePlayer(tx, id);
      const { timeZone } = await theShop(tx);
      const { dates, skipped } = readCalendar(text, dayIn(timeZone, at), timeZone);
      const changed = await storeFileDates(tx, id, key, dates);
      return `${id} ${dates.length - changed} ${changed} ${skipped}`;
    },
    async (q, made) => {
      const [id = '', added, changed, skipped] = made.split(' ');
      return {
        ...(await pageOr404(q, id)),
        added: Number(added),
        changed: Number(changed),
        skipped: Number(skipped),
      };
    },
  );
  acts.on(router, 'editSeasonDate', async ({ tx, id, body }) => {
    const { playerId } = await requireDate(tx, id);
    await seasonDates.change(tx, body, 'id = $1', id);
    return pageOr404(tx, playerId);
  });
  acts.on(router, 'removeSeasonDate', async ({ tx, id }) => {
    const { playerId } = await requireDate(tx, id);
    await tx.query('delete from season_date where id = $1', [id]);
    return pageOr404(tx, playerId);
  });
}
