import type { Data, Layout } from 'plotly.js-cartesian-dist-min';
import { ENERGY, type Energy } from '@kevro/core';

/** A value of a frame from a day on, until the next one. */
export interface StepPoint {
  at: string;
  value: number;
  /** What is read when it is pointed at. */
  text: string;
}
export interface FeltPoint {
  on: string;
  energyLeft: Energy;
  sore: boolean;
  text: string;
}
export interface HistoryOf {
  steps: readonly StepPoint[];
  felt?: readonly FeltPoint[];
  /** A level with its name: a ceiling. */
  level?: { value: number; name: string } | undefined;
  /** What is proposed next. */
  next?: { value: number; name: string } | undefined;
  unit: string;
}

/** Marks of energy one over the other: plenty has all of them. Asked when it is drawn, since the list may come with a file that is loaded after this one. */
const marks = (): number => ENERGY.length;
const MARK_SHARE = 0.06;
const noon = (day: string): string => (day.length > 10 ? day : `${day}T12:00:00Z`);

/** A spec over time as a line of steps, with what was felt above it: told by how many marks are filled, and by their colour second. */
export function historyChart(
  { steps, felt = [], level, next, unit }: HistoryOf,
  colors: Record<string, string>,
  now: string,
): { data: Data[]; layout: Partial<Layout> } {
  const values = [...steps.map(({ value }) => value), level?.value, next?.value].filter(
    (v) => v !== undefined,
  );
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const room = Math.max(high - low, 0.02 * Math.abs(high), 1e-6);
  const { ink = '', line = '', good = '', warn = '', brick = '', aim = '' } = colors;
  const last = steps.at(-1);
  const end = [now, ...felt.map(({ on }) => noon(on)), ...steps.map(({ at }) => at)].toSorted().at(-1) ?? now;
  const valueAt = (day: string): number =>
    (steps.findLast(({ at }) => at <= noon(day)) ?? steps[0])?.value ?? low;
  const data: Data[] = [];
  if (steps.length > 0 && last)
    data.push({
      x: [...steps.map(({ at }) => at), end],
      y: [...steps.map(({ value }) => value), last.value],
      text: [...steps.map(({ text }) => text), ''],
      mode: 'lines+markers',
      line: { shape: 'hv', color: ink, width: 2.5 },
      marker: { size: [...steps.map(() => 7), 0], color: ink },
      hovertemplate: '%{text}<extra></extra>',
    });
  const color = ({ energyLeft, sore }: FeltPoint): string =>
    sore ? brick : energyLeft === 'plenty' || energyLeft === 'enough' ? good : warn;
  for (let k = 0; k < marks(); k++)
    data.push({
      x: felt.map(({ on }) => noon(on)),
      y: felt.map(({ on }) => valueAt(on) + room * (0.08 + MARK_SHARE * k)),
      text: felt.map(({ text }) => text),
      mode: 'markers',
      marker: {
        symbol: 'square',
        size: 6.5,
        color: felt.map((one) => (marks() - ENERGY.indexOf(one.energyLeft) > k ? color(one) : line)),
      },
      hovertemplate: '%{text}<extra></extra>',
    });
  if (next && last)
    data.push({
      x: [end, end],
      y: [last.value, next.value],
      text: ['', next.name],
      mode: 'text+lines+markers' as 'lines+markers',
      textposition: next.value < last.value ? 'bottom left' : 'top left',
      textfont: { color: aim },
      line: { dash: 'dot', color: aim, width: 2.5 },
      marker: { size: [0, 8], color: aim, symbol: 'circle-open' },
      hoverinfo: 'skip',
    });
  return {
    data,
    layout: {
      hovermode: 'closest',
      xaxis: { type: 'date', tickformat: '%-d %b', nticks: 7, automargin: true },
      yaxis: {
        title: { text: unit },
        range: [low - 0.12 * room, high + room * (0.18 + MARK_SHARE * marks())],
        automargin: true,
      },
      ...(level
        ? {
            shapes: [
              {
                type: 'line',
                xref: 'paper',
                x0: 0,
                x1: 1,
                y0: level.value,
                y1: level.value,
                line: { dash: 'dash', color: brick, width: 2 },
              },
            ],
            annotations: [
              {
                xref: 'paper',
                x: 0,
                xanchor: 'left',
                y: level.value,
                yanchor: 'bottom',
                text: level.name,
                showarrow: false,
                font: { color: brick },
              },
            ],
          }
        : {}),
    },
  };
}
