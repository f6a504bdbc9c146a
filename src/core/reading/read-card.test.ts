import { beforeAll, describe, expect, it } from 'vitest';
import { grid } from '../../cards/grid';
import { burnOnBench, photoOf } from '../../../tests/support/burn';
import { demoPairing } from '../../../tests/support/demo';
import { trueLightness } from '../../../tests/support/reading';
import { casualShot, photograph, type Piece } from '../../bench/bench';
import { layCard } from '../card/lay';
import type { Layout } from '../card/layout';
import type { RgbImage } from '../image/raster';
import { LOW_CONFIDENCE } from './observations';
import { readCard } from './read-card';

const pairing = demoPairing('heron', 'leather');
const { plan } = grid.propose({ pairing, facts: [] });
const SHOT = { ...casualShot('faults'), widthPx: 2400, heightPx: 1800, tiltDegrees: 12 };
let layout: Layout;
let piece: Piece;
let photo: RgbImage & { placeOf: (x: number, y: number) => { x: number; y: number } };

beforeAll(() => {
  layout = layCard(grid, plan, pairing, { cardNumber: 77 });
  piece = burnOnBench(layout, pairing, 'faults');
  photo = photograph(piece, SHOT);
});

const read = (image: RgbImage, corners: { x: number; y: number }[] | null = null) =>
  readCard({ photo: image, layout, stock: pairing.stock, corners });

/** The photo with paper laid over places given in card mm. */
function covered(...places: readonly (readonly [x: number, y: number])[]): RgbImage {
  const data = Uint8Array.from(photo.data);
  const reach = 110;
  for (const [x, y] of places) {
    const at = photo.placeOf(x, y);
    for (let v = Math.max(0, Math.round(at.y) - reach); v < Math.min(photo.height, at.y + reach); v++) {
      data.fill(
        235,
        (v * photo.width + Math.max(0, Math.round(at.x) - reach)) * 3,
        (v * photo.width + Math.min(photo.width, Math.round(at.x) + reach)) * 3,
      );
    }
  }
  return { ...photo, data };
}

describe('reading a photo', () => {
  it('finds the frame to a few hundredths of a millimetre', () => {
    const result = read(photo);
    expect(result).toMatchObject({ outcome: 'read', markers: 4 });
    if (result.outcome !== 'read') return;
    const [a, b, c, d, e, f, g, h] = result.toPhoto;
    const { widthMm: x, heightMm: y } = layout;
    const w = g * (x / 2) + h * (y / 2) + 1;
    const centre = { x: (a * (x / 2) + b * (y / 2) + c) / w, y: (d * (x / 2) + e * (y / 2) + f) / w };
    const truth = photo.placeOf(x / 2, y / 2);
    expect(Math.hypot(centre.x - truth.x, centre.y - truth.y) / result.photoPxPerMm).toBeLessThan(0.15);
  });

  it('goes on with three markers, and asks for corners with fewer', () => {
    expect(read(covered([2, 2]))).toMatchObject({ outcome: 'read', markers: 3 });
    expect(read(covered([2, 2], [layout.widthMm - 2, 2], [2, layout.heightMm - 2]))).toMatchObject({
      outcome: 'needs-corners',
      markers: 1,
    });
  });

  it('reads with corners dragged by hand as well as with markers, to their accuracy', () => {
    const slip = 3;
    const corners = [
      [0, 0],
      [layout.widthMm, 0],
      [layout.widthMm, layout.heightMm],
      [0, layout.heightMm],
    ].map(([x, y], index) => {
      const place = photo.placeOf(x!, y!);
      return { x: place.x + (index % 2 === 0 ? slip : -slip), y: place.y - slip };
    });
    const result = read(covered([2, 2], [layout.widthMm - 2, 2], [2, layout.heightMm - 2]), corners);
    expect(result.outcome).toBe('read');
    if (result.outcome !== 'read') return;
    const trusted = result.cells.filter((cell) => cell.confidence >= LOW_CONFIDENCE);
    expect(trusted.length).toBeGreaterThan(result.cells.length / 2);
    for (const cell of trusted)
      expect(Math.abs(cell.lightness - trueLightness(piece, layout, pairing, cell.cellIndex))).toBeLessThan(2.5);
  });

  it('says which other card it shows', () => {
    const other = layCard(grid, plan, pairing, { cardNumber: 4321 });
    const result = readCard({ photo, layout: other, stock: pairing.stock, corners: null });
    expect(result).toEqual({ outcome: 'other-card', cardNumber: 77 });
  });

  it('says so when there are two cards, and reads its own when it is one of them', () => {
    const second = layCard(grid, plan, pairing, { cardNumber: 500 });
    const neighbour = photoOf(burnOnBench(second, pairing, 'neighbour'), 'two', { ...SHOT, fill: 0.6 });
    const half = photoOf(piece, 'two', { ...SHOT, fill: 0.6 });
    const data = new Uint8Array(half.width * 2 * half.height * 3);
    for (let y = 0; y < half.height; y++) {
      const row = half.width * 3;
      data.set(half.data.subarray(y * row, (y + 1) * row), y * row * 2);
      data.set(neighbour.data.subarray(y * row, (y + 1) * row), y * row * 2 + row);
    }
    const both = { data, width: half.width * 2, height: half.height };
    const third = layCard(grid, plan, pairing, { cardNumber: 9 });
    expect(readCard({ photo: both, layout: third, stock: pairing.stock, corners: null })).toEqual({
      outcome: 'several-cards',
      cardNumbers: [77, 500],
    });
    expect(read(both)).toMatchObject({ outcome: 'read', alsoSeen: [500] });
  });

  it('gives a reason for a black picture, a tiny one, one without a card, and corners that make none', () => {
    const black = { ...photo, data: new Uint8Array(photo.data.length) };
    expect(read(black)).toEqual({ outcome: 'unreadable', reason: 'too-dark' });
    expect(read({ data: new Uint8Array(3).fill(90), width: 1, height: 1 })).toEqual({
      outcome: 'unreadable',
      reason: 'too-small',
    });
    const fur = Uint8Array.from(
      { length: photo.data.length },
      (_, i) => 90 + 50 * Math.sin(i / 37) + ((i * 2654435761) % 41),
    );
    expect(read({ ...photo, data: fur })).toMatchObject({ outcome: 'needs-corners' });
    const line = [0, 1, 2, 3].map((k) => ({ x: 100 + k * 50, y: 100 + k * 50 }));
    expect(read(photo, line)).toMatchObject({ outcome: 'unreadable' });
  });

  it('marks cells that are blown out instead of trusting them', () => {
    const blown = photograph(piece, { ...SHOT, exposure: 1.35, lightFall: 0.9 });
    const result = read(blown);
    if (result.outcome !== 'read') return expect(result.outcome).not.toBe('several-cards');
    for (const cell of result.cells) {
      const error = cell.lightness - trueLightness(piece, layout, pairing, cell.cellIndex);
      if (Math.abs(error) > 2) expect(cell.confidence, `cell ${cell.cellIndex}`).toBeLessThan(LOW_CONFIDENCE);
    }
  });
});
