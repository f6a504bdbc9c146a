import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../../stand-ins/demo';
import { paintFace } from '../../../../stand-ins/other-camera/face';
import { opened, snap, usualSnap, type Snap } from '../../../../stand-ins/other-camera/shoot';
import { grid } from '../../../cards/grid';
import { layCard } from '../../card/lay';
import { findMarkers } from '../find-markers';
import { locateCard } from '../locate-card';
import type { Rectified } from '../rectify';
import { stockLinearColour } from '../stock-colour';
import { straightened } from '../straighten';
import type { LightAt } from './evened';
import { lightOfCard, type LightOfCard } from './light-of-card';
import { points } from '../../../../tests/support/points';

const pairing = demoPairing('heron', 'birch');
const { plan } = grid.propose({ pairing, facts: [] });
const layout = layCard(grid, { ...plan, leaveOutFailing: false }, pairing, { cardNumber: 12 });
const face = paintFace(layout, pairing.stock, { seed: 'light' });
const stockLinear = stockLinearColour(pairing.stock);

async function straight(shot: Partial<Snap>): Promise<Rectified> {
  const photo = await opened(await snap(face, { ...usualSnap('light'), ...shot }));
  const location = locateCard(layout, findMarkers(photo));
  if (location.found !== 'card') throw new Error(location.found);
  return straightened(photo, location.toPhoto, layout);
}

/** One channel of a photo's light at a place of the card as it is levelled there. */
function levelled(light: LightOfCard, value: number, channel: 0 | 1 | 2, x: number, y: number): number {
  const { gain, added } = light.levelling(x, y);
  return Math.max(0, value * gain[channel] - added[channel]);
}

/** The largest difference, over the brightest light, of what was levelled place by place and of the straightened card as a whole. */
function apart(image: Rectified, light: LightOfCard): number {
  let most = 0;
  for (let pixel = 0; pixel < image.width * image.height; pixel += 37) {
    const [x, y] = [
      ((pixel % image.width) + 0.5) / image.pxPerMm,
      (Math.floor(pixel / image.width) + 0.5) / image.pxPerMm,
    ];
    for (const channel of [0, 1, 2] as const) {
      const at = 3 * pixel + channel;
      most = Math.max(most, Math.abs(levelled(light, image.data[at]!, channel, x, y) - light.rectified.data[at]!));
    }
  }
  return most;
}

describe('the light on a card', () => {
  it('is cleared of a reflection at each place as it is on the straightened card', async () => {
    const middle = { x: layout.widthMm / 2, y: layout.heightMm / 2 };
    const image = await straight({ glare: { ...middle, wide: 9, high: 9, adds: 0.15 } });
    const light = lightOfCard(image, layout, { stockLinear, sheet: null, sigmaOfRatio: null });
    if (typeof light === 'string') throw new Error(light);
    expect(light.taken!.range).toBeGreaterThan(0.08);
    expect(light.isTold).toBe(false);
    expect(apart(image, light)).toBeLessThan(1e-5);
    // In the middle of it a good part of what is seen was added.
    const seen =
      image.data[3 * (Math.round(middle.y * image.pxPerMm) * image.width + Math.round(middle.x * image.pxPerMm)) + 1]!;
    expect(levelled(light, seen, 1, middle.x, middle.y)).toBeLessThan(seen - 0.04);
  });

  it('is evened by a sheet’s paper where bare stock is blown out, and only there', async () => {
    const slope: LightAt = (x) => [0.9 - 0.004 * x, 0.9 - 0.005 * x, 0.8 - 0.004 * x];
    const known = {
      stockLinear,
      sheet: { paperLight: slope, greys: [] },
      sigmaOfRatio: () => 0.01,
    };
    const blown = await straight({ exposure: 1.5 });
    const light = lightOfCard(blown, layout, known);
    if (typeof light === 'string') throw new Error(light);
    expect(light.isTold).toBe(true);
    // Light is evened over squares of four pixels.
    expect(apart(blown, light)).toBeLessThan(0.002);
    const [left, right] = [2, layout.widthMm - 2].map((x) => levelled(light, 0.5, 1, x, 10)) as [number, number];
    expect(left / right).toBeCloseTo(slope(layout.widthMm - 2, 10)[1] / slope(2, 10)[1], 6);
    const usual = lightOfCard(await straight({}), layout, known);
    if (typeof usual === 'string') throw new Error(usual);
    expect(usual.isTold).toBe(false);
    expect(levelled(usual, 0.5, 1, 2, 10)).toBe(0.5);
  });

  it('is cleared of a broad reflection that a sheet’s greys tell, at each place as on the straightened card', async () => {
    const wall = (x: number, y: number): number =>
      0.04 * Math.exp(-(((x - layout.widthMm) / 40) ** 2) - ((y - 10) / 40) ** 2);
    const greys = [-45, -30, -15, 0, 15, 30, 45].flatMap((away) =>
      [-1, 1].flatMap((side) =>
        points(
          [layout.widthMm / 2 + away, layout.heightMm / 2 + 44 * side],
          [layout.widthMm / 2 + 54 * side, layout.heightMm / 2 + away],
        ).map((place) => ({ ...place, added: wall(place.x, place.y), grey: 0.05, sigmaShare: 0.008, bentShare: 0 })),
      ),
    );
    const usual = lightOfCard(await straight({ exposure: 0.75 }), layout, {
      stockLinear,
      sheet: null,
      sigmaOfRatio: null,
    });
    if (typeof usual === 'string') throw new Error(usual);
    for (const exposure of [0.75, 1.5]) {
      const image = await straight({ exposure });
      // Paper beside the card, in the same light.
      const paperLight: LightAt = (x, y) => {
        const [red, green, blue] = usual.field.at(x, y);
        const share = (0.853 * exposure) / 0.75;
        return [(share * red) / stockLinear[0], (share * green) / stockLinear[1], (share * blue) / stockLinear[2]];
      };
      const known = { stockLinear, sheet: { paperLight, greys }, sigmaOfRatio: () => 0.01 };
      const light = lightOfCard(image, layout, known);
      if (typeof light === 'string') throw new Error(light);
      expect(light.isTold).toBe(exposure > 1);
      expect(apart(image, light)).toBeLessThan(0.002);
      // It is the right side's: there more is taken away.
      const [left, right] = [2, layout.widthMm - 2].map((x) => light.levelling(x, 10).added[1]) as [number, number];
      expect(right).toBeGreaterThan(left + 0.001);
      expect(light.addedSigma(layout.widthMm - 2, 10)).toBeGreaterThan(0.2 * (right - left));
      expect(light.taken!.range).toBeGreaterThan(0.008);
    }
  });

  it('is not told where nothing of bare stock is left below the camera’s range', async () => {
    const known = { stockLinear, sheet: null, sigmaOfRatio: null };
    expect(lightOfCard(await straight({ exposure: 2.6 }), layout, known)).toBe('overexposed');
  });
});
