import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { cardOfFew } from '../../../tests/support/few-cells';
import { drawnPhoto } from '../../../tests/support/drawn-card';
import { bed } from '../../cards/bed';
import { layCard } from '../card/lay';
import { layoutOfStation } from '../card/station';
import { project } from '../geometry/homography';
import type { RgbImage } from '../image/raster';
import { readStation } from './read-station';

const pairing = demoPairing('heron', 'leather');
const { stock } = pairing;
const { plan } = bed.propose({ pairing, facts: [] });
const layout = layCard(bed, plan, pairing, { cardNumber: 500 });
const stations = layout.stations!;
const SIZE = { widthPx: 640, heightPx: 480, noise: 1 };

const lightnessOf = (index: number): number => stock.bareLightness - 20 - index;
/** A photo of one station, each of whose patches has a tone of its own. */
const photoOf = (index: number) =>
  drawnPhoto(layoutOfStation(layout, stations[index]!), stock, {
    ...SIZE,
    lightnessOf: (own) => lightnessOf(stations[index]!.cells[own]!),
  });
const read = (photo: RgbImage) => readStation({ photo, layout, stock, cameraIsTrue: true });

/** Two photos beside each other. */
function beside(left: RgbImage, right: RgbImage): RgbImage {
  const row = left.width * 3;
  const data = new Uint8Array(2 * left.data.length);
  for (let y = 0; y < left.height; y++) {
    data.set(left.data.subarray(y * row, (y + 1) * row), y * row * 2);
    data.set(right.data.subarray(y * row, (y + 1) * row), y * row * 2 + row);
  }
  return { data, width: 2 * left.width, height: left.height };
}

/** A photo with paper over some of its markers, by their places on the station. */
function covered(index: number, corners: readonly string[]): RgbImage {
  const photo = photoOf(index);
  const own = layoutOfStation(layout, stations[index]!);
  const data = Uint8Array.from(photo.data);
  for (const { corner, x, y, sizeMm } of own.frame.markers) {
    if (!corners.includes(corner)) continue;
    const at = photo.placeOf(x + sizeMm / 2, y + sizeMm / 2);
    for (let v = Math.max(0, Math.round(at.y) - 45); v < Math.min(photo.height, at.y + 45); v++) {
      const [from, to] = [Math.max(0, Math.round(at.x) - 45), Math.min(photo.width, Math.round(at.x) + 45)];
      data.fill(235, (v * photo.width + from) * 3, (v * photo.width + to) * 3);
    }
  }
  return { ...photo, data };
}

describe('a photo of one station', () => {
  it.each([0, 4, 8])('tells which one it shows, number %i, and numbers cells as on the card', (index) => {
    const photo = photoOf(index);
    const result = read(photo);
    if (result.outcome !== 'read') throw new Error(JSON.stringify(result));
    expect(result.station).toBe(index);
    expect(result.cells.map(({ cellIndex }) => cellIndex)).toEqual(stations[index]!.cells);
    for (const { cellIndex, lightness } of result.cells)
      expect(Math.abs(lightness - lightnessOf(cellIndex))).toBeLessThan(1);
    // Places in the photo are those of the whole card.
    const [cell] = stations[index]!.cells;
    const { x, y } = layout.cells[cell!]!.box;
    const seen = project(result.toPhoto, x, y);
    const drawn = photo.placeOf(x - stations[index]!.box.x, y - stations[index]!.box.y);
    expect(Math.hypot(seen.x - drawn.x, seen.y - drawn.y)).toBeLessThan(1.5);
  });

  it('is told by any three of its markers, and never guessed by fewer', () => {
    expect(read(covered(4, ['upper-left']))).toMatchObject({ outcome: 'read', station: 4 });
    expect(read(covered(4, ['lower-left']))).toMatchObject({ outcome: 'read', station: 4 });
    // Left are the two markers that all stations of this card share.
    expect(read(covered(4, ['lower-left', 'lower-right']))).toEqual({ outcome: 'unreadable', reason: 'no-station' });
    expect(read(covered(4, ['upper-left', 'upper-right']))).toEqual({ outcome: 'unreadable', reason: 'no-station' });
  });

  it('is refused where it shows several stations, or another card', () => {
    expect(read(beside(photoOf(2), photoOf(3)))).toEqual({ outcome: 'unreadable', reason: 'several-stations' });
    // Numbers of these two differ in three of four markers.
    const far = layCard(bed, plan, pairing, { cardNumber: 55 });
    const [five, six] = [5, 6].map((index) =>
      drawnPhoto(layoutOfStation(far, far.stations![index]!), stock, { ...SIZE, lightnessOf: () => 40 }),
    );
    expect(readStation({ photo: beside(five!, six!), layout: far, stock, cameraIsTrue: true })).toEqual({
      outcome: 'unreadable',
      reason: 'several-stations',
    });
    const other = cardOfFew(pairing, 3, 3, 77);
    const photo = drawnPhoto(other, stock, { ...SIZE, lightnessOf: () => 40 });
    expect(read(photo)).toEqual({ outcome: 'other-card', cardNumber: 77 });
  });

  it('is nothing that a card of one piece has', () => {
    const { stations: _, ...whole } = layout;
    expect(() => readStation({ photo: photoOf(0), layout: whole, stock, cameraIsTrue: true })).toThrow(RangeError);
  });
});
