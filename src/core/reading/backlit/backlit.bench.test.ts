import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../../stand-ins/burn';
import { demoPairing } from '../../../../stand-ins/demo';
import { markerRegion } from '../../card/path';
import { opened, snap, usualSnap } from '../../../../stand-ins/other-camera/shoot';
import { lightTableShot, photograph } from '../../../bench/camera';
import { onLightTable, trueThrough } from '../../../bench/light-table';
import { grid } from '../../../cards/grid';
import { layCard } from '../../card/lay';
import type { Layout } from '../../card/layout';
import { boxOfShape } from '../../card/shape';
import type { RgbImage } from '../../image/raster';
import { clearedCells } from './cleared';
import { readBacklit } from './read-backlit';

const pairing = demoPairing('marl', 'coated');
const { plan } = grid.propose({ pairing, facts: [] });
const layout = layCard(grid, plan, pairing, { cardNumber: 321 });

function cellsOf(photo: RgbImage) {
  const result = readBacklit({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true });
  if (result.outcome !== 'read') throw new Error(`not read: ${JSON.stringify(result)}`);
  return result.cells;
}

/** A coat with cells of known openness, by the tests' own renderer, on a bright table. */
function paintedOnTable(card: Layout, openOf: (index: number) => number) {
  const [pxPerMm, marginMm] = [16, 26];
  const [width, height] = [card.widthMm, card.heightMm].map((mm) => Math.round((mm + 2 * marginMm) * pxPerMm)) as [
    number,
    number,
  ];
  const data = new Float32Array(width * height * 3).fill(1);
  const paint = (x: number, y: number, wide: number, high: number, value: number): void => {
    const at = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
    for (let row = at(y); row < at(y + high); row++)
      data.fill(value, (row * width + at(x)) * 3, (row * width + at(x + wide)) * 3);
  };
  paint(-6, -6, card.widthMm + 12, card.heightMm + 12, 0.002);
  for (const marker of card.frame.markers)
    for (const ring of markerRegion(marker)) {
      const box = boxOfShape({ do: 'sweep', area: [ring] });
      paint(box.x, box.y, box.width, box.height, 0.35);
    }
  for (const { index, box, leftOut } of card.cells)
    if (!leftOut) paint(box.x, box.y, box.width, box.height, openOf(index));
  return { data, width, height, pxPerMm, marginMm, widthMm: card.widthMm, heightMm: card.heightMm, truth: [] };
}

describe('light through a coat', () => {
  it('is told within twice its sigma, and no cell with coat left is called clear', () => {
    let told = 0;
    let within = 0;
    for (const seed of ['one', 'two']) {
      const piece = burnOnBench(layout, pairing, `coat ${seed}`);
      const shot = { ...lightTableShot(`coat ${seed}`), widthPx: 2200, heightPx: 1650 };
      const cells = cellsOf(photograph(onLightTable(piece, 0.012), shot));
      const truth = new Map(
        cells.map(({ cellIndex }) => [cellIndex, trueThrough(piece, layout.cells[cellIndex]!.box)]),
      );
      const clearest = Math.max(...truth.values());
      for (const { cellIndex, through, sigma, doubts } of cells) {
        expect(doubts).toEqual([]);
        expect(Math.abs(through - truth.get(cellIndex)!)).toBeLessThan(0.04);
        told++;
        if (Math.abs(through - truth.get(cellIndex)!) <= 2 * sigma) within++;
      }
      const cleared = clearedCells(cells);
      for (const [cellIndex, clear] of cleared) {
        if (clear === true) expect(truth.get(cellIndex)!).toBeGreaterThan(0.92 * clearest);
        if (clear === false) expect(truth.get(cellIndex)!).toBeLessThan(0.99 * clearest);
      }
      expect([...cleared.values()].filter((clear) => clear === true).length).toBeGreaterThanOrEqual(2);
    }
    expect(within / told).toBeGreaterThanOrEqual(0.95);
  });
  it('is in doubt in a lit room, whose light the marks send back', () => {
    const piece = burnOnBench(layout, pairing, 'coat lit');
    const shot = { ...lightTableShot('coat lit'), widthPx: 2200, heightPx: 1650 };
    const cells = cellsOf(photograph(onLightTable(piece, 0.4), shot));
    const off = cells.filter(
      ({ cellIndex, through }) => Math.abs(through - trueThrough(piece, layout.cells[cellIndex]!.box)) > 0.1,
    );
    expect(off.length).toBeGreaterThan(10);
    expect(off.every(({ doubts }) => doubts.includes('room-light'))).toBe(true);
  });
  it('is told by photos of another renderer too', async () => {
    const openOf = (index: number): number => 0.01 + (0.9 * (index + 1)) / layout.cells.length;
    const { lamp, ...usual } = usualSnap('table');
    const shot = { ...usual, exposure: 0.7, widthPx: 1800, heightPx: 1350 };
    const photo = await opened(await snap(paintedOnTable(layout, openOf), shot));
    for (const { cellIndex, through, sigma } of cellsOf(photo))
      expect(Math.abs(through - openOf(cellIndex))).toBeLessThan(Math.max(0.03, 2.5 * sigma));
  });
});
