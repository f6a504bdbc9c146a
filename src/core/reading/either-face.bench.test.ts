import { describe, expect, it } from 'vitest';
import { burnOnBench, photoOf } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { lightTableShot, photograph } from '../../bench/camera';
import { letsThroughOf } from '../../bench/light-through';
import { onLightTable, trueThrough } from '../../bench/light-table';
import { trueLuminanceRatio } from '../../bench/piece';
import { turnedOver } from '../../bench/turned-over';
import { grid } from '../../cards/grid';
import { layCard } from '../card/lay';
import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { isMirror, project } from '../geometry/homography';
import { mirrored } from '../image/mirrored';
import type { RgbImage } from '../image/raster';
import { isSeeThrough } from '../stock/see-through';
import { readBacklit } from './backlit/read-backlit';
import { readEitherFace } from './either-face';
import { mergeCells } from './merge-cells';
import { LOW_CONFIDENCE } from './observations';
import { readCard } from './read-card';

const SIZE = { widthPx: 2200, heightPx: 1650 };

function burned(stockName: Parameters<typeof demoPairing>[1]) {
  const pairing = demoPairing('marl', stockName);
  const { stock } = pairing;
  const { plan } = grid.propose({ pairing, facts: [] });
  const layout = layCard(grid, plan, pairing, { cardNumber: 77 });
  const piece = burnOnBench(layout, pairing, `either face of ${stock.name}`);
  const lets = letsThroughOf(stock);
  const read = (photo: RgbImage) =>
    readEitherFace(photo.width, ({ turn, isMirrored }) =>
      readCard({
        photo: turn(photo),
        layout,
        stock,
        corners: null,
        cameraIsTrue: true,
        throughSheet: isMirrored && isSeeThrough(stock),
      }),
    );
  return { stock, layout, piece, back: turnedOver(piece, lets), read };
}

function cellsOf(result: ReturnType<ReturnType<typeof burned>['read']>) {
  if (result.outcome !== 'read') throw new Error(`not read: ${result.outcome}`);
  return result.cells;
}

describe('a clear sheet that was turned over', () => {
  const { stock, layout, piece, back, read } = burned('acrylic');
  const truthOf = (cellIndex: number): number => {
    const ratio = trueLuminanceRatio(piece, layout.cells[cellIndex]!.box);
    return lightnessOfLuminance(luminanceOfLightness(stock.bareLightness) * ratio);
  };

  it('is read through its back as from its front, less surely, and never silently wrong', () => {
    const front = cellsOf(read(photoOf(piece, 'front', SIZE)));
    const photo = photoOf(back, 'back', SIZE);
    const result = read(photo);
    const cells = cellsOf(result);
    expect(cells).toHaveLength(front.length);
    if (result.outcome !== 'read') return;
    expect(isMirror(result.toPhoto)).toBe(true);
    // Where the card's own upper left is seen from behind: at the right of the piece as it lies.
    const [there, seen] = [project(result.toPhoto, 0, 0), photo.placeOf(layout.widthMm, 0)];
    expect(Math.hypot(there.x - seen.x, there.y - seen.y)).toBeLessThan(3);
    for (const [at, cell] of cells.entries()) {
      const off = Math.abs(cell.lightness - truthOf(cell.cellIndex));
      expect(off < 2 || cell.confidence < LOW_CONFIDENCE, `cell ${cell.cellIndex} off by ${off}`).toBe(true);
      expect(off).toBeLessThan(3 * cell.lightnessSigma + 0.3);
      expect(cell.lightnessSigma).toBeGreaterThanOrEqual(front[at]!.lightnessSigma * 0.8);
    }
    // Uncorrected the strongest cell would stand out by a tenth less.
    const strongest = cells.reduce((one, other) => (other.deltaLightness > one.deltaLightness ? other : one));
    expect(strongest.deltaLightness).toBeGreaterThan(20);
    // Merged they are no worse than the front by itself.
    const both = [
      { cells: front, isMirrored: false },
      { cells, isMirrored: true },
    ];
    mergeCells(both).forEach((cell, at) => {
      const off = (one: typeof cell): number => Math.abs(one.lightness - truthOf(one.cellIndex));
      expect(off(cell)).toBeLessThan(off(front[at]!) + 0.3);
      expect(cell.doubts).not.toContain('photos-disagree');
    });
  });
});

it('a board that was turned over shows its bare back and is not read; a camera that mirrors takes nothing of its front', () => {
  const { piece, back, read } = burned('alder');
  expect(read(photoOf(back, 'board', SIZE)).outcome).toBe('needs-corners');
  const photo = photoOf(piece, 'board', SIZE);
  const [straight, inMirror] = [cellsOf(read(photo)), cellsOf(read(mirrored(photo)))];
  straight.forEach(({ lightness, lightnessSigma }, at) => {
    expect(inMirror[at]!.lightness).toBeCloseTo(lightness, 0);
    expect(inMirror[at]!.lightnessSigma / lightnessSigma).toBeCloseTo(1, 0);
  });
});

it('a coat is counted on a light table whichever face is up', () => {
  const { layout, stock, piece, back } = burned('coated');
  const table = (one: typeof piece) =>
    photograph(onLightTable(one, 0.012), { ...lightTableShot('either face'), ...SIZE });
  const through = (photo: RgbImage) => {
    const result = readEitherFace(photo.width, ({ turn }) =>
      readBacklit({ photo: turn(photo), layout, stock, corners: null, cameraIsTrue: true }),
    );
    if (result.outcome !== 'read') throw new Error(`not read: ${result.outcome}`);
    return result.cells;
  };
  for (const cell of through(table(back))) {
    const truth = trueThrough(piece, layout.cells[cell.cellIndex]!.box);
    expect(Math.abs(cell.through - truth)).toBeLessThan(3 * cell.sigma + 0.02);
  }
});
