import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Layout } from '../src/core/card/layout';
import { MARKER_BITS, MARKER_MODULES, markerModules } from '../src/core/card/markers';
import { LINEAR_OF_BYTE } from '../src/core/color/srgb';
import { grown, type Rect } from '../src/core/geometry/point';
import type { Homography } from '../src/core/geometry/homography';
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

const innerPixels = (box: Rect): number[] => {
  const { x, y, width, height } = grown(box, (-(1 - INNER) * Math.min(box.width, box.height)) / 2);
  return [x, y, x + width, y + height].map((mm) => Math.round(mm * RECTIFIED_PX_PER_MM));
};

function bitsOf(id: number): number[][] {
  const modules = markerModules(id);
  return Array.from({ length: MARKER_BITS }, (_, row) =>
    Array.from({ length: MARKER_BITS }, (__, column) => (modules[(row + 1) * MARKER_MODULES + column + 1] ? 0 : 1)),
  );
}

/**
 * Times a native vision library (Debian's python3-opencv, on one thread) at decoding a photo, finding markers in it, straightening the card in
 * linear light and averaging its cells. Null where it is not installed.
 */
export function nativeVision(
  jpeg: Uint8Array,
  layout: Layout,
  toPhoto: Homography,
  { boxPx, factor, rounds }: { readonly boxPx: number; readonly factor: number; readonly rounds: number },
): NativeVision | null {
  const folder = mkdtempSync(join(tmpdir(), 'native-vision-'));
  try {
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
      cells: layout.cells.map(({ box }) => innerPixels(box)),
    };
    // The system's own interpreter: packages of others do not know it.
    const { status, stdout, stderr } = spawnSync('/usr/bin/python3', ['perf/native-vision.py'], {
      input: JSON.stringify(job),
      encoding: 'utf8',
    });
    if (status === 0) return JSON.parse(stdout) as NativeVision;
    if (/No module named|ENOENT/.test(stderr ?? 'ENOENT')) return null;
    throw new Error(stderr);
  } finally {
    rmSync(folder, { recursive: true });
  }
}
