import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../../stand-ins/demo';
import { cardOfFew } from '../../../../tests/support/few-cells';
import { paintFace } from '../../../../stand-ins/other-camera/face';
import { inSheet, printedShare, USUAL_PRINT } from '../../../../stand-ins/other-camera/sheet';
import { opened, snap, usualSnap, type Snap } from '../../../../stand-ins/other-camera/shoot';
import type { Pairing } from '../../card/contract';
import { frameSheet, GREY_STEPS } from '../../sheet/frame-sheet';
import { findMarkersOfCard } from '../find-markers-of-card';
import { locateCard } from '../locate-card';
import { project } from '../../geometry/homography';
import { luminanceOfLightness } from '../../color/lab';
import { LOW_CONFIDENCE, type CellReading } from '../observations';
import { readCard } from '../read-card';
import { toneOfPlace } from './tone-of-place';

const SHEET = frameSheet('a5');
const GREYS = {
  reflectances: GREY_STEPS.map((_, step) => {
    const share = printedShare(USUAL_PRINT, step);
    return [share, share, share] as const;
  }),
  contrastSigma: 0.01,
};

/** A small card on a frame sheet, photographed with a reflection whose place is told in parts of the card's own size. */
async function underGlare(pairing: Pairing, seed: string, glare: NonNullable<Snap['glare']>) {
  const layout = cardOfFew(pairing, 5, 4);
  const face = paintFace(layout, pairing.stock, { seed });
  const there = { ...glare, x: layout.widthMm * glare.x, y: layout.heightMm * glare.y };
  const shot = { ...usualSnap(seed), glare: there, widthPx: 2400, heightPx: 1800 };
  const photo = await opened(await snap(inSheet(face, SHEET, USUAL_PRINT, 'print'), shot));
  return (cameraIsTrue: boolean, sheets: object) => {
    const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue, sheets });
    if (result.outcome !== 'read') throw new Error(JSON.stringify(result));
    const off = ({ cellIndex, lightness }: CellReading) => Math.abs(lightness - face.truth[cellIndex]!);
    return { ...result, off };
  };
}

describe('a bright wall’s reflection over a card on a frame sheet', () => {
  it('is taken out of the tones of slate, which nothing else tells it on', async () => {
    const read = await underGlare(demoPairing('marl', 'slate'), 'wall', {
      x: 0.7,
      y: 0.3,
      wide: 45,
      high: 35,
      adds: 0.012,
    });
    const worst = (sheets: object): number => {
      const { cells, off } = read(true, sheets);
      return Math.max(...cells.map(off));
    };
    expect(worst({ a5: GREYS })).toBeLessThan(2);
    // Without what the greys were measured to send the reflection stays in them.
    expect(worst({})).toBeGreaterThan(3);
  });

  it('does not keep a lamp’s from being told by colour, which bent tones may look like by themselves', async () => {
    const read = await underGlare(demoPairing('heron', 'leather'), 'lamp', {
      x: 0.5,
      y: 0.4,
      wide: 13,
      high: 12,
      adds: 0.055,
    });
    const { faults, cells, off } = read(false, { a5: GREYS });
    expect(faults.map(({ fault }) => fault)).toContain('reflection');
    for (const cell of cells)
      if (cell.confidence >= LOW_CONFIDENCE) expect(off(cell), `cell ${cell.cellIndex}`).toBeLessThan(2);
  });

  it('is taken out of the tone of one place by the greys alone, less surely', async () => {
    const pairing = demoPairing('heron', 'birch');
    const layout = cardOfFew(pairing, 5, 4);
    const face = paintFace(layout, pairing.stock, { seed: 'place' });
    const dark = layout.cells.reduce((one, other) => (face.truth[other.index]! < face.truth[one.index]! ? other : one));
    const scene = inSheet(face, SHEET, USUAL_PRINT, 'print');
    const told = async (adds: number) => {
      const glare = { x: layout.widthMm * 0.9, y: layout.heightMm * 0.3, wide: 40, high: 35, adds };
      const shot = { ...usualSnap('place'), glare, widthPx: 2400, heightPx: 1800 };
      const photo = await opened(await snap(scene, shot));
      const markers = findMarkersOfCard(photo, layout);
      const location = locateCard(layout, markers);
      if (location.found !== 'card') throw new Error(location.found);
      const { x, y, width, height } = dark.box;
      const middle = project(location.toPhoto, x + width / 2, y + height / 2);
      const bare = project(location.toPhoto, layout.inner.x - 1.2, layout.inner.y + layout.inner.height / 2);
      const here = { ...middle, radiusPx: 12 };
      const tone = toneOfPlace(photo, markers, { a5: GREYS }, here, { ...bare, radiusPx: 10 });
      if ('fault' in tone) throw new Error(tone.fault);
      return tone;
    };
    const [plain, lit] = [await told(0), await told(0.015)];
    const ratio = luminanceOfLightness(face.truth[dark.index]!) / luminanceOfLightness(pairing.stock.bareLightness);
    for (const { overBare } of [plain, lit])
      expect(Math.abs(Math.log(overBare!.ratio / ratio))).toBeLessThan(2 * overBare!.sigmaShare);
    // Left in, it makes the mark 2.7 L* brighter.
    expect(Math.abs(lit.lightness - plain.lightness)).toBeLessThan(2.2);
    expect(Math.abs(lit.lightness - plain.lightness)).toBeLessThan(2 * lit.sigma);
    expect(lit.sigma).toBeGreaterThan(1.15 * plain.sigma);
    expect(lit.overBare!.sigmaShare).toBeGreaterThan(1.2 * plain.overBare!.sigmaShare);
  });
});
