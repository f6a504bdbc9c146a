import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { cardOfFew } from '../../../tests/support/few-cells';
import { paintFace } from '../../../stand-ins/other-camera/face';
import { HAZARDS, staged } from '../../../stand-ins/other-camera/hazards';
import { opened, snap } from '../../../stand-ins/other-camera/shoot';
import { findMarkers } from './find-markers';
import { locateCard } from './locate-card';
import { locateOnPiece, partingGray, sidesMeet } from './locate-on-piece';
import { readCard } from './read-card';
import { points } from '../../../tests/support/points';

describe('the gray that parts dark from light', () => {
  it('lies between two heaps of grays, however unlike in size', () => {
    const data = Uint8Array.from({ length: 1000 }, (_, k) => (k < 150 ? 20 + (k % 9) : 180 + (k % 17)));
    const parting = partingGray({ data, width: 100, height: 10 });
    expect(parting).toBeGreaterThanOrEqual(28);
    expect(parting).toBeLessThan(180);
  });
});

describe('sides that are made to meet', () => {
  it('give back the corners that are cut off, and refuse what has no four sides', () => {
    // A square of 100 with its corners cut off by 15.
    const cut = [
      [15, 0],
      [85, 0],
      [100, 15],
      [100, 85],
      [85, 100],
      [15, 100],
      [0, 85],
      [0, 15],
    ].map(([x, y]) => ({ x: x!, y: y! }));
    const corners = sidesMeet(cut)!;
    expect(corners).toHaveLength(4);
    for (const { x, y } of points([0, 0], [100, 0], [100, 100], [0, 100]))
      expect(Math.min(...corners.map((p) => Math.hypot(p.x - x, p.y - y)))).toBeLessThan(1e-9);
    expect(sidesMeet(points([0, 0], [10, 0], [5, 8]))).toBeNull();
  });
});

describe('a card that was cut off along its markers', () => {
  const pairing = demoPairing('heron', 'birch');
  const layout = cardOfFew(pairing, 4, 3, 61);
  const flush = HAZARDS.find(({ name }) => name === 'cut flush at its markers')!;
  const { face: look, shot: usual } = staged(flush, 'flush', layout);
  const face = paintFace(layout, pairing.stock, { ...look, table: [0.02, 0.02, 0.02] });
  const shot = { ...usual, widthPx: 640, heightPx: 480 };
  it('is found on a table as dark as its markers, which run into it, and read', async () => {
    const photo = await opened(await snap(face, { ...shot, roll: 12 }));
    expect(locateCard(layout, findMarkers(photo)).found).toBe('too-few-markers');
    const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true });
    if (result.outcome !== 'read') return expect(result).toMatchObject({ outcome: 'read' });
    expect(result.frameErrorMm).toBeLessThan(0.06);
    for (const { cellIndex, lightness } of result.cells)
      expect(Math.abs(lightness - face.truth[cellIndex]!), `cell ${cellIndex}`).toBeLessThan(1);
  });
  it.each([0, 190])('is found turned by %i degrees, and no other card in its place', async (roll) => {
    const photo = await opened(await snap(face, { ...shot, roll }));
    const placed = locateOnPiece(photo, layout)!;
    expect(placed.markers).toBe(4);
    expect(placed.rmsPx).toBeLessThan(0.7);
    expect(locateOnPiece(photo, cardOfFew(pairing, 4, 3, 4000))).toBeNull();
  });
  it('is found by markers that are lighter than its stock', async () => {
    const slate = demoPairing('marl', 'slate');
    const card = cardOfFew(slate, 4, 3, 61);
    const pale = paintFace(card, slate.stock, { ...look, table: [0.7, 0.7, 0.7] });
    expect(locateOnPiece(await opened(await snap(pale, { ...shot, roll: 12 })), card)!.markers).toBe(4);
  });
});
