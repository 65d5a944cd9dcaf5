import PDFDocument from 'pdfkit';
import {
  partWeight,
  type PartUnit,
  tilesOf,
  type Cut,
  type OnPaper,
  type Template,
  type Tile,
} from '@kevro/core';
import { ZONE_NAMES } from '@kevro/contract';

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

/** «shoulders, both sides: 9.1 to 18.6 cm from the tip». */
const lineOf = ({ zone, sides, startCm, endCm, massG, measuredFrom }: Cut, unit?: PartUnit): string =>
  `${ZONE_NAMES[zone]}${sides === 2 ? ', both sides' : ''}: ${startCm.toFixed(1)} to ${endCm.toFixed(1)} cm from the ${measuredFrom}, ${partWeight(massG, unit)}`;

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

/** The template as one drawing, its user unit a mm: for a large printer, or a cutter. */
export function templateSvg(template: Template, { title, cuts, unit }: TemplateWords): string {
  const { widthMm, heightMm, outer, inner, pieces, hours } = template;
  const height = heightMm + FOOT_MM;
  const at = wordsAt(template);
  const middle = widthMm / 2;
  const text = (x: number, y: number, words: string, size = 3.4, anchor = 'middle'): string =>
    `<text x="${number(x)}" y="${number(y)}" font-size="${size}" text-anchor="${anchor}">${escaped(words)}</text>`;
  const strips = pieces.map(({ placementId, side, line, widthMm: wide }) =>
    line.length > 1
      ? `<path class="piece" data-placement="${escaped(placementId)}" data-side="${side}" d="${path(line)}" fill="none" stroke="#000" stroke-opacity="0.35" stroke-width="${number(wide)}"/>`
      : `<circle class="piece" data-placement="${escaped(placementId)}" data-side="${side}" cx="${number(line[0]?.x ?? 0)}" cy="${number(line[0]?.y ?? 0)}" r="${number(wide / 2)}" fill="#000" fill-opacity="0.35"/>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(widthMm)}mm" height="${number(height)}mm" viewBox="0 0 ${number(widthMm)} ${number(height)}" font-family="sans-serif">`,
    `<title>${escaped(title)}</title>`,
    `<path class="outer" d="${path(outer)}Z" fill="none" stroke="#000" stroke-width="0.4"/>`,
    `<path class="inner" d="${path(inner)}Z" fill="none" stroke="#000" stroke-width="0.2" stroke-dasharray="2 1.5"/>`,
    `<path d="M${number(middle)} 0V${number(heightMm)}" stroke="#000" stroke-width="0.15" stroke-dasharray="6 2 1 2"/>`,
    ...strips,
    ...hours.map(({ hour, at: p }) => text(...hourAt(template, p), String(hour), 3)),
    text(at.x, at.y - 10, title, 4.2),
    ...cuts.map((cut, i) => text(at.x, at.y + 6 * i, lineOf(cut, unit))),
    `<path class="bar" d="M${number(middle - BAR_MM / 2)} ${number(heightMm + 6)}h${BAR_MM}" stroke="#000" stroke-width="0.6"/>`,
    text(
      middle,
      heightMm + 12,
      `This bar is ${BAR_MM} mm long. If it is not, print at 100 %, without fitting to the page.`,
      3,
    ),
    '</svg>',
  ].join('\n');
}

/** Draws what of the template one sheet shows. */
function sheet(
  pdf: PDFKit.PDFDocument,
  template: Template,
  tile: Tile,
  of: number,
  words: TemplateWords,
  paper: Paper,
): void {
  const { widthMm, heightMm } = PAPERS[paper];
  const seen = { widthMm: widthMm - 2 * EDGE_MM, heightMm: heightMm - 2 * EDGE_MM - FOOT_MM };
  const svgPath = (points: readonly OnPaper[], closed = false): string => path(points) + (closed ? 'Z' : '');
  pdf.save();
  pdf.scale(POINTS_PER_MM);
  pdf.save();
  pdf.rect(EDGE_MM, EDGE_MM, seen.widthMm, seen.heightMm).clip();
  pdf.translate(EDGE_MM - tile.x, EDGE_MM - tile.y);
  pdf.lineWidth(0.4).strokeColor('#000').path(svgPath(template.outer, true)).stroke();
  pdf.lineWidth(0.2).dash(2, { space: 1.5 }).path(svgPath(template.inner, true)).stroke().undash();
  pdf
    .lineWidth(0.15)
    .moveTo(template.widthMm / 2, 0)
    .lineTo(template.widthMm / 2, template.heightMm)
    .stroke();
  for (const { line, widthMm: wide } of template.pieces) {
    const [first] = line;
    if (line.length > 1)
      pdf.lineWidth(wide).strokeOpacity(0.35).path(svgPath(line)).stroke().strokeOpacity(1);
    else if (first)
      pdf
        .circle(first.x, first.y, wide / 2)
        .fillOpacity(0.35)
        .fill('#000')
        .fillOpacity(1);
  }
  const at = wordsAt(template);
  pdf.fillColor('#000');
  for (const { hour, at: p } of template.hours) {
    const [x, y] = hourAt(template, p);
    pdf.fontSize(3).text(String(hour), x - 5, y - 1.5, {
      width: 10,
      align: 'center',
      lineBreak: false,
    });
  }
  pdf.fontSize(4).text(words.title, at.x - 80, at.y - 12, { width: 160, align: 'center' });
  words.cuts.forEach((cut, i) =>
    pdf.fontSize(3.2).text(lineOf(cut, words.unit), at.x - 80, at.y + 6 * i, { width: 160, align: 'center' }),
  );
  pdf.restore();
  // Marks at the corners, by which sheets are laid on one another.
  pdf.lineWidth(0.2).strokeColor('#000').rect(EDGE_MM, EDGE_MM, seen.widthMm, seen.heightMm).stroke();
  const foot = EDGE_MM + seen.heightMm + 5;
  pdf
    .lineWidth(0.6)
    .moveTo(EDGE_MM, foot)
    .lineTo(EDGE_MM + BAR_MM, foot)
    .stroke();
  pdf
    .fontSize(3)
    .text(
      `This bar is ${BAR_MM} mm long. If it is not, print at 100 %, without fitting to the page.`,
      EDGE_MM,
      foot + 2,
      { width: 150, lineBreak: false },
    );
  if (of > 1)
    pdf.text(`row ${tile.row + 1}, column ${tile.column + 1} of ${of} sheets`, EDGE_MM + 115, foot - 1.5, {
      width: seen.widthMm - 115,
      align: 'right',
      lineBreak: false,
    });
  pdf.restore();
}

/** The template on as many sheets as it takes. */
export function templatePdf(template: Template, words: TemplateWords, paper: Paper): PDFKit.PDFDocument {
  const { widthMm, heightMm } = PAPERS[paper];
  const size: [number, number] = [widthMm * POINTS_PER_MM, heightMm * POINTS_PER_MM];
  const pdf = new PDFDocument({ size, margin: 0, autoFirstPage: false, info: { Title: words.title } });
  const tiles = tilesOf(template, {
    widthMm: widthMm - 2 * EDGE_MM,
    heightMm: heightMm - 2 * EDGE_MM - FOOT_MM,
  });
  for (const tile of tiles) {
    pdf.addPage({ size, margin: 0 });
    sheet(pdf, template, tile, tiles.length, words, paper);
  }
  return pdf;
}
