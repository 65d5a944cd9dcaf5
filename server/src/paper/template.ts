import { createRequire } from 'node:module';
import {
  partWeight,
  type PartUnit,
  tilesOf,
  type Cut,
  type OnPaper,
  type Template,
  type Tile,
} from '@kevro/core';
import { ZONE_NAMES, placeWords } from '@kevro/contract';

/** What stands on a template beside its lines. */
export interface TemplateWords {
  /** The shop, the frame, for whom. */
  title: string;
  cuts: readonly Cut[];
  /** What the shop says weights of parts in. */
  unit?: PartUnit;
}

/** By this bar a fitter checks that the printer did not shrink the page, mm. */
export const BAR_MM = 100;
const POINTS_PER_MM = 72 / 25.4;
/** The font has the letters of every name, as the one that each reader of PDF files brings does not. */
const FONT = createRequire(import.meta.url).resolve('pdfmake/fonts/Roboto/Roboto-Regular.ttf');
/** What makes PDF files, read when the first is asked for: a server that starts need not wait for it. */
async function printer() {
  const { default: pdfmake } = await import('pdfmake');
  pdfmake.addFonts({ Roboto: { normal: FONT } });
  // What a sheet shows stands in it: nothing else is fetched or read for it.
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path) => path === FONT);
  return pdfmake;
}
/** What a printer leaves white at the edge, mm. */
const EDGE_MM = 10;
/** Room for words at the foot of a sheet, mm. */
const FOOT_MM = 16;

export const PAPERS = {
  a4: { widthMm: 210, heightMm: 297 },
  letter: { widthMm: 215.9, heightMm: 279.4 },
} as const;
export type Paper = keyof typeof PAPERS;

const number = (mm: number): string => String(Number(mm.toFixed(3)));
const path = (points: readonly OnPaper[]): string =>
  points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${number(x)} ${number(y)}`).join('');
const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

const CM = { say: (cm: number): string => cm.toFixed(1), unit: 'cm' };
/** «Shoulders, both sides: 9.1 to 18.6 cm from the tip, 2.3 g». */
const lineOf = (cut: Cut, unit?: PartUnit): string =>
  `${ZONE_NAMES[cut.zone]}${cut.sides === 2 ? ', both sides' : ''}: ${placeWords(cut, CM)}, ${partWeight(cut.massG, unit)}`;

/** Where the words stand: in the head, which is cut out, left of its middle line. */
const wordsAt = (template: Template): OnPaper => ({
  x: template.widthMm * 0.36,
  y: template.heightMm * 0.4,
});

/** An hour stands a little inside of where it is. */
function hourAt({ widthMm, outer }: Template, { x, y }: OnPaper): [number, number] {
  const low = Math.max(...outer.map((p) => p.y));
  const high = Math.min(...outer.map((p) => p.y));
  const middle = (low + high) / 2;
  return [widthMm / 2 + 0.88 * (x - widthMm / 2), middle + 0.88 * (y - middle)];
}

const text = (x: number, y: number, words: string, size: number, anchor = 'middle'): string =>
  `<text x="${number(x)}" y="${number(y)}" font-size="${size}" text-anchor="${anchor}">${escaped(words)}</text>`;
/** The bar, from its left end, and what it is for. */
const bar = (x: number, y: number): string =>
  `<path class="bar" d="M${number(x)} ${number(y)}h${BAR_MM}" fill="none" stroke="#000" stroke-width="0.6"/>` +
  text(
    x,
    y + 6,
    `This bar is ${BAR_MM} mm long. If it is not, print at 100 %, without fitting to the page.`,
    3,
    'start',
  );

/** The outline, the pieces and the words of a template, its upper left corner at the origin. */
function drawing(template: Template, { title, cuts, unit }: TemplateWords): string {
  const { widthMm, heightMm, outer, inner, pieces, hours } = template;
  const at = wordsAt(template);
  const middle = widthMm / 2;
  const strips = pieces.map(({ placementId, side, line, widthMm: wide }) =>
    line.length > 1
      ? `<path class="piece" data-placement="${escaped(placementId)}" data-side="${side}" d="${path(line)}" fill="none" stroke="#000" stroke-opacity="0.35" stroke-width="${number(wide)}"/>`
      : `<circle class="piece" data-placement="${escaped(placementId)}" data-side="${side}" cx="${number(line[0]?.x ?? 0)}" cy="${number(line[0]?.y ?? 0)}" r="${number(wide / 2)}" fill="#000" fill-opacity="0.35"/>`,
  );
  return [
    `<path class="outer" d="${path(outer)}Z" fill="none" stroke="#000" stroke-width="0.4"/>`,
    `<path class="inner" d="${path(inner)}Z" fill="none" stroke="#000" stroke-width="0.2" stroke-dasharray="2 1.5"/>`,
    `<path d="M${number(middle)} 0V${number(heightMm)}" fill="none" stroke="#000" stroke-width="0.15" stroke-dasharray="6 2 1 2"/>`,
    ...strips,
    ...hours.map(({ hour, at: p }) => text(...hourAt(template, p), String(hour), 3)),
    text(at.x, at.y - 10, title, 4.2),
    ...cuts.map((cut, i) => text(at.x, at.y + 6 * i, lineOf(cut, unit), 3.4)),
  ].join('\n');
}
/** A drawing whose user unit is a mm. */
const inMm = (size: { widthMm: number; heightMm: number }, title: string, inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${number(size.widthMm)}mm" height="${number(size.heightMm)}mm" viewBox="0 0 ${number(size.widthMm)} ${number(size.heightMm)}" font-family="sans-serif">
<title>${escaped(title)}</title>
${inside}
</svg>`;

/** The template as one drawing: for a large printer, or a cutter. */
export function templateSvg(template: Template, words: TemplateWords): string {
  const { widthMm, heightMm } = template;
  return inMm(
    { widthMm, heightMm: heightMm + FOOT_MM },
    words.title,
    `${drawing(template, words)}\n${bar((widthMm - BAR_MM) / 2, heightMm + 6)}`,
  );
}

/** What of the template one sheet shows, between marks by which sheets are laid on one another. */
function sheet(drawn: string, tile: Tile, of: number, title: string, paper: Paper): string {
  const { widthMm, heightMm } = PAPERS[paper];
  const [wide, high] = [widthMm - 2 * EDGE_MM, heightMm - 2 * EDGE_MM - FOOT_MM].map(number);
  const seen = `x="${EDGE_MM}" y="${EDGE_MM}" width="${wide}" height="${high}"`;
  const foot = heightMm - EDGE_MM - FOOT_MM + 5;
  const which = `row ${tile.row + 1}, column ${tile.column + 1} of ${of} sheets`;
  return inMm(
    PAPERS[paper],
    title,
    `<svg ${seen} viewBox="${number(tile.x)} ${number(tile.y)} ${wide} ${high}">${drawn}</svg>
<rect ${seen} fill="none" stroke="#000" stroke-width="0.2"/>
${bar(EDGE_MM, foot)}
${of > 1 ? text(widthMm - EDGE_MM, foot, which, 3, 'end') : ''}`,
  );
}

/** The template on as many sheets as it takes. */
export async function templatePdf(template: Template, words: TemplateWords, paper: Paper): Promise<Buffer> {
  const { widthMm, heightMm } = PAPERS[paper];
  const [width, height] = [widthMm * POINTS_PER_MM, heightMm * POINTS_PER_MM];
  const tiles = tilesOf(template, {
    widthMm: widthMm - 2 * EDGE_MM,
    heightMm: heightMm - 2 * EDGE_MM - FOOT_MM,
  });
  const drawn = drawing(template, words);
  const sheets = tiles.map((tile) => sheet(drawn, tile, tiles.length, words.title, paper));
  return (await printer())
    .createPdf({
      info: { title: words.title },
      pageSize: { width, height },
      pageMargins: 0,
      background: (page) => ({ svg: sheets[page - 1] ?? '', width, height }),
      content: tiles.map((_, i) => ({ text: ' ', ...(i > 0 ? { pageBreak: 'before' as const } : {}) })),
    })
    .getBuffer();
}
