import { describe, expect, it } from 'vitest';
import { paintFace } from '../../../../stand-ins/other-camera/face';
import { inSheet, USUAL_PRINT, type LaidDown } from '../../../../stand-ins/other-camera/sheet';
import { opened, snap, usualSnap } from '../../../../stand-ins/other-camera/shoot';
import { demoPairing } from '../../../../stand-ins/demo';
import { gridOfFew } from '../../../../tests/support/few-cells';
import { grid } from '../../../cards/grid';
import type { GridPlan } from '../../../cards/grid/plan';
import { layCard } from '../../card/lay';
import type { Layout } from '../../card/layout';
import { project } from '../../geometry/homography';
import { frameSheet } from '../../sheet/frame-sheet';
import { findMarkers } from '../find-markers';
import { readCard } from '../read-card';
import { locateSheet } from './locate-sheet';
import { placeOnSheet } from './place-on-sheet';
import { tuples } from '../../../../tests/support/tuples';

const pairing = demoPairing('marl', 'alder');
const few = gridOfFew(pairing, 5, 3);
const small: GridPlan = { ...few, frame: { ...few.frame, markers: 'on-sheet' } };
const layout = layCard(grid, small, pairing, { cardNumber: 5 });
const face = paintFace(layout, pairing.stock, { seed: 'on a sheet' });
const SHEET = frameSheet('a5');

/** A photo of the card as it was laid on the sheet, and where a place of the card lies on that. */
async function photoOf(laid: LaidDown, of = face, widthPx = 1400) {
  const scene = inSheet(of, SHEET, USUAL_PRINT, 'print', laid);
  return opened(await snap(scene, { ...usualSnap('on a sheet'), widthPx, heightPx: (3 * widthPx) / 4 }));
}
/** Where a place of the card lies on the sheet. */
function onSheet({ dx, dy, degrees }: LaidDown, x: number, y: number) {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [u, v] = [x - layout.widthMm / 2, y - layout.heightMm / 2];
  return {
    x: SHEET.window.x + SHEET.window.width / 2 + dx + c * u - s * v,
    y: SHEET.window.y + SHEET.window.height / 2 + dy + s * u + c * v,
  };
}

describe('a card without markers', () => {
  it('is smaller than one with, and keeps its lettering', () => {
    const marked = layCard(grid, few, pairing, { cardNumber: 5 });
    expect(layout.frame.markers).toEqual([]);
    expect(layout.widthMm * layout.heightMm).toBeLessThan(0.92 * marked.widthMm * marked.heightMm);
    expect(layout.frame.lettering.length).toBe(marked.frame.lettering.length);
  });

  it.each([
    { dx: 0, dy: 0, degrees: 0 },
    { dx: 9, dy: -7, degrees: 6 },
    { dx: 4, dy: 3, degrees: 110 },
    { dx: -2, dy: 2, degrees: 203 },
  ])('is found on a frame sheet as it was laid down: %j', async (laid) => {
    const photo = await photoOf(laid);
    const place = locateSheet(findMarkers(photo))!;
    const found = placeOnSheet(photo, layout, place)!;
    for (const [x, y] of tuples([2, 2], [layout.widthMm - 2, 3], [layout.widthMm / 2, layout.heightMm - 2])) {
      const [seen, told] = [project(found, x, y), project(place.toPhoto, onSheet(laid, x, y).x, onSheet(laid, x, y).y)];
      const pxPerMm = Math.hypot(project(found, x + 1, y).x - seen.x, project(found, x + 1, y).y - seen.y);
      expect(Math.hypot(seen.x - told.x, seen.y - told.y) / pxPerMm).toBeLessThan(0.6);
    }
  });

  it('is read there, by its own cells’ places, with nothing set by hand', async () => {
    const result = readCard({
      photo: await photoOf({ dx: 9, dy: -7, degrees: 6 }, face, 1800),
      layout,
      stock: pairing.stock,
      corners: null,
      cameraIsTrue: true,
    });
    if (result.outcome !== 'read') throw new Error(JSON.stringify(result));
    expect(result.markers).toBe(0);
    for (const { cellIndex, lightness } of result.cells)
      expect(Math.abs(lightness - face.truth[cellIndex]!), `cell ${cellIndex}`).toBeLessThan(2);
  });

  it('is not found where the sheet bears something else, or nothing, and corners are asked for', async () => {
    const other: Layout = {
      ...layout,
      cells: layout.cells.map((cell) => ({ ...cell, box: { ...cell.box, x: 2.6 * cell.box.x } })),
    };
    for (const photo of [
      await photoOf({ dx: 0, dy: 0, degrees: 0 }, paintFace(other, pairing.stock, { seed: 'other' })),
      await opened(await snap(inSheet(null, SHEET, USUAL_PRINT, 'print'), usualSnap('bare'))),
    ])
      expect(readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true })).toEqual({
        outcome: 'needs-corners',
        markers: 0,
      });
  });

  it('is read without a sheet once the corners of its corner cells were set by hand, some millimetres off', async () => {
    const shot = { ...usualSnap('no sheet'), widthPx: 1800, heightPx: 1350, tilt: 0, roll: 0, lean: 0 };
    const photo = await opened(await snap(face, shot));
    // Straight from above the card lies in the middle, at a scale that its own width tells.
    const scale = Math.min((1800 * 0.78) / layout.widthMm, (1350 * 0.78) / layout.heightMm);
    const { inner } = layout;
    const at = (x: number, y: number) => ({
      x: 900 + (x - layout.widthMm / 2) * scale + 20,
      y: 675 + (y - layout.heightMm / 2) * scale - 15,
    });
    const corners = [
      at(inner.x, inner.y),
      at(inner.x + inner.width, inner.y),
      at(inner.x + inner.width, inner.y + inner.height),
      at(inner.x, inner.y + inner.height),
    ];
    const result = readCard({ photo, layout, stock: pairing.stock, corners, cameraIsTrue: true });
    if (result.outcome !== 'read') throw new Error(JSON.stringify(result));
    for (const { cellIndex, lightness } of result.cells)
      expect(Math.abs(lightness - face.truth[cellIndex]!)).toBeLessThan(2);
  });

  it('asks for corners where no sheet lies under it', async () => {
    const photo = await opened(await snap(face, usualSnap('no sheet')));
    expect(readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true })).toEqual({
      outcome: 'needs-corners',
      markers: 0,
    });
  });
});
