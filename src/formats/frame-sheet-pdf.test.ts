import { inflateSync } from 'node:zlib';
import { PDFDocument } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import { frameSheet, GREY_STEPS, SHEET_FORMATS } from '../core/sheet/frame-sheet';
import { frameSheetPdf } from './frame-sheet-pdf';

/** Drawing operators of a page's content, as ISO 32000-1 (8.5, 8.6) has them: matrices, lines, fills and greys. Nothing of the library is asked. */
function drawn(bytes: Uint8Array): {
  boxes: { x: number; y: number; width: number; height: number; grey: number }[];
  text: string;
} {
  const file = Buffer.from(bytes);
  const from = file.indexOf('stream', file.indexOf('/FlateDecode')) + 'stream'.length;
  const start = file[from] === 13 ? from + 2 : from + 1;
  const text = inflateSync(file.subarray(start, file.indexOf('endstream', start))).toString('latin1');
  const boxes: ReturnType<typeof drawn>['boxes'] = [];
  let [grey, x, y] = [NaN, 0, 0];
  let path: [number, number][] = [];
  const numbers: number[] = [];
  for (const token of text.split(/\s+/)) {
    if (/^-?[\d.]+(e-?\d+)?$/.test(token)) {
      numbers.push(Number(token));
      continue;
    }
    const taken = numbers.splice(0);
    if (token === 'q') [x, y] = [0, 0];
    else if (token === 'cm') [x, y] = [x + taken[4]!, y + taken[5]!];
    else if (token === 'g') grey = taken[0]!;
    else if (token === 'm') path = [[taken[0]!, taken[1]!]];
    else if (token === 'l') path.push([taken[0]!, taken[1]!]);
    else if (token === 'f' && path.length >= 4) {
      const [xs, ys] = [path.map(([u]) => u), path.map(([, v]) => v)];
      const [width, height] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
      boxes.push({ x: x + Math.min(...xs), y: y + Math.min(...ys), width, height, grey });
    }
  }
  return { boxes, text };
}

const MM = 25.4 / 72;

describe.each(SHEET_FORMATS)('the %s sheet as PDF', (format) => {
  const sheet = frameSheet(format);
  it('is one page of its paper, with each grey and marker at its place to a hundredth of a millimetre', async () => {
    const bytes = await frameSheetPdf(sheet);
    const [page, ...more] = (await PDFDocument.load(bytes)).getPages();
    expect(more).toEqual([]);
    expect(page!.getWidth() * MM).toBeCloseTo(sheet.paper.widthMm, 2);
    expect(page!.getHeight() * MM).toBeCloseTo(sheet.paper.heightMm, 2);
    const boxes = drawn(bytes).boxes.map(({ x, y, width, height, grey }) => ({
      x: x * MM - sheet.onPaper.x,
      y: sheet.paper.heightMm - (y + height) * MM - sheet.onPaper.y,
      width: width * MM,
      height: height * MM,
      grey,
    }));
    const at = (x: number, y: number) =>
      boxes.filter((box) => x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height);
    for (const { step, box } of sheet.patches) {
      const there = at(box.x + box.width / 2, box.y + box.height / 2);
      if (step === 8) expect(there).toEqual([]);
      else {
        expect(there).toHaveLength(1);
        for (const side of ['x', 'y', 'width', 'height'] as const) expect(there[0]![side]).toBeCloseTo(box[side], 2);
        expect(there[0]!.grey).toBeCloseTo(GREY_STEPS[step]!, 6);
      }
    }
    // A marker's border is burned all around: here black.
    for (const { x, y, sizeMm } of sheet.markers)
      for (const share of [0.06, 0.5, 0.94]) {
        expect(at(x + share * sizeMm, y + 0.06 * sizeMm)[0]!.grey).toBe(0);
        expect(at(x + 0.06 * sizeMm, y + share * sizeMm)[0]!.grey).toBe(0);
      }
  });
  it('has the number of each grey beside it, on the window’s side', async () => {
    const { text } = drawn(await frameSheetPdf(sheet));
    const words = [...text.matchAll(/1 0 0 1 (-?[\d.]+) (-?[\d.]+) Tm\s+<([0-9A-F]+)> Tj/g)].map(([, x, y, hex]) => ({
      x: Number(x) * MM - sheet.onPaper.x,
      y: sheet.paper.heightMm - Number(y) * MM - sheet.onPaper.y,
      said: Buffer.from(hex!, 'hex').toString('latin1'),
    }));
    expect(words.find(({ said }) => said.startsWith('Frame sheet, '))!.said).toMatch(/^Frame sheet, (A\d|Letter)$/);
    for (const { side, step, box } of sheet.patches) {
      const [middleX, middleY] = [box.x + box.width / 2, box.y + box.height / 2];
      const near = words.filter(({ x, y }) => Math.hypot(x - middleX, y - middleY) < box.width / 2 + 4);
      expect(
        near.map(({ said }) => said),
        `${side} ${step}`,
      ).toEqual([String(step)]);
      const { x, y } = near[0]!;
      if (side === 'left' || side === 'right') expect(Math.sign(x - middleX)).toBe(side === 'left' ? 1 : -1);
      else expect(Math.sign(y - middleY)).toBe(side === 'top' ? 1 : -1);
    }
  });
  it('has a rule of 100 mm', async () => {
    const { text } = drawn(await frameSheetPdf(sheet));
    const lines = [...text.matchAll(/(-?[\d.]+) (-?[\d.]+) m\s+(-?[\d.]+) (-?[\d.]+) l\s+S/g)].map((match) =>
      match.slice(1).map(Number),
    );
    const across = lines.filter(([, y, , toY]) => y === toY).map(([x, , toX]) => (toX! - x!) * MM);
    expect(Math.max(...across)).toBeCloseTo(100, 2);
    const ticks = lines
      .filter(([x, , toX]) => x === toX)
      .map(([x, y, , toY]) => ({ x: x!, long: Math.abs(toY! - y!) }));
    ticks.sort((a, b) => a.x - b.x);
    expect(ticks).toHaveLength(11);
    // Every fifth is longer, for the eye.
    for (const [at, { long }] of ticks.entries()) expect(long * MM).toBeCloseTo(at % 5 === 0 ? 3.2 : 2, 2);
  });
  it('is the same to the byte each time', async () => {
    expect(Buffer.from(await frameSheetPdf(sheet)).equals(Buffer.from(await frameSheetPdf(sheet)))).toBe(true);
  });
});
