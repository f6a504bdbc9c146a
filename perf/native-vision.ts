import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Layout } from '../src/core/card/layout';
import { MARKER_BITS, MARKER_MODULES, markerModules } from '../src/core/card/markers';
import { LINEAR_OF_BYTE } from '../src/core/color/srgb';
import { grown, type Rect } from '../src/core/geometry/point';
import type { Homography } from '../src/core/geometry/homography';
import type { LinearImage } from '../src/core/image/raster';
import { RECTIFIED_PX_PER_MM } from '../src/core/reading/straighten';

/** What a native vision library takes for the parts of a reading that it has as well, in ms. */
export interface NativeVision {
  readonly version: string;
  /** How many of the card's markers it found. */
  readonly found: number;
  readonly decode: number;
  readonly markers: number;
  readonly straightening: number;
  readonly cells: number;
  /** Mean linear red, green and blue of each cell's middle. */
  readonly means: readonly (readonly [number, number, number])[];
}

const CODES = 250;
/** A cell's middle, as the reading has it. */
const INNER = 0.6;

/** Left, top, right and bottom, in pixels of the straightened card. */
type Box = readonly [number, number, number, number];

function innerPixels(box: Rect): Box {
  const { x, y, width, height } = grown(box, (-(1 - INNER) * Math.min(box.width, box.height)) / 2);
  const pixel = (mm: number): number => Math.round(mm * RECTIFIED_PX_PER_MM);
  return [pixel(x), pixel(y), pixel(x + width), pixel(y + height)];
}

function bitsOf(id: number): number[][] {
  const modules = markerModules(id);
  return Array.from({ length: MARKER_BITS }, (_, row) =>
    Array.from({ length: MARKER_BITS }, (__, column) => (modules[(row + 1) * MARKER_MODULES + column + 1] ? 0 : 1)),
  );
}

/** Means that differ by more than this share are not of the same cells. */
const ALIKE = 0.02;

function meanOf({ data, width }: LinearImage, [left, top, right, bottom]: Box): readonly [number, number, number] {
  const sums: [number, number, number] = [0, 0, 0];
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++)
      for (const channel of [0, 1, 2] as const) sums[channel] += data[3 * (y * width + x) + channel]!;
  const count = (right - left) * (bottom - top);
  return [sums[0] / count, sums[1] / count, sums[2] / count];
}

/** Throws where the library did not see in each cell what ours did: its time would be that of something else. */
function checkSame(rectified: LinearImage, cells: readonly Box[], { means }: NativeVision): void {
  cells.forEach((cell, index) => {
    const own = meanOf(rectified, cell);
    means[index]!.forEach((mean, channel) => {
      if (Math.abs(mean - own[channel]!) > ALIKE * own[channel]!)
        throw new Error(`cell ${index}: the native library sees ${mean}, the reading ${own[channel]!}`);
    });
  });
}

/**
 * Times a native vision library (Debian's python3-opencv, on one thread) at decoding a photo, finding markers in it, straightening the card in
 * linear light and averaging its cells, which must be those that ours read. Null where it is not installed.
 */
export function nativeVision(
  jpeg: Uint8Array,
  layout: Layout,
  { toPhoto, rectified }: { readonly toPhoto: Homography; readonly rectified: LinearImage },
  { boxPx, factor, rounds }: { readonly boxPx: number; readonly factor: number; readonly rounds: number },
): NativeVision | null {
  const folder = mkdtempSync(join(tmpdir(), 'native-vision-'));
  try {
    const cells = layout.cells.map(({ box }) => innerPixels(box));
    const photo = join(folder, 'photo.jpg');
    writeFileSync(photo, jpeg);
    const job = {
      jpeg: photo,
      light: [...LINEAR_OF_BYTE],
      toPhoto: [...toPhoto],
      pxPerMm: RECTIFIED_PX_PER_MM,
      boxPx,
      factor,
      rounds,
      widthMm: layout.widthMm,
      heightMm: layout.heightMm,
      codes: Array.from({ length: CODES }, (_, id) => bitsOf(id)),
      cells,
    };
    // The system's own interpreter: packages of others do not know it.
    const { status, stdout, stderr } = spawnSync('/usr/bin/python3', ['perf/native-vision.py'], {
      input: JSON.stringify(job),
      encoding: 'utf8',
    });
    if (status === 0) {
      const vision = JSON.parse(stdout) as NativeVision;
      checkSame(rectified, cells, vision);
      return vision;
    }
    if (/No module named|ENOENT/.test(stderr ?? 'ENOENT')) return null;
    throw new Error(stderr);
  } finally {
    rmSync(folder, { recursive: true });
  }
}
