import { z } from 'zod';
import { act, begin, call, listing, retiredBody } from './call';
import { paths as at } from './paths';
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
  setupTensions,
  settleReports,
  tensionsQuery,
} from './records/setup';

/** The library of setups over HTTP. */
export const setupCalls = {
  setups: listing(at.setups, 'The library of setups, searched and sorted', setupRow, setupQuery),
  nearSetups: listing(
    at.nearSetups,
    'Setups of the sport, nearest to a measured frame first',
    nearSetup,
    setupQuery.pick({ search: true, kind: true, ids: true, limit: true, offset: true }),
  ),
  setupIds: {
    ...at.setupIds,
    summary: 'The ids of all setups of the sport of a measured frame that a search finds, in no order',
    answer: z.strictObject({ ids: z.array(z.string()) }),
    body: undefined,
    query: setupQuery.pick({ search: true, kind: true }),
  },
  broughtSetups: {
    ...at.broughtSetups,
    summary:
      'All setups of the sport in the dress and about the axis of a measured frame, part by part, in columns',
    answer: broughtSetups,
    body: undefined,
    query: z.strictObject({
      after: z.string().max(80).default(''),
      limit: z.coerce.number().int().min(1).max(10_000).default(5000),
    }),
  },
  setupTensions: {
    ...call(at.setupTensions, 'How the tensions of the library spread', setupTensions),
    query: tensionsQuery,
  },
  setup: call(at.setup, 'A setup with every report of the same frame', setupPage),
  settleReports: begin(
    at.settleReports,
    'setup',
    'Let one report stand for all of its frame, or their average, or each for itself',
    setupPage,
    settleReports,
  ),
  importSetups: {
    ...at.importSetups,
    summary: 'Check or store a file of setups',
    answer: setupImport,
    body: undefined,
    query: importQuery,
    upload: ['text/csv', 'application/json'],
    changes: 'setup' as const,
  },
  importProgress: call(at.importProgress, 'How far an import is, by its key', importProgress),
  setupsCsv: {
    ...at.setupsCsv,
    summary: 'Setups as a list for spreadsheets; importing it anew changes nothing',
    answer: z.string(),
    body: undefined,
    query: setupFileQuery,
    download: 'text/csv',
  },
  setupsJson: {
    ...at.setupsJson,
    summary: 'Setups as a file; importing it anew changes nothing',
    answer: z.string(),
    body: undefined,
    query: setupFileQuery,
    download: 'application/json',
  },
  addSetup: begin(at.addSetup, 'setup', 'Add a setup', setup, newSetup),
  editSetup: act(at.editSetup, 'setup', 'Change a setup; aims keep what they took from it', setup, newSetup),
  retireSetup: act(at.retireSetup, 'setup', 'Retire a setup, or bring one back', setupRow, retiredBody),
} as const;
