import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { cardOfFew } from '../../../tests/support/few-cells';
import { paintFace } from '../../../stand-ins/other-camera/face';
import { HAZARDS, staged } from '../../../stand-ins/other-camera/hazards';
import { onScreen } from '../../../stand-ins/other-camera/screen';
import { inSheet, USUAL_PRINT } from '../../../stand-ins/other-camera/sheet';
import { opened, snap, usualSnap, type Snap } from '../../../stand-ins/other-camera/shoot';
import type { Layout } from '../card/layout';
import { frameSheet } from '../sheet/frame-sheet';
import { readCard } from './read-card';

const pairing = demoPairing('marl', 'alder');
const layout = cardOfFew(pairing, 5, 4);
const read = async (face: Parameters<typeof snap>[0], shot: Snap) =>
  readCard({
    photo: await opened(await snap(face, shot)),
    layout,
    stock: pairing.stock,
    corners: null,
    cameraIsTrue: true,
  });
const face = paintFace(layout, pairing.stock, { seed: 'picture' });

describe('a picture of a card', () => {
  const near: Snap = { ...usualSnap('picture'), widthPx: 2000, heightPx: 1500 };

  it('on a screen is told by its coloured pixels, and not read', async () => {
    expect(await read(onScreen(face, 0.19), near)).toEqual({ outcome: 'unreadable', reason: 'screen' });
  });

  it('is not taken for one where stock is hatched or grained, or lit by lamps of two colours', async () => {
    for (const name of ['knots, strong grain', 'two lamps of two colours', 'small and squeezed']) {
      const { face: options, shot } = staged(
        HAZARDS.find((one) => one.name === name)!,
        'picture',
        layout,
      );
      expect((await read(paintFace(layout, pairing.stock, { ...options, ripple: 0.2 }), shot)).outcome, name).toBe(
        'read',
      );
    }
  });

  it('that is printed smaller than the card is told by the sheet beside it; the card itself, a little higher than the sheet, is read', async () => {
    const shot = { ...usualSnap('picture'), widthPx: 2000, heightPx: 1500 };
    const photo = await opened(await snap(inSheet(face, frameSheet('a5'), USUAL_PRINT, 'print'), shot));
    const readAs = (of: Layout) =>
      readCard({ photo, layout: of, stock: pairing.stock, corners: null, cameraIsTrue: true });
    /** The card as it would be, were the picture so much smaller. */
    const larger = (by: number): Layout => {
      const box = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) => ({
        x: by * x,
        y: by * y,
        width: by * width,
        height: by * height,
      });
      return {
        ...layout,
        widthMm: by * layout.widthMm,
        heightMm: by * layout.heightMm,
        inner: box(layout.inner),
        cells: layout.cells.map((cell) => ({ ...cell, box: box(cell.box) })),
        frame: {
          ...layout.frame,
          lettering: [],
          markers: layout.frame.markers.map((marker) => ({
            ...marker,
            x: by * marker.x,
            y: by * marker.y,
            sizeMm: by * marker.sizeMm,
          })),
        },
      };
    };
    expect(readAs(larger(1.12))).toEqual({ outcome: 'unreadable', reason: 'not-to-scale' });
    expect(readAs(larger(1.03)).outcome).toBe('read');
    expect(readAs(layout).outcome).toBe('read');
  });
});
