import { useIntervalFn } from '@vueuse/core';
import { nanoid } from 'nanoid';
import Papa from 'papaparse';
import { computed, ref, shallowRef } from 'vue';
import { unitByRange, usualDress, type SetupField } from '@kevro/core';
import {
  HEAD_ROWS,
  columnNames,
  columnsOf,
  columnsWithoutUnit,
  mappingOf,
  readSetupCells,
  sentence,
  separatorOf,
  setupMapping,
  textOf,
  type ImportProblem,
  type SetupImport,
  type SetupMapping,
} from '@kevro/contract';
import { Refused, api, upload } from '../api/client';

/** As many of the first rows are shown as they will be read. */
const SHOWN = 4;
const LOOKED_AT = 50;

const rowsBy = (head: string, delimiter: string): string[][] =>
  Papa.parse<string[]>(head, { delimiter, preview: HEAD_ROWS, skipEmptyLines: true }).data;

/** Lines that were pasted, as a list of one column. */
const pasted = (text: string): string =>
  Papa.unparse([
    ['line'],
    ...text
      .split(/\r?\n/)
      .filter((line) => line.trim())
      .map((line) => [line.trim()]),
  ]);

/** Where a list does not say what was on its frames, what is usual is proposed. */
const asUsual = (mapping: SetupMapping): SetupMapping => ({
  ...mapping,
  assume: { ...mapping.assume, dress: usualDress(mapping.assume.sport) },
});

/** Reading a list of setups in: the file, what its columns are, what was wrong with it, and how far it is. */
export function useReading() {
  const text = shallowRef('');
  const name = ref('');
  const json = computed(() => name.value.toLowerCase().endsWith('.json'));
  const said = ref<SetupMapping>(asUsual(setupMapping.parse({})));
  /** A column that was this field until another was chosen to be it. */
  const displaced = ref<{ header: string; field: SetupField }>();
  const result = shallowRef<SetupImport>();
  const refusal = ref('');
  const busy = ref<'check' | 'store'>();
  const progress = ref(0);
  let stopping: AbortController | undefined;
  let key = '';

  const separator = computed(() => separatorOf(text.value, rowsBy));
  const head = computed(() => {
    if (json.value || text.value === '') return undefined;
    const { data } = Papa.parse<string[]>(text.value, { preview: LOOKED_AT, skipEmptyLines: 'greedy' });
    const [first = [], ...rows] = data;
    return { headers: columnNames(first), rows };
  });
  const mapping = computed(() =>
    head.value ? mappingOf(head.value.headers, head.value.rows, said.value) : undefined,
  );
  const unclear = computed(() =>
    head.value && mapping.value ? columnsWithoutUnit(head.value.headers, head.value.rows, mapping.value) : [],
  );
  /** The first rows as they will be read. */
  const preview = computed(() => {
    const { value: of } = head;
    const { value: by } = mapping;
    if (!of || !by) return [];
    const columns = columnsOf(of.headers, by);
    return of.rows
      .slice(0, SHOWN)
      .map((cells) => ({ cells, read: readSetupCells(cells, columns, by.assume) }));
  });

  function begin(): void {
    result.value = undefined;
    displaced.value = undefined;
    refusal.value = '';
    progress.value = 0;
  }
  async function take(file: File): Promise<void> {
    begin();
    name.value = file.name;
    const read = textOf(new Uint8Array(await file.arrayBuffer()));
    text.value = 'text' in read ? read.text : '';
    if ('code' in read) refusal.value = sentence(read.code);
    said.value = { ...said.value, columns: {} };
  }
  function paste(lines: string): void {
    begin();
    name.value = 'pasted lines';
    text.value = lines.trim() === '' ? '' : pasted(lines);
    said.value = { ...said.value, columns: {} };
  }
  /** The unit of a column that was just said to be something, where there is one only or its numbers fit one only; else it is asked for. */
  function likelyUnit(header: string, field: SetupField): string | undefined {
    const at = head.value?.headers.indexOf(header) ?? -1;
    const cells = (head.value?.rows ?? []).map((row) => row[at] ?? '');
    return unitByRange(field, cells, said.value.assume.sport);
  }
  function map(header: string, field: SetupField | null, unit?: string): void {
    const others = Object.entries(mapping.value?.columns ?? {}).filter(
      ([of, is]) => of !== header && is.field !== field,
    );
    const before = Object.entries(mapping.value?.columns ?? {}).find(
      ([of, is]) => of !== header && field !== null && is.field === field,
    );
    displaced.value = before && field !== null ? { header: before[0], field } : undefined;
    const kept = unit ?? (field ? likelyUnit(header, field) : undefined);
    const own = { field, ...(kept === undefined ? {} : { unit: kept }) };
    said.value = { ...said.value, columns: { ...Object.fromEntries(others), [header]: own } };
    result.value = undefined;
  }
  const assume = (change: Partial<SetupMapping['assume']>): void => {
    const next = { ...said.value, assume: { ...said.value.assume, ...change } };
    said.value = change.sport === undefined ? next : asUsual(next);
    result.value = undefined;
  };

  /** How far it is, while it goes on. */
  const asking = useIntervalFn(
    async () => {
      const { done, of } = await api('importProgress', { id: key }).catch(() => ({ done: 0, of: 0 }));
      if (of > 0) progress.value = done / of;
    },
    400,
    { immediate: false },
  );
  async function send(mode: 'check' | 'store', skipBad = false): Promise<SetupImport | undefined> {
    busy.value = mode;
    refusal.value = '';
    progress.value = 0;
    key = nanoid();
    stopping = new AbortController();
    asking.resume();
    try {
      result.value = await upload(
        'importSetups',
        text.value,
        json.value ? 'application/json' : 'text/csv',
        {
          mode,
          key,
          skipBad: skipBad ? 'true' : 'false',
          ...(mapping.value ? { mapping: JSON.stringify(mapping.value) } : {}),
        },
        stopping.signal,
      );
      return result.value;
    } catch (error) {
      if (stopping.signal.aborted) refusal.value = 'Stopped. Nothing was stored.';
      else if (error instanceof Refused) refusal.value = error.message;
      else refusal.value = String(error);
      return undefined;
    } finally {
      asking.pause();
      busy.value = undefined;
    }
  }
  const stop = (): void => stopping?.abort();

  /** The rows with something wrong, each with its cells as they stand in the file. */
  const bad = computed(() => {
    const lines = new Map<number, ImportProblem[]>();
    for (const problem of result.value?.problems ?? [])
      lines.set(problem.line, [...(lines.get(problem.line) ?? []), problem]);
    return [...lines].map(([line, problems]) => ({ line, problems }));
  });
  /** Where in the text a line of the file begins. */
  function startOf(line: number): number {
    let at = 0;
    for (let n = 1; n < line; n++) {
      const next = text.value.indexOf('\n', at);
      if (next < 0) return text.value.length;
      at = next + 1;
    }
    return at;
  }
  /** The cells of the row that begins on a line, and how long it is; only step by step does the parser say where a row ends. */
  function rowAt(line: number): { cells: string[]; length: number } {
    const row = { cells: [] as string[], length: 0 };
    Papa.parse<string[]>(text.value.slice(startOf(line)), {
      preview: 1,
      delimiter: separator.value,
      step: ({ data, meta }) => Object.assign(row, { cells: data, length: meta.cursor }),
    });
    return row;
  }
  const cellsAt = (line: number): string[] => rowAt(line).cells;
  /** Puts a row right in the text, as if the file had it so. */
  function mend(line: number, cells: string[]): void {
    const from = startOf(line);
    const row = Papa.unparse([cells], { delimiter: separator.value });
    text.value = `${text.value.slice(0, from)}${row}\n${text.value.slice(from + rowAt(line).length)}`;
  }

  return {
    text,
    name,
    json,
    said,
    mapping,
    head,
    unclear,
    displaced,
    preview,
    result,
    refusal,
    busy,
    progress,
    bad,
    take,
    paste,
    map,
    assume,
    send,
    stop,
    cellsAt,
    mend,
  };
}
