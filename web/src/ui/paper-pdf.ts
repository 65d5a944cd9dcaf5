/** What of a drawing is set by style sheets, which a PDF does not know. */
const DRAWN = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-dasharray',
  'opacity',
  'font-size',
  'font-weight',
  'text-anchor',
  'dominant-baseline',
];
/** Signs that the font of the file does not have. */
const SIGNS: Record<string, string> = { '✓': '[x]', '⚠': '!', '⟂': '' };
const POINTS_WIDE = 515;

/** Writes what style sheets say of a drawing into the drawing. */
function inkIn(svg: SVGSVGElement): void {
  for (const el of [svg, ...svg.querySelectorAll<SVGElement>('*')]) {
    const style = getComputedStyle(el);
    if (style.display === 'none' || style.visibility === 'hidden') {
      el.setAttribute('display', 'none');
      continue;
    }
    for (const name of DRAWN) el.setAttribute(name, style.getPropertyValue(name));
    // The halo of a text lies under it on the page; in the file it would lie over it.
    if (el.tagName === 'text') el.setAttribute('stroke', 'none');
    el.removeAttribute('style');
    el.removeAttribute('class');
  }
  const own = ['width', 'height'].map((side) => Number(svg.getAttribute(side)));
  const [width = 0, height = 0] = own;
  if (!(width > 0 && height > 0)) {
    // An icon beside words that say the same.
    svg.remove();
    return;
  }
  svg.setAttribute('viewBox', `0 0 ${width} ${height}`);
  svg.setAttribute('width', String(POINTS_WIDE));
  svg.setAttribute('height', String((POINTS_WIDE * height) / width));
}

/**
 * A part of the page that is meant for paper as a PDF file: words, tables and drawings are read off the page, so that file and print say the same.
 * @param title what stands over it and names the file
 */
export async function savePdf(article: HTMLElement, title: string): Promise<void> {
  const [{ default: pdfMake }, { default: fonts }, { default: htmlToPdfmake }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
    import('html-to-pdfmake'),
  ]);
  // Ink is dark whatever the screen shows: a copy is laid out in the light theme, out of sight.
  const host = document.createElement('div');
  host.className = 'v-theme--light paper-copy';
  host.setAttribute('aria-hidden', 'true');
  const copy = article.cloneNode(true) as HTMLElement;
  copy.classList.remove('print-only');
  host.append(copy);
  document.body.append(host);
  const said = [...(document.querySelector('.paper-head')?.children ?? [])].map((el) =>
    el.textContent.trim(),
  );
  const head = said.filter((words) => words !== '').join(' · ');
  try {
    for (const svg of copy.querySelectorAll('svg')) inkIn(svg);
    for (const gone of copy.querySelectorAll('.d-sr-only, button, .no-print')) gone.remove();
    for (const box of copy.querySelectorAll('.box')) {
      box.nextElementSibling?.prepend(box.textContent ? '✓ ' : '[  ] ');
      box.remove();
    }
    const content = htmlToPdfmake(copy.innerHTML, {
      ignoreStyles: ['font-family', 'color', 'background-color', 'background'],
      replaceText: (text) => text.replaceAll(/[✓⚠⟂]/g, (sign) => SIGNS[sign] ?? sign),
      defaultStyles: { li: { marginLeft: 0 }, th: { bold: true, fillColor: '' } },
    });
    pdfMake.addVirtualFileSystem(fonts);
    await pdfMake
      .createPdf({
        info: { title },
        pageSize: 'A4',
        pageMargins: [40, 50, 40, 44],
        defaultStyle: { fontSize: 10, lineHeight: 1.15 },
        header: { text: head, margin: [40, 22, 40, 0], fontSize: 9 },
        footer: (page, of) => ({
          text: `${page} of ${of}`,
          alignment: 'right',
          margin: [40, 12],
          fontSize: 9,
        }),
        content,
      })
      .download(`${title.replaceAll(/[^\p{L}\p{N} ._-]/gu, '-')}.pdf`);
  } finally {
    host.remove();
  }
}
