import ical from 'ical-generator';
import type { Router } from 'express';
import { cutList, settleFrame, templateOf, waitsOf } from '@kevro/core';
import { STEP_TITLES, templateQuery } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { templatePdf, templateSvg } from '../paper/template';
import { ApiProblem } from '../problem';
import { findFitting } from '../records/fitting';
import { theShop } from '../records/shop';
import { readAs } from './route';

/** What leaves the shop as a file: a calendar of what sets, and a template to cut out. */
export function paperRoutes(router: Router, db: Db, now: Clock): void {
  router.get('/fittings/:id/calendar.ics', async (request, response) => {
    const fitting = await findFitting(db, request.params.id, now());
    if (!fitting) throw new ApiProblem('not-found');
    const shop = await theShop(db);
    const calendar = ical({ name: `${shop.name}: ${fitting.player.name}` });
    for (const { frame, rounds } of fitting.frames) {
      const round = rounds.at(-1);
      const plan = round?.plans.find(({ id }) => id === round.state.planId);
      if (!round || !plan) continue;
      for (const { step, from, until } of waitsOf(plan.steps, round.state.steps)) {
        const kind = plan.steps.find(({ key }) => key === step)?.kind;
        calendar.createEvent({
          // The same wait is the same entry, however often the file is taken.
          id: `${plan.id}-${step}@kevro`,
          stamp: new Date(from),
          start: new Date(until),
          end: new Date(Date.parse(until) + 15 * 60_000),
          summary: `${frame.tag} has set: ${kind ? STEP_TITLES[kind].toLowerCase() : step}`,
          description: `${fitting.player.name}, ${frame.maker} ${frame.model}. Or as the label says.`,
          alarms: [{ trigger: 0 }],
        });
      }
    }
    if (calendar.length() === 0) throw new ApiProblem('nothing-sets');
    response
      .attachment(`kevro-${fitting.id}.ics`)
      .type('text/calendar; charset=utf-8')
      .send(calendar.toString());
  });

  /** The frame, its plan and the words of a template. */
  async function templateFor(id: string, query: unknown) {
    const { plan: planId, paper } = readAs(templateQuery, query);
    const fitting = await findFitting(db, id, now());
    for (const { frame, rounds } of fitting?.frames ?? []) {
      const plan = rounds.flatMap((round) => round.plans).find((one) => one.id === planId);
      if (!plan || !fitting) continue;
      const settled = settleFrame(frame.shape);
      const onHead = plan.placements.filter(({ path }) => path === 'rim' || path === 'throat');
      const { name, partUnit } = await theShop(db);
      return {
        tag: frame.tag,
        paper,
        template: templateOf(settled, plan.placements, plan.parts),
        words: {
          title: `${name}: ${frame.tag}, ${fitting.player.name}`,
          cuts: cutList(settled, onHead, plan.parts),
          unit: partUnit,
        },
      };
    }
    throw new ApiProblem('not-found');
  }
  router.get('/fittings/:id/template.svg', async (request, response) => {
    const { tag, template, words } = await templateFor(request.params.id, request.query);
    response
      .attachment(`${fileName(tag)}.svg`)
      .type('image/svg+xml')
      .send(templateSvg(template, words));
  });
  router.get('/fittings/:id/template.pdf', async (request, response) => {
    const { tag, template, words, paper } = await templateFor(request.params.id, request.query);
    const pdf = await templatePdf(template, words, paper);
    response
      .attachment(`${fileName(tag)}.pdf`)
      .type('application/pdf')
      .send(pdf);
  });
}

/** A tag as a file may be called. */
const fileName = (tag: string): string => `template ${tag}`.replaceAll(/[^\p{L}\p{N} ._-]/gu, '-');
