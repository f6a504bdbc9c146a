import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { cardOfFew } from '../../../tests/support/few-cells';
import { drawnPhoto, type DrawnShot } from '../../../tests/support/drawn-card';
import { luminanceOfLightness } from '../color/lab';
import type { Point } from '../geometry/point';
import type { RgbImage } from '../image/raster';
import { LOW_CONFIDENCE } from './observations';
import { readCard } from './read-card';
import { points } from '../../../tests/support/points';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('heron', 'leather');
const { stock } = pairing;
const layCardNumbered = (cardNumber: number) => cardOfFew(pairing, 4, 4, cardNumber);
const layout = layCardNumbered(77);
const { widthMm, heightMm } = layout;

/** From nearly bare to nearly black, no two cells alike. */
const lightnessOf = (index: number): number => stock.bareLightness - 2 - (48 * index) / layout.cells.length;
const SHOT: DrawnShot = { lightnessOf, noise: 1, widthPx: 600, heightPx: 450 };
const photo = drawnPhoto(layout, stock, SHOT);

const read = (image: RgbImage, corners: Point[] | null = null) =>
  readCard({ photo: image, layout, stock, corners, cameraIsTrue: true });
const cellsOf = (result: ReturnType<typeof read>) => {
  if (result.outcome !== 'read') throw new Error(`not read: ${JSON.stringify(result)}`);
  return result.cells;
};

/** The photo with paper laid over places given in card mm. */
function covered(...places: readonly (readonly [x: number, y: number])[]): RgbImage {
  const data = Uint8Array.from(photo.data);
  const reach = 45;
  for (const [x, y] of places) {
    const at = photo.placeOf(x, y);
    for (let v = Math.max(0, Math.round(at.y) - reach); v < Math.min(photo.height, at.y + reach); v++) {
      const from = Math.max(0, Math.round(at.x) - reach);
      data.fill(235, (v * photo.width + from) * 3, (v * photo.width + Math.round(at.x) + reach) * 3);
    }
  }
  return { ...photo, data };
}

/** Two photos beside each other. */
function beside(left: RgbImage, right: RgbImage): RgbImage {
  const data = new Uint8Array(left.data.length + right.data.length);
  const row = left.width * 3;
  for (let y = 0; y < left.height; y++) {
    data.set(left.data.subarray(y * row, (y + 1) * row), y * row * 2);
    data.set(right.data.subarray(y * row, (y + 1) * row), y * row * 2 + row);
  }
  return { data, width: left.width * 2, height: left.height };
}

describe('reading a photo of flat patches', () => {
  it('finds the frame to a few hundredths of a millimetre', () => {
    const result = read(photo);
    expect(result).toMatchObject({ outcome: 'read', markers: 4, alsoSeen: [] });
    if (result.outcome !== 'read') return;
    const [a, b, c, d, e, f, g, h] = result.toPhoto;
    for (const [x, y] of tuples([0, 0], [widthMm / 2, heightMm / 2], [widthMm, heightMm])) {
      const w = g * x + h * y + 1;
      const truth = photo.placeOf(x, y);
      const off = Math.hypot((a * x + b * y + c) / w - truth.x, (d * x + e * y + f) / w - truth.y);
      expect(off / result.photoPxPerMm).toBeLessThan(0.06);
    }
    expect(result.frameErrorMm).toBeLessThan(0.06);
    // The lesser of both directions at the card's middle, by the drawing's own map.
    const [px, py] = [widthMm / 2, heightMm / 2];
    const span = (from: Point, to: Point): number => Math.hypot(to.x - from.x, to.y - from.y);
    const scales = [
      span(photo.placeOf(px - 0.5, py), photo.placeOf(px + 0.5, py)),
      span(photo.placeOf(px, py - 0.5), photo.placeOf(px, py + 0.5)),
    ];
    expect(Math.abs(scales[0]! - scales[1]!)).toBeGreaterThan(0.3);
    expect(result.photoPxPerMm / Math.min(...scales)).toBeCloseTo(1, 2);
  });

  it('tells each patch’s L* as it was drawn, and its distance from bare stock', () => {
    const cells = cellsOf(read(photo));
    expect(cells.map(({ cellIndex }) => cellIndex)).toEqual(layout.cells.map(({ index }) => index));
    for (const cell of cells) {
      expect(Math.abs(cell.lightness - lightnessOf(cell.cellIndex)), `cell ${cell.cellIndex}`).toBeLessThan(0.5);
      expect(cell.deltaLightness).toBeCloseTo(cell.lightness - stock.bareLightness, 6);
      expect(cell.confidence).toBeGreaterThan(LOW_CONFIDENCE);
    }
  });

  it('marks cells far from bare stock where nothing is known of the camera, and none that are near it', () => {
    const known = cellsOf(read(photo));
    const unknown = cellsOf(readCard({ photo, layout, stock, corners: null, cameraIsTrue: false }));
    unknown.forEach((cell, index) => {
      const sure = known[index]!;
      expect(cell.lightness).toBe(sure.lightness);
      // Three tenths of the logarithm of the cell's luminance over bare stock's, as L*.
      const y = luminanceOfLightness(cell.lightness);
      const away = Math.abs(Math.log(y / luminanceOfLightness(stock.bareLightness)));
      const added = (116 / 3) * Math.cbrt(y) * 0.3 * away;
      expect(cell.lightnessSigma / Math.hypot(sure.lightnessSigma, added)).toBeCloseTo(1, 1);
      expect(cell.sharedSigma).toBeGreaterThan(0.9 * added);
      if (added > 1.4) expect(cell, `cell ${index}`).toMatchObject({ doubts: ['tones-unknown'] });
      if (added < 0.8) expect(cell.confidence, `cell ${index}`).toBeGreaterThan(LOW_CONFIDENCE);
    });
    expect(unknown.filter(({ confidence }) => confidence < LOW_CONFIDENCE).length).toBeGreaterThan(8);
    expect(unknown.filter(({ confidence }) => confidence >= LOW_CONFIDENCE).length).toBeGreaterThan(0);
  });

  it('divides out light that falls from one side and from a corner', () => {
    for (const light of [(u: number) => 0.25 + 0.6 * u, (u: number, v: number) => 0.9 - 0.35 * u - 0.3 * v]) {
      const cells = cellsOf(read(drawnPhoto(layout, stock, { ...SHOT, light })));
      for (const cell of cells)
        expect(Math.abs(cell.lightness - lightnessOf(cell.cellIndex)), `cell ${cell.cellIndex}`).toBeLessThan(1);
    }
  });

  it('takes away a lamp’s reflection, and says of each cell how unsure that leaves it', () => {
    const lamp = (u: number, v: number): number =>
      0.12 * Math.exp(-(((u - 0.4) / 0.22) ** 2) - ((v - 0.4) / 0.22) ** 2);
    const plain = cellsOf(read(photo));
    const cells = cellsOf(read(drawnPhoto(layout, stock, { ...SHOT, added: lamp })));
    const lit = cells.filter(({ cellIndex }) => {
      const { box } = layout.cells[cellIndex]!;
      const at = photo.placeOf(box.x + box.width / 2, box.y + box.height / 2);
      return lamp(at.x / photo.width, at.y / photo.height) > 0.06;
    });
    expect(lit.length).toBeGreaterThan(5);
    for (const cell of lit) {
      const off = Math.abs(cell.lightness - lightnessOf(cell.cellIndex));
      expect(off, `cell ${cell.cellIndex}`).toBeLessThan(Math.max(2, 3 * cell.lightnessSigma));
    }
    // The darkest cell is the one that added light changes most.
    const darkest = lit.at(-1)!;
    const before = plain.find(({ cellIndex }) => cellIndex === darkest.cellIndex)!;
    expect(darkest.lightnessSigma).toBeGreaterThan(5 * before.lightnessSigma);
  });

  describe('of a camera that bends tones', () => {
    // An S through black, middle and white: what phones do to please.
    const bends = (encoded: number): number => encoded - 0.1 * Math.sin(2 * Math.PI * encoded);
    const shot = (share: number, rest: DrawnShot = SHOT) =>
      drawnPhoto(layout, stock, { ...rest, bends, light: (u) => share * (0.7 + 0.2 * u) });
    const bright = shot(1);
    const readWith = (second: RgbImage, logRatio: number) =>
      readCard({
        photo: bright,
        layout,
        stock,
        corners: null,
        cameraIsTrue: true,
        second: { photo: second, logRatio, logRatioSigma: 0.005 },
      });
    const offOf = (result: ReturnType<typeof read>) =>
      cellsOf(result).map((cell) => Math.abs(cell.lightness - lightnessOf(cell.cellIndex)));
    it('is off by many L* from one photo, and told right from two, one of them with half the light', () => {
      expect(Math.max(...offOf(read(bright)))).toBeGreaterThan(4);
      const result = readWith(shot(0.5), Math.log(2));
      for (const [index, off] of offOf(result).entries()) expect(off, `cell ${index}`).toBeLessThan(1);
      expect(result).toMatchObject({ tones: { told: 'by-two' } });
      // By hand: a tone of 0.018 beside one of 0.5 to 0.6 has 4.3 to 4.4 times the light that it is stored with; less the doubt that is left.
      const { bentBy } = (result as { tones: { bentBy: number } }).tones;
      expect(bentBy).toBeGreaterThan(2.5);
      expect(bentBy).toBeLessThan(3.8);
      expect(read(bright)).toMatchObject({ tones: { told: 'by-one-photo' } });
    });
    it('is told by a second photo from elsewhere, and by a brighter one', () => {
      const corners = points([0.2, 0.1], [0.8, 0.16], [0.9, 0.86], [0.1, 0.8]);
      for (const off of offOf(
        readWith(
          drawnPhoto(layout, stock, { ...SHOT, bends, corners, light: (u, v) => 0.5 * (0.7 + 0.2 * u + 0 * v) }),
          Math.log(2),
        ),
      ))
        expect(off).toBeLessThan(1.5);
      const brighter = readCard({
        photo: shot(0.5),
        layout,
        stock,
        corners: null,
        cameraIsTrue: true,
        second: { photo: bright, logRatio: -Math.log(2), logRatioSigma: 0.005 },
      });
      for (const off of offOf(brighter)) expect(off).toBeLessThan(1.5);
    });
    it('leaves the cells as unsure as the exposures’ ratio', () => {
      const sigmas = (logRatioSigma: number) =>
        cellsOf(
          readCard({
            photo: bright,
            layout,
            stock,
            corners: null,
            cameraIsTrue: true,
            second: { photo: shot(0.5), logRatio: Math.log(2), logRatioSigma },
          }),
        ).map(({ lightnessSigma }) => lightnessSigma);
      // By hand, for the darkest: 10 % of ln(Y / Ybare), times 116/3 Y^(1/3) = (L* + 16) / 3.
      const dark = layout.cells.length - 1;
      const [told, bare] = [luminanceOfLightness(lightnessOf(dark)), luminanceOfLightness(stock.bareLightness)];
      const part = 0.1 * Math.log(bare / told) * ((lightnessOf(dark) + 16) / 3);
      expect(sigmas(0.1 * Math.log(2))[dark]!).toBeGreaterThan(0.9 * part);
      expect(sigmas(0.1 * Math.log(2))[dark]!).toBeLessThan(1.2 * part);
      expect(sigmas(0)[dark]!).toBeLessThan(0.5 * part);
    });
    it('is read as by one photo where the second shows no card, or was told the wrong way round, and that is said', () => {
      const empty = { ...bright, data: new Uint8Array(bright.data.length).fill(90) };
      expect(readWith(empty, Math.log(2))).toMatchObject({ tones: { told: 'not-told', why: 'not-found' } });
      const wrong = readWith(shot(0.5), -Math.log(2));
      expect(wrong).toMatchObject({ tones: { told: 'not-told', why: 'no-curve' } });
      expect(cellsOf(wrong)).toEqual(cellsOf(read(bright)));
    });
  });

  it('reads marks brighter than bare stock by the same measure', () => {
    const brighter = (index: number): number => stock.bareLightness + 2 + (25 * index) / layout.cells.length;
    const shot = { ...SHOT, lightnessOf: brighter, markerLightness: 12, light: () => 0.5 };
    const cells = cellsOf(read(drawnPhoto(layout, stock, shot)));
    for (const cell of cells) {
      expect(Math.abs(cell.lightness - brighter(cell.cellIndex))).toBeLessThan(0.5);
      expect(cell.deltaLightness).toBeGreaterThan(0);
    }
  });

  it('goes on with three markers, and asks for corners with fewer', () => {
    expect(read(covered([2, 2]))).toMatchObject({ outcome: 'read', markers: 3 });
    expect(read(covered([2, 2], [widthMm - 2, 2], [2, heightMm - 2]))).toMatchObject({
      outcome: 'needs-corners',
      markers: 1,
    });
  });

  it('is read upside down and from either side, the frame says which way is up', () => {
    for (const turn of [1, 2, 3]) {
      const corners = points([0.16, 0.14], [0.86, 0.1], [0.84, 0.88], [0.12, 0.9]);
      const turned = corners.map((_, index) => corners[(index + turn) % 4]!);
      for (const cell of cellsOf(read(drawnPhoto(layout, stock, { ...SHOT, corners: turned }))))
        expect(Math.abs(cell.lightness - lightnessOf(cell.cellIndex)), `turned ${turn}`).toBeLessThan(0.6);
    }
  });

  it('reads with corners dragged by hand a few pixels beside, where no marker can be seen', () => {
    const slip = 2;
    const corners = tuples([0, 0], [widthMm, 0], [widthMm, heightMm], [0, heightMm]).map(([x, y], index) => {
      const place = photo.placeOf(x, y);
      return { x: place.x + (index % 2 === 0 ? slip : -slip), y: place.y - slip };
    });
    const result = read(covered([2, 2], [widthMm - 2, 2], [2, heightMm - 2]), corners);
    const trusted = cellsOf(result).filter((cell) => cell.confidence >= LOW_CONFIDENCE);
    expect(trusted.length).toBeGreaterThan(layout.cells.length / 2);
    for (const cell of trusted) expect(Math.abs(cell.lightness - lightnessOf(cell.cellIndex))).toBeLessThan(0.6);
    expect(result).toMatchObject({ markers: 0, frameErrorMm: 0.25 });
  });

  it('says which other card it shows', () => {
    const result = readCard({ photo, layout: layCardNumbered(4321), stock, corners: null, cameraIsTrue: true });
    expect(result).toEqual({ outcome: 'other-card', cardNumber: 77 });
  });

  it('says so when there are two cards, and reads its own when it is one of them', () => {
    const large = { ...SHOT, widthPx: 840, heightPx: 630 };
    const both = beside(drawnPhoto(layout, stock, large), drawnPhoto(layCardNumbered(500), stock, large));
    expect(readCard({ photo: both, layout: layCardNumbered(9), stock, corners: null, cameraIsTrue: true })).toEqual({
      outcome: 'several-cards',
      cardNumbers: [77, 500],
    });
    expect(read(both)).toMatchObject({ outcome: 'read', alsoSeen: [500] });
  });

  it('gives a reason for a black picture, a tiny one, one without a card, and corners that make none', () => {
    const black = { ...photo, data: new Uint8Array(photo.data.length) };
    expect(read(black)).toEqual({ outcome: 'unreadable', reason: 'too-dark' });
    const tiny = { data: new Uint8Array(3 * 199 * 400).fill(90), width: 199, height: 400 };
    expect(read(tiny)).toEqual({ outcome: 'unreadable', reason: 'too-small' });
    const least = { data: new Uint8Array(3 * 200 * 400).fill(90), width: 200, height: 400 };
    expect(read(least)).toEqual({ outcome: 'needs-corners', markers: 0 });
    const fur = Uint8Array.from(photo.data, (_, i) => 90 + 50 * Math.sin(i / 37) + ((i * 2654435761) % 41));
    expect(read({ ...photo, data: fur })).toMatchObject({ outcome: 'needs-corners' });
    const line = [0, 1, 2, 3].map((k) => ({ x: 100 + k * 50, y: 100 + k * 50 }));
    expect(read(photo, line)).toEqual({ outcome: 'unreadable', reason: 'bad-corners' });
  });

  it('marks cells that are blown out instead of trusting them', () => {
    const pale = (index: number): number => stock.bareLightness + (30 * index) / layout.cells.length;
    const blown = drawnPhoto(layout, stock, {
      lightnessOf: pale,
      markerLightness: 12,
      light: (u) => 0.6 + 1.2 * u,
      widthPx: 600,
      heightPx: 450,
    });
    let clipped = 0;
    for (const cell of cellsOf(read(blown))) {
      if (Math.abs(cell.lightness - pale(cell.cellIndex)) <= 2) continue;
      clipped++;
      expect(cell.confidence, `cell ${cell.cellIndex}`).toBeLessThan(LOW_CONFIDENCE);
    }
    expect(clipped).toBeGreaterThan(3);
  });
});
