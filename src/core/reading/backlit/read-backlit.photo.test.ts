import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../../stand-ins/demo';
import { cardOfFew } from '../../../../tests/support/few-cells';
import { drawnPhoto, type DrawnShot } from '../../../../tests/support/drawn-card';
import { lightnessOfLuminance } from '../../color/lab';
import type { RgbImage } from '../../image/raster';
import { readBacklit } from './read-backlit';
import { points } from '../../../../tests/support/points';

const pairing = demoPairing('marl', 'coated');
const { stock } = pairing;
const layout = cardOfFew(pairing, 4, 4, 77);

/** What each cell lets through: from next to nothing to nearly all, no two alike. */
const throughOf = (index: number): number => 0.01 + (0.9 * (index + 1)) / layout.cells.length;
/** Drawn as a card whose bare stock is as dark as a coat that lets a thousandth through. */
const COAT = 0.001;
const asDrawn = (coat: number) => ({ bareLightness: lightnessOfLuminance(coat), colour: '#808080' });
const SHOT: DrawnShot = {
  lightnessOf: (index) => lightnessOfLuminance(throughOf(index)),
  markerLightness: lightnessOfLuminance(0.4),
  widthPx: 1000,
  heightPx: 750,
  corners: points([0.3, 0.27], [0.7, 0.24], [0.69, 0.74], [0.27, 0.76]),
  around: () => 1,
  light: (u, v) => 0.72 - 0.12 * u - 0.06 * v - 0.1 * (u - 0.5) ** 2,
  noise: 0.7,
};
const drawn = (change: Partial<DrawnShot> = {}, coat = COAT) =>
  drawnPhoto(layout, asDrawn(coat), { ...SHOT, ...change });
const read = (photo: RgbImage, change: Partial<Parameters<typeof readBacklit>[0]> = {}) =>
  readBacklit({ photo, layout, stock, corners: null, cameraIsTrue: true, ...change });
const told = (result: ReturnType<typeof read>) => {
  if (result.outcome !== 'read') throw new Error(`not read: ${JSON.stringify(result)}`);
  return result;
};

describe('a card on a light table', () => {
  const photo = drawn();
  const result = told(read(photo));
  it('is told by the open light beside it, dimmer towards one side as that is', () => {
    expect(result.markers).toBe(4);
    expect(result.cells.map(({ cellIndex }) => cellIndex)).toEqual(layout.cells.map(({ index }) => index));
    for (const { cellIndex, through, sigma, darkestTenth, doubts } of result.cells) {
      expect(Math.abs(through - throughOf(cellIndex))).toBeLessThan(0.012);
      expect(sigma).toBeLessThan(0.03);
      expect(darkestTenth).toBeLessThanOrEqual(through);
      expect(darkestTenth).toBeGreaterThan(through - 0.03);
      expect(doubts).toEqual([]);
    }
    expect(result.bareThrough).toBeCloseTo(COAT, 3);
    expect(result.pinholes.count).toBe(0);
  });
  it('shows what of its bare stock is pierced', () => {
    const at = points([9, 1], [9, layout.heightMm - 1.4], [20, 1]);
    const { pinholes, bareThrough } = told(read(drawn({ specks: { at, mm: 0.2 } })));
    expect(pinholes.count).toBe(3);
    const cells = layout.cells.reduce((sum, { box }) => sum + box.width * box.height, 0);
    expect(pinholes.areaMm2).toBeLessThan(layout.widthMm * layout.heightMm - cells);
    expect(pinholes.areaMm2).toBeGreaterThan(0.2 * (layout.widthMm * layout.heightMm - cells));
    expect(bareThrough).toBeCloseTo(COAT, 3);
  });
  it('is placed by corners that a hand set as well', () => {
    const corners = SHOT.corners!.map(({ x, y }) => ({ x: x * 1000, y: y * 750 }));
    const byHand = told(read(photo, { corners }));
    expect(byHand.markers).toBe(0);
    for (const { cellIndex, through } of byHand.cells)
      expect(Math.abs(through - throughOf(cellIndex))).toBeLessThan(0.012);
  });
  it('is less sure by a camera of which nothing is known, the least where much of the light is gone', () => {
    const { cells, tones } = told(read(photo, { cameraIsTrue: false }));
    expect(tones).toEqual({ told: 'by-one-photo', cameraIsTrue: false });
    const [darkest, , , , middle] = cells;
    expect(middle!.doubts).toContain('tones-unknown');
    expect(cells.at(-1)!.doubts).toEqual([]);
    expect(darkest!.sigma).toBeGreaterThan(result.cells[0]!.sigma);
  });
  it('is in doubt where the table shines so brightly through a cell that the camera tells no more', () => {
    // A lamp right under the card, of which nothing is seen beside it.
    const lamp = (u: number, v: number) => 0.65 + 0.8 * Math.exp(-((u - 0.5) ** 2 + (v - 0.5) ** 2) / 0.005);
    const { cells } = told(read(drawn({ light: lamp, lightnessOf: () => lightnessOfLuminance(0.9) })));
    const blownOut = cells.flatMap(({ cellIndex, doubts }) => (doubts.includes('blown-out') ? [cellIndex] : []));
    // Those in the middle of four by four; the ones in the corners are as they are told elsewhere.
    const middleOf = (index: number) => {
      const { box } = layout.cells[index]!;
      return { x: box.x + box.width / 2 - layout.widthMm / 2, y: box.y + box.height / 2 - layout.heightMm / 2 };
    };
    const away = (index: number) => Math.hypot(middleOf(index).x, middleOf(index).y);
    const byPlace = layout.cells.map(({ index }) => index).sort((a, b) => away(a) - away(b));
    expect(blownOut).toEqual(expect.arrayContaining(byPlace.slice(0, 4)));
    for (const corner of byPlace.slice(-4)) expect(blownOut).not.toContain(corner);
    // What lets nothing through is as black as the camera shows things, which is no loss.
    const black = told(read(drawn({ noise: 0, lightnessOf: () => 0 })));
    expect(black.cells.flatMap(({ doubts }) => doubts)).toEqual([]);
  });
});

describe('what is no photo on a light table', () => {
  const outcome = (photo: RgbImage) => {
    const result = read(photo);
    return result.outcome === 'unreadable' ? result.reason : result.outcome;
  };
  it('has open light on one side only, or nowhere', () => {
    expect(outcome(drawn({ around: (u) => (u < 0.3 ? 1 : 0.01) }))).toBe('no-open-light');
    expect(outcome(drawn({ around: () => 0.001 }))).toBe('no-open-light');
  });
  it('is as bright beside the piece as the camera can tell', () => {
    expect(outcome(drawn({ light: () => 1.3 }))).toBe('table-blown-out');
  });
  it('shows bare stock nearly as bright as what is around it', () => {
    expect(outcome(drawn({ around: () => 1 }, 0.6))).toBe('no-open-light');
  });
  it('is a lit piece on white paper: every cell is in doubt, since the coat is as bright as lamps make it', () => {
    const { cells } = told(read(drawn({ around: () => 0.85 }, 0.028)));
    expect(cells.every(({ doubts }) => doubts.includes('room-light'))).toBe(true);
  });
  it('is too small, or shows no card', () => {
    const blank = { data: new Uint8Array(150 * 150 * 3).fill(200), width: 150, height: 150 };
    expect(outcome(blank)).toBe('too-small');
    expect(outcome({ data: new Uint8Array(400 * 300 * 3).fill(180), width: 400, height: 300 })).toBe('needs-corners');
  });
  it('is another card', () => {
    const other = cardOfFew(pairing, 4, 4, 78);
    expect(read(drawnPhoto(other, asDrawn(COAT), SHOT))).toEqual({ outcome: 'other-card', cardNumber: 78 });
  });
});
