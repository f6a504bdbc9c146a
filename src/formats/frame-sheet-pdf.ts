import { grayscale, PDFDocument, StandardFonts, type PDFFont, type PDFPage } from 'pdf-lib';
import type { Rect } from '../core/geometry/point';
import { FORMAT_NAMES, GREY_STEPS, type FrameSheet } from '../core/sheet/frame-sheet';
import { markerBars } from '../core/sheet/marker-bars';

const POINTS_PER_MM = 72 / 25.4;
const BLACK = grayscale(0);
const SOFT = grayscale(0.45);
const SMALL_PT = 6;
const TEXT_PT = 8.5;
const TITLE_PT = 11;
const TICK_MM = 2;

/** A page on which places are mm of the sheet, x right and y down. */
class MmPage {
  constructor(
    private readonly page: PDFPage,
    private readonly origin: { readonly x: number; readonly y: number },
  ) {}

  private readonly x = (mm: number): number => (mm + this.origin.x) * POINTS_PER_MM;
  private readonly y = (mm: number): number => this.page.getHeight() - (mm + this.origin.y) * POINTS_PER_MM;

  box({ x, y, width, height }: Rect, bare: number): void {
    this.page.drawRectangle({
      x: this.x(x),
      y: this.y(y + height),
      width: width * POINTS_PER_MM,
      height: height * POINTS_PER_MM,
      color: grayscale(bare),
    });
  }

  outline({ x, y, width, height }: Rect): void {
    this.page.drawRectangle({
      x: this.x(x),
      y: this.y(y + height),
      width: width * POINTS_PER_MM,
      height: height * POINTS_PER_MM,
      borderColor: SOFT,
      borderWidth: 0.5,
      borderDashArray: [3, 3],
    });
  }

  line(x: number, y: number, toX: number, toY: number): void {
    this.page.drawLine({
      start: { x: this.x(x), y: this.y(y) },
      end: { x: this.x(toX), y: this.y(toY) },
      thickness: 0.5,
      color: BLACK,
    });
  }

  /** Text whose middle, or left end, lies at a place of its base line. */
  text(words: string, x: number, y: number, font: PDFFont, size: number, middle = false): void {
    const left = this.x(x) - (middle ? font.widthOfTextAtSize(words, size) / 2 : 0);
    this.page.drawText(words, { x: left, y: this.y(y), font, size, color: SOFT });
  }
}

/**
 * A frame sheet as a PDF page of its paper at true size, in shades of grey alone: markers, greys with their numbers, the window's outline and a
 * rule of 100 mm. Equal sheets give equal bytes. Open format: ISO 32000.
 */
export async function frameSheetPdf(sheet: FrameSheet): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  const made = new Date(0);
  file.setTitle(`Frame sheet, ${FORMAT_NAMES[sheet.format]}`);
  file.setProducer('Glass Ladder');
  file.setCreator('Glass Ladder');
  file.setCreationDate(made);
  file.setModificationDate(made);
  const [font, bold] = [
    await file.embedFont(StandardFonts.Helvetica),
    await file.embedFont(StandardFonts.HelveticaBold),
  ];
  const { paper, onPaper, window, rule } = sheet;
  const page = new MmPage(file.addPage([paper.widthMm * POINTS_PER_MM, paper.heightMm * POINTS_PER_MM]), onPaper);
  for (const { id, x, y, sizeMm } of sheet.markers) for (const bar of markerBars(id, x, y, sizeMm)) page.box(bar, 0);
  for (const { side, step, box } of sheet.patches) {
    if (GREY_STEPS[step]! < 1) page.box(box, GREY_STEPS[step]!);
    // Numbers stand on the window's side of their grey.
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const beside = box.width / 2 + 2.4;
    const across = side === 'left' ? beside : side === 'right' ? -beside : 0;
    const down = side === 'top' ? beside + 0.6 : side === 'bottom' ? -beside + 1 : 0.7;
    page.text(String(step), x + across, y + down, font, SMALL_PT, true);
  }
  page.outline(window);
  for (let mm = 0; mm <= rule.lengthMm; mm += 10) {
    const long = mm % 50 === 0 ? 1.6 : 1;
    page.line(rule.x + mm, rule.y - TICK_MM * long, rule.x + mm, rule.y);
  }
  page.line(rule.x, rule.y, rule.x + rule.lengthMm, rule.y);
  page.text(`${rule.lengthMm} mm: measure this line`, rule.x + rule.lengthMm / 2, rule.y + 4, font, TEXT_PT, true);
  const words = window.x + 4;
  page.text(`Frame sheet, ${FORMAT_NAMES[sheet.format]}`, words, window.y + 10, bold, TITLE_PT);
  [
    'Print at 100 %, in black and white, on white paper. Not “fit to page”.',
    'Measure the line below: it must be 100 mm long.',
    'Lay the card inside the dashed window. Keep all four corners in the photo.',
  ].forEach((line, index) => page.text(line, words, window.y + 17 + 5 * index, font, TEXT_PT));
  return file.save({ useObjectStreams: false });
}
