import { createHash } from 'node:crypto';
import { exposureRatio, secondExposureOf, STOPS_LESS } from '../core/reading/tone/exposure';
import type { GreysFault } from '../core/reading/sheet/measure-greys';
import { frameSheet, type SheetFormat } from '../core/sheet/frame-sheet';
import * as sheets from '../db/frame-sheets';
import { requeuePhoto } from '../db/photos';
import { readByUnmeasuredSheet } from '../db/readings';
import { frameSheetPdf } from '../formats/frame-sheet-pdf';
import type { FrameSheetRecord } from '../records/frame-sheet';
import type { AppContext } from './context';
import { headerOf, photoTypeOf } from './photos';
import { printOrder } from './print-order';
import { notFound, Problem } from './problems';

/** How far the rule of a print may be from 100 mm: more is a printer that shrank the page to fit, and a rule that was read wrong. */
const MOST_OFF_MM = 0.5;

/** Why two photos did not tell a sheet's greys, in words. */
const FAULTS: Readonly<Record<GreysFault | 'damaged', string>> = {
  'no-sheet': 'At least three of the sheet’s four corner markers must be seen in both photos.',
  'two-formats': 'The two photos show sheets of two formats.',
  'sheet-not-flat': 'The sheet is not flat: it is folded, or its edges curl. Lay it down or tape it to the table.',
  'greys-out-of-order':
    'The greys do not grow lighter from 0 to 8. Print the sheet again, in black and white and without “toner saving”.',
  clipped: 'In the brighter photo the paper is as bright as the camera can tell. Take both photos darker.',
  'no-curve': 'The two photos do not tell one curve of tones. The light must be alike in both.',
  'too-pale':
    'The darkest grey is too pale: it sends back over a fifth of what paper does. Print the sheet again with more ink.',
  uneven:
    'Greys of one number differ from side to side: the print is streaky, or a shadow or a reflection lies over a part of it.',
  damaged: 'One of the photos cannot be opened.',
};

export async function getFrameSheet(ctx: AppContext, id: number): Promise<FrameSheetRecord> {
  const sheet = await sheets.frameSheetById(ctx.db, id);
  if (!sheet) throw notFound('frame sheet', id);
  return sheet;
}

/** A frame sheet for printing. */
export async function sheetToPrint(format: SheetFormat): Promise<{ readonly bytes: Buffer; readonly name: string }> {
  return { bytes: Buffer.from(await frameSheetPdf(frameSheet(format))), name: `frame-sheet-${format}.pdf` };
}

/** Notes a sheet that was printed, with the length its rule came out at. */
export async function addFrameSheet(
  ctx: AppContext,
  sheet: Pick<FrameSheetRecord, 'name' | 'format' | 'ruleMm'>,
): Promise<FrameSheetRecord> {
  const off = sheet.ruleMm - 100;
  if (Math.abs(off) > MOST_OFF_MM)
    throw new Problem(
      'print-scale',
      `The rule is ${sheet.ruleMm} mm long, and must be 100: the print is ${off < 0 ? 'shrunk' : 'enlarged'} by ${Math.abs(off).toFixed(1)} %.`,
    );
  return getFrameSheet(ctx, await sheets.insertFrameSheet(ctx.db, sheet));
}

function refuseMeasured({ name, measuredAt }: FrameSheetRecord): void {
  if (measuredAt !== null)
    throw new Problem(
      'sheet-measured',
      `The greys of ${name} were measured before.`,
      'What was measured is kept as it is.',
    );
}

/**
 * Takes in a photo of a printed sheet, and measures its greys where another photo of it was taken in the same light, brighter or darker. Two that
 * do not tell them are let go again, with the reason.
 */
export async function receiveSheetPhoto(ctx: AppContext, id: number, bytes: Buffer): Promise<FrameSheetRecord> {
  refuseMeasured(await getFrameSheet(ctx, id));
  await photoTypeOf(bytes);
  const { exposure } = await headerOf(bytes);
  if (!exposure)
    throw new Problem(
      'photo-without-exposure',
      'The photo does not say how it was exposed: programs that send pictures often take that out.',
    );
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  await sheets.insertSheetPhoto(ctx.db, { frameSheetId: id, bytes, exposure, sha256 });
  await measure(ctx, id);
  return getFrameSheet(ctx, id);
}

async function measure(ctx: AppContext, id: number): Promise<void> {
  const [newest, ...others] = await sheets.photosOfSheet(ctx.db, id);
  const exposed = (photo: typeof newest) => ({ ...photo!, finish: null });
  const second = newest && secondExposureOf(exposed(newest), others.map(exposed));
  if (!newest || !second) return;
  // The brighter of the two has less noise.
  const [first, other] = second.ratio.logRatio > 0 ? [newest, second.photo] : [second.photo, newest];
  const ratio = exposureRatio(first.exposure, other.exposure)!;
  const answer = await ctx.work.do('measure-greys', { bytes: first.bytes, second: { ...ratio, bytes: other.bytes } });
  const { format } = await getFrameSheet(ctx, id);
  if ('fault' in answer || answer.format !== format) {
    await sheets.dropSheetPhotos(ctx.db, [first.id, other.id]);
    throw new Problem(
      'sheet-not-measured',
      'fault' in answer ? FAULTS[answer.fault] : 'The photos show a sheet of another format than the one you printed.',
      'The sheet is kept; its greys are still to be measured.',
    );
  }
  const again = await ctx.db.transaction().execute(async (tx) => {
    if (!(await sheets.noteGreys(tx, id, answer.greys, answer.scatter))) return [];
    // Photos that were taken with such a sheet before tell more now.
    const photos = await readByUnmeasuredSheet(tx);
    for (const photo of photos) await requeuePhoto(tx, photo, {});
    return photos;
  });
  for (const photo of again) ctx.readings.add(photo);
}

/** Lets the bench's camera take the two photos that a sheet is measured by. */
export async function photographSheet(ctx: AppContext, id: number): Promise<FrameSheetRecord> {
  const sheet = await getFrameSheet(ctx, id);
  refuseMeasured(sheet);
  const order = printOrder(sheet.format);
  for (const stopsLess of [STOPS_LESS, 0]) {
    const shotSeed = `frame sheet ${sheet.format}`;
    const { jpeg } = await ctx.work.do('photograph-sheet', { order, shotSeed, scale: ctx.cameraScale, stopsLess });
    await receiveSheetPhoto(ctx, id, Buffer.from(jpeg));
  }
  return getFrameSheet(ctx, id);
}
