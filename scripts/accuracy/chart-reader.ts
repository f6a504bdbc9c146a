import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Layout } from '../../src/core/card/layout';
import { rectRing } from '../../src/core/card/shape';
import { lightnessOfLuminance, luminanceOfLightness } from '../../src/core/color/lab';
import { luminance, srgbToLinear } from '../../src/core/color/srgb';
import { project, type Homography } from '../../src/core/geometry/homography';
import type { Rect } from '../../src/core/geometry/point';
import type { RgbImage } from '../../src/core/image/raster';

/** A reader of colour charts for printers and scanners, from Debian's package argyll; this report only compares with it where it is installed. */
const READER = '/usr/bin/scanin';
export const isChartReaderHere = existsSync(READER);

/** Part of a cell about its middle that is averaged, as ours does. */
const INNER = 0.6;
/** Strips of bare stock beside each cell are its reference: from here to here beyond its edge, in mm. */
const STRIP_MM = { from: 0.3, to: 0.85 };
/** The chart's own units to a millimetre. */
const UNITS = 10;

interface Patch {
  readonly name: string;
  readonly box: Rect;
}

const inner = ({ x, y, width, height }: Rect): Rect => ({
  x: x + ((1 - INNER) / 2) * width,
  y: y + ((1 - INNER) / 2) * height,
  width: INNER * width,
  height: INNER * height,
});

function stripsOf({ x, y, width, height }: Rect): Rect[] {
  const { from, to } = STRIP_MM;
  const deep = to - from;
  return [
    { x: x - to, y, width: deep, height },
    { x: x + width + from, y, width: deep, height },
    { x, y: y - to, width, height: deep },
    { x, y: y + height + from, width, height: deep },
  ];
}

/** The chart as that reader wants it told: four fiducial corners and a box for each patch. */
function chartOf(layout: Layout, patches: readonly Patch[]): string {
  const [wide, high] = [layout.widthMm * UNITS, layout.heightMm * UNITS];
  const boxes = patches.map(
    ({ name, box: { x, y, width, height } }) =>
      `  X ${name} ${name} _ _ ${[width, height, x, y].map((mm) => (mm * UNITS).toFixed(2)).join(' ')} ${(width * UNITS).toFixed(2)} 0`,
  );
  return `BOXES ${patches.length + 1}
  F _ _ 0 0 ${wide} 0 ${wide} ${high} 0 ${high}
  D ALL ALL _ _ ${wide} ${high} 0 0 0 0
${boxes.join('\n')}

BOX_SHRINK 0.5

REF_ROTATION 0.0

XLIST 2
  0.0 1.0 1.0
  ${wide} 1.0 1.0

YLIST 2
  0.0 1.0 1.0
  ${high} 1.0 1.0

EXPECTED XYZ 0
`;
}

/**
 * L* of each cell of a photo as a general chart reader averages it, on the stock's own scale, beside the bare strips around it: no light surface, no
 * smoke, no tones undone. It is given the card's corners, as the reading found them. By cell index; cells left out are not in it.
 */
export async function readByChart(
  photo: RgbImage,
  layout: Layout,
  toPhoto: Homography,
  bareLightness: number,
): Promise<Map<number, number>> {
  const cells = layout.cells.filter(({ leftOut }) => !leftOut);
  const patches = cells.flatMap(({ index, box }): Patch[] => [
    { name: `C${index}`, box: inner(box) },
    ...stripsOf(box).map((strip, side) => ({ name: `B${index}S${side}`, box: strip })),
  ]);
  const folder = mkdtempSync(join(tmpdir(), 'glass-ladder-chart-'));
  try {
    const [picture, chart] = [join(folder, 'card.tif'), join(folder, 'card.cht')];
    const { data, width, height } = photo;
    await sharp(data, { raw: { width, height, channels: 3 } })
      .tiff({ compression: 'none' })
      .toFile(picture);
    writeFileSync(chart, chartOf(layout, patches));
    const corners = rectRing({ x: 0, y: 0, width: layout.widthMm, height: layout.heightMm })
      .map(({ x, y }) => project(toPhoto, x, y))
      .map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`);
    execFileSync(READER, ['-o', '-p', '-F', corners.join(','), picture, chart], { stdio: 'pipe' });
    const values = valuesIn(readFileSync(join(folder, 'card.val'), 'utf8'));
    return new Map(
      cells.map(({ index }) => {
        const bare = [0, 1, 2, 3].map((side) => values.get(`B${index}S${side}`)!);
        const ratio = values.get(`C${index}`)! / (bare.reduce((sum, value) => sum + value, 0) / bare.length);
        return [index, lightnessOfLuminance(luminanceOfLightness(bareLightness) * ratio)];
      }),
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Luminance of each patch in the reader's table, whose channels are stored bytes. */
function valuesIn(table: string): Map<string, number> {
  const fields = /BEGIN_DATA_FORMAT\s+([^]*?)\s+END_DATA_FORMAT/.exec(table)![1]!.split(/\s+/);
  const rows = /BEGIN_DATA\s([^]*?)END_DATA/.exec(table)![1]!.trim().split('\n');
  const at = (name: string): number => fields.findIndex((field) => field === name);
  const channels = ['RGB_R', 'RGB_G', 'RGB_B'].map(at);
  const id = fields.findIndex((field) => /^SAMPLE_(LOC|ID)$/.test(field));
  return new Map(
    rows.map((row) => {
      const parts = row.trim().split(/\s+/);
      const [red, green, blue] = channels.map((column) => srgbToLinear(Number(parts[column]) / 255)) as [
        number,
        number,
        number,
      ];
      return [parts[id]!.replaceAll('"', ''), luminance(red, green, blue)];
    }),
  );
}
