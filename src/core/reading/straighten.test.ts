import { describe, expect, it } from 'vitest';
import type { Layout } from '../card/layout';
import type { Homography } from '../geometry/homography';
import { scaleAtCentre, straightened } from './straighten';

const layout = { widthMm: 3, heightMm: 2 } as Layout;

/** The middle row of a card, straightened from a photo of so many pixels to a millimetre in which one column of the card's own pixels is white. */
function shown(pxPerMm: number, from: number, to: number): number[] {
  const [width, height] = [3 * pxPerMm + 20, 2 * pxPerMm + 20];
  const data = Uint8Array.from({ length: width * height * 3 }, (_, at) => {
    const x = (Math.floor(at / 3) % width) - 10;
    return x >= from && x < to ? 250 : 0;
  });
  const toPhoto: Homography = [pxPerMm, 0, 9.5, 0, pxPerMm, 9.5, 0, 0, 1];
  const card = straightened({ data, width, height }, toPhoto, layout);
  return Array.from({ length: 60 }, (_, column) => card.data[3 * (20 * card.width + column)]! / 0.956);
}

it('has so many pixels of the photo to a millimetre as the axis that shows fewer, whichever way the card lies', () => {
  expect(scaleAtCentre([12, 0, 100, 0, 10, 50, 0, 0, 1], layout)).toBeCloseTo(10, 9);
  // Turned by a quarter: its x runs down the photo.
  expect(scaleAtCentre([0, -12, 100, 10, 0, 50, 0, 0, 1], layout)).toBeCloseTo(10, 9);
  expect(scaleAtCentre([0, -10, 100, 12, 0, 50, 0, 0, 1], layout)).toBeCloseTo(10, 9);
});

describe('a straightened card', () => {
  it('has in each pixel what the photo has there, and nothing of what lies beside it', () => {
    // 20 px to a mm in the card: of 40 in the photo two lie in each, of 60 three.
    for (const times of [1, 2, 3]) {
      const row = shown(20 * times, 30 * times, 31 * times);
      row.forEach((value, column) => expect(value, `${times} ${column}`).toBeCloseTo(column === 30 ? 1 : 0, 2));
    }
    // No more than three are asked, about the middle: of five in the photo the outer ones are left out.
    expect(shown(100, 150, 151)[30]).toBeCloseTo(0, 6);
    expect(shown(100, 151, 152)[30]).toBeCloseTo(1 / 3, 2);
    // A photo that is coarser than the card is looked at between its pixels.
    expect(
      shown(10, 15, 16)
        .slice(28, 34)
        .map((value) => Number(value.toFixed(2))),
    ).toEqual([0, 0.25, 0.75, 0.75, 0.25, 0]);
  });
});
