import { SHEET_SIZES, cornerOf, labelSvg, perPage, type Label, type LabelSheet } from './label';

const POINTS_PER_MM = 72 / 25.4;

/**
 * Labels as a PDF file at true scale. @param skipped how many places of the first sheet are used already
 */
export async function saveLabels(
  labels: readonly Label[],
  of: LabelSheet,
  skipped: number,
  title: string,
): Promise<void> {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  pdfMake.addVirtualFileSystem(fonts);
  const page = of.paper === 'roll' ? of : SHEET_SIZES[of.paper];
  const from = of.paper === 'roll' ? 0 : skipped;
  const content = labels.map((label, at) => {
    const place = at + from;
    const { x, y } = cornerOf(of, place % perPage(of));
    return {
      svg: labelSvg(label, of),
      width: of.widthMm * POINTS_PER_MM,
      height: of.heightMm * POINTS_PER_MM,
      absolutePosition: { x: x * POINTS_PER_MM, y: y * POINTS_PER_MM },
      ...(at > 0 && place % perPage(of) === 0 ? { pageBreak: 'before' as const } : {}),
    };
  });
  await pdfMake
    .createPdf({
      info: { title },
      pageSize: { width: page.widthMm * POINTS_PER_MM, height: page.heightMm * POINTS_PER_MM },
      pageMargins: 0,
      content,
    })
    .download(`${title}.pdf`);
}
