import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { opencv } from '../../../tests/support/opencv';
import { darkerThanAround } from './adaptive-threshold';
import { blobsOf } from './blobs';
import { grayOfPart, grayOfRgb, grayShrunk, inverted, lumaAt, shrink } from './gray';
import { grayBetween } from './gray-between';
import { mirrored } from './mirrored';
import { checkRaster } from './raster';
import { points } from '../../../tests/support/points';
import { tuples } from '../../../tests/support/tuples';

const image = fc
  .tuple(fc.integer({ min: 3, max: 24 }), fc.integer({ min: 3, max: 24 }))
  .chain(([width, height]) =>
    fc.uint8Array({ minLength: width * height, maxLength: width * height }).map((data) => ({ data, width, height })),
  );

describe('gray', () => {
  it('weighs the channels and keeps grays', () => {
    const rgb = { data: Uint8Array.of(255, 255, 255, 0, 0, 0, 100, 100, 100, 255, 0, 0), width: 4, height: 1 };
    expect([...grayOfRgb(rgb).data]).toEqual([255, 0, 100, 77]);
  });
  prop([fc.integer({ min: 1, max: 19 }), fc.integer({ min: 0, max: 5 })])(
    'is the same however its bytes lie in memory and however many are left over',
    (pixels, offset) => {
      const room = new Uint8Array(offset + 3 * pixels).map((_, at) => (at * 89 + 31) % 256);
      const data = room.subarray(offset);
      const byHand = Array.from({ length: pixels }, (_, k) =>
        Math.round((77 * data[3 * k]! + 150 * data[3 * k + 1]! + 29 * data[3 * k + 2]!) / 256),
      );
      expect([...grayOfRgb({ data, width: pixels, height: 1 }).data]).toEqual(byHand);
    },
  );
  it('of a part is the part of the gray, pixel by pixel and cut to the image', () => {
    const rgb = { data: Uint8Array.from({ length: 72 }, (_, at) => 10 * Math.floor(at / 3)), width: 6, height: 4 };
    expect(grayOfPart(rgb, { x: 2, y: 1, width: 3, height: 2 })).toEqual({
      data: Uint8Array.of(80, 90, 100, 140, 150, 160),
      width: 3,
      height: 2,
    });
    expect([...grayOfPart(rgb, { x: -2, y: -1, width: 3, height: 2 }).data]).toEqual([0]);
    expect([...grayOfPart(rgb, { x: 4, y: 3, width: 9, height: 9 }).data]).toEqual([220, 230]);
    expect(lumaAt(rgb, 13)).toBe(130);
    const weighed = { data: Uint8Array.of(0, 0, 0, 0, 0, 200, 0, 200, 0, 200, 0, 0), width: 4, height: 1 };
    expect([0, 1, 2, 3].map((pixel) => lumaAt(weighed, pixel))).toEqual([...grayOfRgb(weighed).data]);
  });
  prop([fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 5 })])(
    'made smaller is the gray made smaller',
    (width, height, factor) => {
      const data = Uint8Array.from({ length: 3 * width * height }, (_, at) => (at * 89 + 31 * ((at / 97) | 0)) % 256);
      expect(grayShrunk({ data, width, height }, factor)).toEqual(shrink(grayOfRgb({ data, width, height }), factor));
    },
  );
  it('turns round twice to itself', () => {
    const gray = { data: Uint8Array.of(0, 1, 254, 255), width: 4, height: 1 };
    expect([...inverted(gray).data]).toEqual([255, 254, 1, 0]);
    expect(inverted(inverted(gray)).data).toEqual(gray.data);
  });
  it('is mirrored pixel by pixel, each row by itself', () => {
    const rgb = { data: Uint8Array.from({ length: 18 }, (_, at) => at), width: 3, height: 2 };
    expect([...mirrored(rgb).data]).toEqual([6, 7, 8, 3, 4, 5, 0, 1, 2, 15, 16, 17, 12, 13, 14, 9, 10, 11]);
    expect(() => mirrored({ ...rgb, width: 2 })).toThrow('invalid image data');
  });
  it('refuses data that do not fit their size', () => {
    expect(() => grayOfRgb({ data: new Uint8Array(11), width: 4, height: 1 })).toThrow(
      'invalid image data: 11 values for 4 x 1 x 3',
    );
    for (const [width, height] of tuples([0, 1], [1, 0], [1.5, 2], [2, 1.5], [NaN, 1], [-1, -1]))
      expect(() => checkRaster({ data: new Uint8Array(3), width, height }, 1)).toThrow(
        `invalid image size: ${width} x ${height}`,
      );
    expect(() => checkRaster({ data: [7], width: 1, height: 1 }, 1)).not.toThrow();
    expect(() => checkRaster({ data: new Uint8Array(6), width: 2, height: 3 }, 1)).not.toThrow();
  });
});

describe('shrinking', () => {
  it('takes the mean of each block and drops the rest', () => {
    const gray = { data: Uint8Array.of(0, 10, 99, 20, 30, 99), width: 3, height: 2 };
    expect(shrink(gray, 2)).toEqual({ data: Uint8Array.of(15), width: 1, height: 1 });
    expect(shrink(gray, 1)).toBe(gray);
    const rgb = { data: new Uint8Array(18), width: 3, height: 2 };
    for (const factor of [1.5, 0, -1]) {
      expect(() => shrink(gray, factor)).toThrow(`invalid factor: ${factor}`);
      expect(() => grayShrunk(rgb, factor)).toThrow(`invalid factor: ${factor}`);
    }
    expect([...grayOfRgb({ data: new Uint8Array(18).fill(9), width: 2, height: 3 }).data]).toEqual([9, 9, 9, 9, 9, 9]);
  });
  prop([image, fc.integer({ min: 1, max: 3 })])('agrees with the sum written out', (gray, factor) => {
    const small = shrink(gray, factor);
    for (let y = 0; y < small.height; y++) {
      for (let x = 0; x < small.width; x++) {
        let sum = 0;
        for (let v = 0; v < factor; v++)
          for (let u = 0; u < factor; u++) sum += gray.data[(y * factor + v) * gray.width + x * factor + u]!;
        expect(small.data[y * small.width + x]).toBe(Math.floor(sum / factor ** 2));
      }
    }
  });
});

describe('adaptive threshold', () => {
  prop([image, fc.integer({ min: 1, max: 6 }), fc.integer({ min: 0, max: 20 })])(
    'agrees with the window summed by hand',
    (gray, radius, offset) => {
      const mask = darkerThanAround(gray, radius, offset);
      for (let y = 0; y < gray.height; y++) {
        for (let x = 0; x < gray.width; x++) {
          let sum = 0;
          let count = 0;
          for (let v = Math.max(0, y - radius); v <= Math.min(gray.height - 1, y + radius); v++) {
            for (let u = Math.max(0, x - radius); u <= Math.min(gray.width - 1, x + radius); u++) {
              sum += gray.data[v * gray.width + u]!;
              count++;
            }
          }
          expect(mask[y * gray.width + x]).toBe(gray.data[y * gray.width + x]! + offset < sum / count ? 1 : 0);
        }
      }
    },
  );
});

it('tells dark places of an image whose sum no whole number of 32 bits holds', () => {
  const [width, height] = [3100, 3000];
  const data = new Uint8Array(width * height).fill(255);
  for (const { x, y } of points([40, 30], [3000, 2950])) data[y * width + x] = 200;
  const dark = darkerThanAround({ data, width, height }, 20, 5);
  expect(data.reduce((sum, value) => sum + value, 0)).toBeGreaterThan(2 ** 31);
  expect(dark.reduce((sum, value) => sum + value, 0)).toBe(2);
  expect([dark[30 * width + 40], dark[2950 * width + 3000]]).toEqual([1, 1]);
});

/** The blobs of a picture in signs, one row each. */
const blobsIn = (rows: readonly string[], least: number, most: number) => {
  const mask = Uint8Array.from(rows.join(''), (sign) => (sign === '#' ? 1 : 0));
  return blobsOf(mask, rows[0]!.length, rows.length, least, most);
};

describe('blobs', () => {
  it('are those of a reference library’s connected components', async () => {
    const { cv } = await opencv();
    const width = 60;
    const height = 45;
    let state = 7;
    const mask = Uint8Array.from({ length: width * height }, () => {
      state = (state * 1103515245 + 12345) % 2147483648;
      return state / 2147483648 < 0.38 ? 1 : 0;
    });
    const source = cv.matFromArray(height, width, cv.CV_8UC1, [...mask]);
    const labels = new cv.Mat();
    const stats = new cv.Mat();
    const centroids = new cv.Mat();
    const count = cv.connectedComponentsWithStats(source, labels, stats, centroids, 8, cv.CV_32S);
    const theirs: string[] = [];
    for (let label = 1; label < count; label++) {
      const [left, top, wide, high, area] = [0, 1, 2, 3, 4].map((column) => stats.intAt(label, column)) as [
        number,
        number,
        number,
        number,
        number,
      ];
      const atEdge = left === 0 || top === 0 || left + wide === width || top + high === height;
      if (!atEdge && wide >= 2 && high >= 2) theirs.push(`${left} ${top} ${wide} ${high} ${area}`);
    }
    const ours = blobsOf(mask, width, height, 2, 60).map(
      (blob) => `${blob.left} ${blob.top} ${blob.right - blob.left + 1} ${blob.bottom - blob.top + 1} ${blob.pixels}`,
    );
    expect(ours.length).toBeGreaterThan(5);
    expect(ours.sort()).toEqual(theirs.sort());
  });
  it('are of the sizes asked for, their limits included', () => {
    // Three bars: 2 x 4, 3 x 3, 5 x 2.
    const rows = [
      '.............',
      '.##..........',
      '.##.###......',
      '.##.###.#####',
      '.##.###.#####',
      '.............',
    ].map((row) => `${row}.`);
    const sizes = (least: number, most: number) =>
      blobsIn(rows, least, most).map(({ left, right, top, bottom }) => `${right - left + 1} x ${bottom - top + 1}`);
    expect(sizes(2, 5)).toEqual(['2 x 4', '3 x 3', '5 x 2']);
    expect(sizes(2, 4)).toEqual(['2 x 4', '3 x 3']);
    expect(sizes(2, 3)).toEqual(['3 x 3']);
    expect(sizes(3, 5)).toEqual(['3 x 3']);
  });
  it('that touch the edge are left out, and take nothing of the next row with them', () => {
    const rows = ['.....#', '#..##.', '...##.', '#....#', '......'];
    const blobs = blobsIn(rows, 1, 6);
    expect(blobs).toEqual([]);
    const inner = ['.....#', '#.....', '..##..', '..##.#', '#.....'];
    const [only, ...more] = blobsIn(inner, 1, 6);
    expect(more).toEqual([]);
    expect(only).toMatchObject({ pixels: 4, left: 2, right: 3, top: 2, bottom: 3 });
  });
  it('have an outline on both sides of each row', () => {
    const rows = ['.......', '..##...', '.####..', '..###..', '.......'];
    const [blob, ...more] = blobsIn(rows, 2, 7);
    expect(more).toEqual([]);
    expect(blob!.pixels).toBe(9);
    expect(blob!.outline.map(({ x, y }) => `${x},${y}`)).toEqual(['2,1', '3,1', '1,2', '4,2', '2,3', '4,3']);
  });
  it('that lie beside each other, or in a bay of another, have an outline of their own alone', () => {
    // A U that becomes one only at its foot, and a bar within it.
    const rows = ['.........', '.#.....#.', '.#..#..#.', '.#..#..#.', '.#.....#.', '.#######.', '.........'];
    const blobs = blobsIn(rows, 1, 9);
    expect(blobs.map(({ pixels, left, right, top, bottom }) => [pixels, left, right, top, bottom])).toEqual([
      [15, 1, 7, 1, 5],
      [2, 4, 4, 2, 3],
    ]);
    expect(blobs[1]!.outline).toEqual([2, 3].flatMap((y) => [0, 1].map(() => ({ x: 4, y }))));
    const apart = ['........', '.##..##.', '.##..##.', '........'];
    const two = blobsIn(apart, 1, 9);
    expect(two.map(({ outline }) => outline.map(({ x }) => x))).toEqual(tuples([1, 2, 1, 2], [5, 6, 5, 6]));
  });
});

describe('gray between pixels', () => {
  // A plane over the pixels: 3 a column, 10 a row, from 7.
  const plane = (x: number, y: number) => 7 + 3 * x + 10 * y;
  const [width, height] = [9, 6];
  const data = Uint8Array.from({ length: width * height }, (_, at) => plane(at % width, Math.floor(at / width)));
  const plain = { data, width, height };
  prop([fc.double({ min: 0, max: width - 1, noNaN: true }), fc.double({ min: 0, max: height - 1, noNaN: true })])(
    'is what a plane has there, to its very edges',
    (x, y) => {
      expect(grayBetween(plain, x, y)).toBeCloseTo(plane(x, y), 9);
    },
  );
  it('of four is the mean of all in their middle', () => {
    const four = { data: Uint8Array.of(0, 10, 100, 250), width: 2, height: 2 };
    expect(grayBetween(four, 0.5, 0.5)).toBe(90);
    expect([
      grayBetween(four, 0, 0),
      grayBetween(four, 1, 0),
      grayBetween(four, 0, 1),
      grayBetween(four, 1, 1),
    ]).toEqual([0, 10, 100, 250]);
  });
  it('is none beyond the outermost', () => {
    for (const [x, y] of tuples([-0.01, 2], [2, -0.01], [width - 0.99, 2], [2, height - 0.99]))
      expect(grayBetween(plain, x, y)).toBeNaN();
  });
});
