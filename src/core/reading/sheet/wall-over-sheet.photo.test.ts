import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../../stand-ins/demo';
import { cardOfFew } from '../../../../tests/support/few-cells';
import { paintFace } from '../../../../stand-ins/other-camera/face';
import { inSheet, printedShare, USUAL_PRINT } from '../../../../stand-ins/other-camera/sheet';
import { opened, snap, usualSnap } from '../../../../stand-ins/other-camera/shoot';
import { frameSheet, GREY_STEPS } from '../../sheet/frame-sheet';
import { findMarkersOfCard } from '../find-markers-of-card';
import { locateCard } from '../locate-card';
import { project } from '../../geometry/homography';
import { luminanceOfLightness } from '../../color/lab';
import { LOW_CONFIDENCE } from '../observations';
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

describe('a bright wall’s reflection over a card on a frame sheet', () => {
  it.each(['slate', 'twoLayer'] as const)(
    'is taken out of the tones of %s, which nothing else tells it on',
    async (stock) => {
      const pairing = demoPairing('marl', stock);
      const layout = cardOfFew(pairing, 5, 4);
      const face = paintFace(layout, pairing.stock, { seed: 'wall' });
      const wall = { x: layout.widthMm * 0.7, y: layout.heightMm * 0.3, wide: 45, high: 35, adds: 0.012 };
      const shot = { ...usualSnap('wall'), glare: wall, widthPx: 2400, heightPx: 1800 };
      const photo = await opened(await snap(inSheet(face, SHEET, USUAL_PRINT, 'print'), shot));
      const errors = (sheets: object): number[] => {
        const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true, sheets });
        if (result.outcome !== 'read') throw new Error(JSON.stringify(result));
        return result.cells.map(({ cellIndex, lightness }) => lightness - face.truth[cellIndex]!);
      };
      const worst = (all: readonly number[]): number => Math.max(...all.map(Math.abs));
      expect(worst(errors({ a5: GREYS }))).toBeLessThan(2);
      // Without what the greys were measured to send the reflection stays in them.
      expect(worst(errors({}))).toBeGreaterThan(3);
    },
  );

  it('does not keep a lamp’s from being told by colour, which bent tones may look like by themselves', async () => {
    const pairing = demoPairing('heron', 'leather');
    const layout = cardOfFew(pairing, 5, 4);
    const face = paintFace(layout, pairing.stock, { seed: 'lamp' });
    const lamp = { x: layout.widthMm * 0.5, y: layout.heightMm * 0.4, wide: 13, high: 12, adds: 0.055 };
    const shot = { ...usualSnap('lamp'), glare: lamp, widthPx: 2400, heightPx: 1800 };
    const photo = await opened(await snap(inSheet(face, SHEET, USUAL_PRINT, 'print'), shot));
    const read = { photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: false, sheets: { a5: GREYS } };
    const result = readCard(read);
    if (result.outcome !== 'read') throw new Error(JSON.stringify(result));
    expect(result.faults.map(({ fault }) => fault)).toContain('reflection');
    for (const { cellIndex, lightness, confidence } of result.cells)
      if (confidence >= LOW_CONFIDENCE)
        expect(Math.abs(lightness - face.truth[cellIndex]!), `cell ${cellIndex}`).toBeLessThan(2);
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
