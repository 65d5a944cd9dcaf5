import { z } from 'zod';
import { call, listing, retiredBody } from './call';
import { importProgress, importQuery, setupImport } from './exchange/setup-file';
import {
  broughtSetups,
  nearSetup,
  newSetup,
  setup,
  setupFileQuery,
  setupPage,
  setupQuery,
  setupRow,
  settleReports,
} from './records/setup';

/** The library of setups over HTTP. */
export const setupCalls = {
  setups: listing('/setups', 'The library of setups, searched and sorted', setupRow, setupQuery),
  nearSetups: listing(
    '/measurements/:id/setups',
    'Setups of the sport, nearest to a measured frame first',
    nearSetup,
    setupQuery.pick({ search: true, kind: true, ids: true, limit: true, offset: true }),
  ),
  setupIds: {
    method: 'get' as const,
    path: '/measurements/:id/setup-ids',
    summary: 'The ids of all setups of the sport of a measured frame that a search finds, in no order',
    answer: z.strictObject({ ids: z.array(z.string()) }),
    body: undefined,
    query: setupQuery.pick({ search: true, kind: true }),
  },
  broughtSetups: {
    method: 'get' as const,
    path: '/measurements/:id/brought-setups',
    summary:
      'All setups of the sport in the dress and about the axis of a measured frame, part by part, in columns',
    answer: broughtSetups,
    body: undefined,
    query: z.strictObject({
      after: z.string().max(80).default(''),
      limit: z.coerce.number().int().min(1).max(10_000).default(5000),
    }),
  },
  setup: call('get', '/setups/:id', 'A setup with every report of the same frame', setupPage),
  settleReports: call(
    'put',
    '/setups/:id/reports',
    'Let one report stand for all of its frame, or their average, or each for itself',
    setupPage,
    settleReports,
  ),
  importSetups: {
    method: 'post' as const,
    path: '/setups/import',
    summary: 'Check or store a file of setups',
    answer: setupImport,
    body: undefined,
    query: importQuery,
    upload: ['text/csv', 'application/json'],
  },
  importProgress: call('get', '/setups/import/:id', 'How far an import is, by its key', importProgress),
  setupsCsv: {
    method: 'get' as const,
    path: '/setups.csv',
    summary: 'Setups as a list for spreadsheets; importing it anew changes nothing',
    answer: z.string(),
    body: undefined,
    query: setupFileQuery,
    download: 'text/csv',
  },
  setupsJson: {
    method: 'get' as const,
    path: '/setups.json',
    summary: 'Setups as a file; importing it anew changes nothing',
    answer: z.string(),
    body: undefined,
    query: setupFileQuery,
    download: 'application/json',
  },
  addSetup: call('post', '/setups', 'Add a setup', setup, newSetup),
  editSetup: call('put', '/setups/:id', 'Change a setup; aims keep what they took from it', setup, newSetup),
  retireSetup: call('put', '/setups/:id/retired', 'Retire a setup, or bring one back', setupRow, retiredBody),
} as const;
