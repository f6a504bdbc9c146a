import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import { drawnPatch } from '../../../tests/support/drawn-lines';
import type { BurnSettings } from '../card/settings';
import type { PictureShape } from '../card/shape';
import { packGreys } from '../picture/greys';
import { drawnWhere, placesOver } from '../picture/line-art';
import { drawingOfCell } from './drawing-of-cell';
import { blurBetween } from './lines/blur';

const settings = { powerFraction: 0.3, intervalMm: 0.1, direction: 'horizontal' } as BurnSettings;
const PLACES = placesOver(4, 2, 0.1);
/** Bars of 0.2 mm, 0.4 mm apart, and one broad one across. */
const isDrawn = (x: number, y: number): boolean =>
  y > 1.6 || (y > 0.2 && y < 1.4 && x > 0.4 && x < 3.6 && x % 0.4 < 0.2);
const wanted = drawnWhere(PLACES, isDrawn);
const BOX = { x: 1, y: 1, width: 4, height: 2 };
const shape: PictureShape = { do: 'picture', box: BOX, wanted, table: null, mode: 'power', floorFraction: 0.3 };
const cell = (change: Partial<PictureShape> = {}) =>
  cellOf(0, { shape: { ...shape, ...change }, settings }, { box: BOX });

const BLUR_MM = 0.02;
const pixel = (pxPerMm: number): number => Math.hypot(BLUR_MM, 1 / Math.sqrt(12) / pxPerMm);
/** A photo of it: drawn places take so much light, those between so much, and all lies aside by so much. */
function photo(taken: number, between = 0, { aside = 0, widerMm = 0, pxPerMm = 46 } = {}) {
  const fine = drawnPatch({
    widthMm: 6,
    heightMm: 4,
    pxPerMm,
    turned: 1.3,
    blurMm: BLUR_MM,
    noise: 0.004,
    share: (x, y) => {
      const [u, v] = [x - 1 - aside, y - 1 - aside];
      const inBox = u >= 0 && v >= 0 && u < 4 && v < 2;
      const drawn = inBox && [-1, 1].some((side) => isDrawn(Math.max(0, u + (side * widerMm) / 2), v));
      return 1 - between - (drawn ? taken : 0);
    },
  });
  return { fine, blur: () => blurBetween(pixel(pxPerMm), pixel(pxPerMm)) };
}

describe('a drawing of a cell', () => {
  it('stands out by what its places take of the light, without what the camera blurs', () => {
    const seen = drawingOfCell(photo(0.6), cell())!;
    // A camera may blur by less than its edges tell: that is in what it claims.
    expect(Math.abs(seen.taken - 0.6)).toBeLessThan(Math.min(0.02, 2 * seen.takenSigma));
    expect(Math.abs(seen.between)).toBeLessThan(0.01);
    expect(seen.takenSigma).toBeLessThan(0.02);
  });
  it('is told where it lies, and by light that is added', () => {
    const aside = drawingOfCell(photo(0.4, 0.1, { aside: 0.12 }), cell())!;
    expect(Math.abs(aside.taken - 0.4)).toBeLessThan(0.015);
    expect(Math.abs(aside.between - 0.1)).toBeLessThan(0.015);
    const brighter = drawingOfCell(photo(-0.5), cell())!;
    expect(Math.abs(brighter.taken + 0.5)).toBeLessThan(0.015);
  });
  it('stands out less the more its gaps are filled', () => {
    const [plain, wide, filled] = [0, 0.08, 0.16].map(
      (widerMm) => drawingOfCell(photo(0.6, 0, { widerMm }), cell())!.taken,
    );
    expect(wide!).toBeLessThan(plain! - 0.05);
    expect(filled!).toBeLessThan(wide! - 0.05);
  });
  it('is less sure where the blur is', () => {
    const told = photo(0.6);
    const unsure = { ...told, blur: () => blurBetween(0.01, 0.06) };
    const [sure, doubted] = [told, unsure].map((one) => drawingOfCell(one, cell())!);
    expect(doubted!.takenSigma).toBeGreaterThan(2 * sure!.takenSigma);
    // By the way whose edges are sharper.
    const oneWay = {
      ...told,
      blur: (run: string) => (run === 'vertical' ? blurBetween(pixel(46), pixel(46)) : blurBetween(0.09, 0.1)),
    };
    expect(drawingOfCell(oneWay, cell())!.taken).toBeCloseTo(sure!.taken, 9);
    expect(
      drawingOfCell({ ...told, blur: (run: string) => (run === 'vertical' ? told.blur() : null) }, cell())!.taken,
    ).toBeCloseTo(sure!.taken, 9);
  });
  it('is not told of greys, of what goes through a table, of other burns, by few pixels or an unknown blur', () => {
    const seen = photo(0.6);
    const bytes = new Uint8Array(PLACES.columns * PLACES.rows).fill(90);
    expect(drawingOfCell(seen, cell({ wanted: packGreys(PLACES.columns, PLACES.rows, bytes) }))).toBeNull();
    expect(drawingOfCell(seen, cell({ wanted: packGreys(PLACES.columns, PLACES.rows, bytes.fill(255)) }))).toBeNull();
    expect(drawingOfCell(seen, cell({ wanted: packGreys(PLACES.columns, PLACES.rows, bytes.fill(0)) }))).toBeNull();
    expect(drawingOfCell(seen, cell({ table: [0, 1] }))).toBeNull();
    expect(drawingOfCell(seen, { burns: [...cell().burns, ...cell().burns] })).toBeNull();
    expect(drawingOfCell(seen, { burns: [] })).toBeNull();
    expect(drawingOfCell(photo(0.6, 0, { pxPerMm: 14 }), cell())).toBeNull();
    expect(drawingOfCell(photo(0.6, 0, { pxPerMm: 15 }), cell())).not.toBeNull();
    // A tenth of a millimetre has too few pixels, and what the photo shows nothing of has none.
    const small = { ...BOX, width: 0.2, height: 0.1 };
    expect(drawingOfCell(seen, cell({ box: small }))).toBeNull();
    expect(drawingOfCell(seen, cell({ box: { ...BOX, x: 30 } }))).toBeNull();
    expect(drawingOfCell({ ...seen, blur: () => null }, cell())).toBeNull();
  });
});
