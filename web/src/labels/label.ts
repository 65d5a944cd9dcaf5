import { code128, drawingSVG, qrcode } from 'bwip-js/browser';

/** What a label says. */
export interface Label {
  id: string;
  /** In large letters: a frame’s tag, a part’s name. */
  title: string;
  lines: readonly string[];
  /** What a scanner reads off the bars: a tag. */
  code: string;
  /** What a camera reads off the picture: an address. */
  address: string;
}

/** Where labels are on a sheet, or one after the other on a roll; all in mm. */
export interface LabelSheet {
  paper: 'a4' | 'letter' | 'roll';
  widthMm: number;
  heightMm: number;
  columns: number;
  rows: number;
  leftMm: number;
  topMm: number;
  /** Between one label and the next, sideways and down. */
  gapXMm: number;
  gapYMm: number;
}

export const SHEET_SIZES = {
  a4: { widthMm: 210, heightMm: 297 },
  letter: { widthMm: 215.9, heightMm: 279.4 },
} as const;
const roll = (widthMm: number, heightMm: number): LabelSheet => ({
  paper: 'roll',
  widthMm,
  heightMm,
  columns: 1,
  rows: 1,
  leftMm: 0,
  topMm: 0,
  gapXMm: 0,
  gapYMm: 0,
});
const sheet = (
  paper: 'a4' | 'letter',
  columns: number,
  rows: number,
  widthMm: number,
  heightMm: number,
  gapXMm = 0,
): LabelSheet => {
  const of = SHEET_SIZES[paper];
  const left = (of.widthMm - columns * widthMm - (columns - 1) * gapXMm) / 2;
  const top = (of.heightMm - rows * heightMm) / 2;
  return { paper, widthMm, heightMm, columns, rows, leftMm: left, topMm: top, gapXMm, gapYMm: 0 };
};
/** Usual sizes, named by their measures. */
export const USUAL_SHEETS: { title: string; sheet: LabelSheet }[] = [
  { title: 'A4, 3 × 8 labels of 70 × 37 mm', sheet: sheet('a4', 3, 8, 70, 37) },
  { title: 'A4, 3 × 10 labels of 70 × 29.7 mm', sheet: sheet('a4', 3, 10, 70, 29.7) },
  { title: 'A4, 2 × 7 labels of 99 × 38 mm', sheet: sheet('a4', 2, 7, 99, 38) },
  { title: 'Letter, 3 × 10 labels of 66.7 × 25.4 mm', sheet: sheet('letter', 3, 10, 66.7, 25.4, 3.1) },
  { title: 'Roll, 60 × 30 mm', sheet: roll(60, 30) },
  { title: 'Roll, 50 × 25 mm', sheet: roll(50, 25) },
];

/** How many labels one page takes. */
export const perPage = ({ paper, columns, rows }: LabelSheet): number =>
  paper === 'roll' ? 1 : columns * rows;

/** What is wrong with a sheet; empty where nothing is. */
export function sheetProblem(of: LabelSheet): string {
  if (!(of.widthMm >= 35 && of.widthMm <= 200 && of.heightMm >= 20 && of.heightMm <= 150))
    return 'A label is 35 to 200 mm wide and 20 to 150 mm high.';
  if (of.paper === 'roll') return '';
  const whole = (n: number): boolean => Number.isInteger(n) && n >= 1;
  if (!whole(of.columns) || !whole(of.rows))
    return 'Say how many labels are side by side, and how many rows.';
  const size = SHEET_SIZES[of.paper];
  const wide = of.leftMm + of.columns * of.widthMm + (of.columns - 1) * of.gapXMm;
  const high = of.topMm + of.rows * of.heightMm + (of.rows - 1) * of.gapYMm;
  const fits = wide <= size.widthMm + 0.05 && high <= size.heightMm + 0.05;
  return fits && of.leftMm >= 0 && of.topMm >= 0
    ? ''
    : 'So many labels of this size are larger than the sheet.';
}

/** The upper left corner of a label on its page, mm. @param place from 0, along the rows */
export function cornerOf(of: LabelSheet, place: number): { x: number; y: number } {
  if (of.paper === 'roll') return { x: 0, y: 0 };
  const [column, row] = [place % of.columns, Math.floor(place / of.columns)];
  return {
    x: of.leftMm + column * (of.widthMm + of.gapXMm),
    y: of.topMm + row * (of.heightMm + of.gapYMm),
  };
}

/** White at the edge of a label: no printer meets it exactly, mm. */
const EDGE = 2;
/** A camera reads no finer squares, and a scanner no finer bars, than these (from memory), mm. */
const FINEST_SQUARE = 0.33;
const FINEST_BAR = 0.19;
/** Wide enough for any scanner. */
const USUAL_BAR = 0.33;
/** Both need white beside them: four squares, ten bars (ISO/IEC 18004, 15417). */
const QUIET_SQUARES = 4;
const QUIET_BARS = 10;

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const short = (mm: number): string => String(Number(mm.toFixed(3)));

/** A drawing of the package, without its frame: its size in its own units and what is in it. */
function inside(svg: string): { width: number; height: number; drawn: string } {
  const [, width = '1', height = '1'] = /viewBox="0 0 (\d+) (\d+)"/.exec(svg) ?? [];
  return {
    width: Number(width),
    height: Number(height),
    drawn: svg
      .replace(/<svg[^>]*>/, '')
      .replace('</svg>', '')
      .trim(),
  };
}
const placed = (
  { width, height, drawn }: ReturnType<typeof inside>,
  x: number,
  y: number,
  wide: number,
  high: number,
): string =>
  `<g transform="translate(${short(x)} ${short(y)}) scale(${(wide / width).toFixed(5)} ${(high / height).toFixed(5)})">${drawn}</g>`;

/** How wide letters are for their height, on the average of both fonts that draw them. */
const LETTER = 0.52;
/** A line of text that fits: smaller where it is long, and cut off with a mark where it would be too small to read. */
function line(text: string, x: number, y: number, size: number, wide: number, bold = false): string {
  const fitting = wide / (LETTER * (bold ? 1.08 : 1) * Math.max(1, text.length));
  const height = Math.max(Math.min(size, fitting), 0.6 * size);
  const most = Math.floor(wide / (LETTER * (bold ? 1.08 : 1) * height));
  const said = text.length > most ? `${text.slice(0, Math.max(1, most - 1)).trimEnd()}…` : text;
  const weight = bold ? ' font-weight="bold"' : '';
  return `<text x="${short(x)}" y="${short(y)}" font-size="${short(height)}"${weight}>${escaped(said)}</text>`;
}

/** The characters that the bars can say. */
const isPlain = (code: string): boolean => /^[\x20-\x7e]+$/.test(code);

/** Whether bars for a code fit on a label. */
export function barsFit({ widthMm, heightMm }: LabelSheet, code: string): boolean {
  if (!isPlain(code) || heightMm < 24) return false;
  const bars = inside(code128({ bcid: 'code128', text: code }, drawingSVG())).width / 2;
  return (widthMm - 2 * EDGE) / (bars + QUIET_BARS) >= FINEST_BAR;
}

/** A label as a drawing whose unit is a mm, its upper left corner at the origin. */
export function labelDrawing(label: Label, of: LabelSheet): string {
  const { widthMm, heightMm } = of;
  const qr = inside(qrcode({ bcid: 'qrcode', text: label.address }, drawingSVG()));
  const squares = qr.width / 4;
  const hasBars = barsFit(of, label.code);
  const barHeight = hasBars ? Math.min(8, 0.24 * heightMm) : 0;
  const room = heightMm - 2 * EDGE - (hasBars ? barHeight + 1.2 : 0);
  // As large as the height has room for, a third of the width at most, and never too fine for a camera.
  const side = Math.min(
    Math.max(Math.min(room, 0.34 * widthMm), FINEST_SQUARE * squares),
    heightMm - 2 * EDGE,
  );
  const qrX = widthMm - EDGE - side;
  const wide = qrX - QUIET_SQUARES * (side / squares) - EDGE;
  const titleSize = Math.min(6.5, 0.3 * room);
  const rest = room - titleSize - 0.6;
  const size = Math.min(3.4, rest / (1.25 * Math.max(1, label.lines.length)));
  const parts = [line(label.title, EDGE, EDGE + 0.85 * titleSize, titleSize, wide, true)];
  label.lines.forEach((said, at) =>
    parts.push(line(said, EDGE, EDGE + titleSize + 0.6 + (at + 0.85) * 1.25 * size, size, wide)),
  );
  parts.push(placed(qr, qrX, EDGE, side, side));
  if (hasBars) {
    const bars = inside(code128({ bcid: 'code128', text: label.code }, drawingSVG()));
    const modules = bars.width / 2;
    const bar = Math.min(USUAL_BAR, (widthMm - 2 * EDGE) / (modules + QUIET_BARS));
    const x = EDGE + (QUIET_BARS / 2) * bar;
    parts.push(placed(bars, x, heightMm - EDGE - barHeight, bar * modules, barHeight));
  }
  return parts.join('\n');
}

/** A label as a whole drawing, in mm. */
export const labelSvg = (label: Label, of: LabelSheet): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${short(of.widthMm)}mm" height="${short(of.heightMm)}mm" viewBox="0 0 ${short(of.widthMm)} ${short(of.heightMm)}" fill="#000" font-family="sans-serif">${labelDrawing(label, of)}</svg>`;
