import { describe, expect, it } from 'vitest';
import { drawSheet, INK_SHARES, type DrawnSheet } from '../../../../tests/support/drawn-sheet';
import { linearToSrgb, LINEAR_OF_BYTE } from '../../color/srgb';
import type { RgbImage } from '../../image/raster';
import { frameSheet, GREY_STEPS } from '../../sheet/frame-sheet';
import { atLeast, findMarkers } from '../find-markers';
import { locateSheet } from './locate-sheet';
import { measureGreys } from './measure-greys';
import { faultOfGreys, seenGreys, seenGreysAndRims } from './sheet-greys';
import { tonesBySheet } from './sheet-tones';
import { tuples } from '../../../../tests/support/tuples';

const sheet = frameSheet('a5');
/** Light that falls from one corner to the other, by a third, with a bow. */
const light = (x: number, y: number): number => 0.8 - 0.0018 * x - 0.0007 * y + 4e-6 * x * y;
/** Deepens what is dark, as phones do: an S about the middle of the stored value. */
const phone = (value: number): number => {
  const stored = linearToSrgb(value);
  return stored - 0.1 * Math.sin(2 * Math.PI * stored);
};
const draw = (how: Partial<DrawnSheet> = {}): RgbImage => drawSheet(sheet, { light, stored: phone, ...how });
const GREYS = { reflectances: INK_SHARES.map((share) => [share, share, share] as const), contrastSigma: 0.01 };
const tonesOf = (photo: RgbImage, greys = GREYS) => tonesBySheet(photo, findMarkers(photo, atLeast(8)), { a5: greys });

describe('tones by a frame sheet', () => {
  it('are undone whatever light falls on it, in any cast', () => {
    for (const cast of tuples([1, 1, 1], [1, 0.8, 0.55])) {
      const told = tonesOf(draw({ cast }))!;
      if (!('undone' in told)) return expect(told).toHaveProperty('undone');
      expect(told.format).toBe('a5');
      const { linearOfByte, sigmaOfRatio, bentBy } = told.undone;
      // Between tones that the greys span: a ratio of two lights is what it is.
      for (const [bright, dark] of tuples([0.6, 0.3], [0.6, 0.1], [0.5, 0.06])) {
        const at = (value: number): number => linearOfByte[Math.round(255 * phone(value))]!;
        expect(Math.log(at(bright) / at(dark)) / Math.log(bright / dark)).toBeCloseTo(1, 1);
        expect(Math.abs(Math.log(at(bright) / at(dark)) - Math.log(bright / dark))).toBeLessThan(0.04);
        expect(sigmaOfRatio(at(bright), at(dark))).toBeGreaterThan(0);
        expect(sigmaOfRatio(at(bright), at(dark))).toBeLessThan(0.1);
      }
      // sRGB's light of a tone that the phone deepened is too dark by half and more.
      expect(bentBy).toBeGreaterThan(0.5);
    }
  });
  it('are undone under a wall’s reflection, which is told at each dark grey and not taken for more light', () => {
    const wall = (x: number, y: number): number => 0.012 * Math.exp(-(((x - 90) / 50) ** 2) - ((y - 30) / 40) ** 2);
    const [plain, lit] = [tonesOf(draw())!, tonesOf(draw({ added: wall }))!];
    if (!('undone' in plain) || !('undone' in lit)) throw new Error('not told');
    const place = (x: number, y: number) => ({ x: (x + 6) * 5, y: (y + 6) * 5 });
    const shown = lit.added.filter(({ grey }) => grey < 0.2);
    expect(shown.length).toBeGreaterThan(15);
    const paper = (x: number, y: number): number => wall(x, y) / light(x, y);
    const places = shown.map(({ x, y, added }) => ({ added, truth: paper(x / 5 - 6, y / 5 - 6) }));
    // What was added to all of them alike is not seen.
    const beside = places.reduce((sum, { added, truth }) => sum + added - truth, 0) / places.length;
    expect(beside).toBeLessThan(0);
    for (const { added, truth } of places) expect(Math.abs(added - truth - beside)).toBeLessThan(0.0025);
    expect(
      Math.max(...places.map(({ added }) => added)) - Math.min(...places.map(({ added }) => added)),
    ).toBeGreaterThan(0.008);
    for (const { added } of plain.added.filter(({ grey }) => grey < 0.2)) expect(Math.abs(added)).toBeLessThan(0.0015);
    // Paper in the reflection's middle has as much more light beside another corner as without it.
    const fall = ({ paperLightAt }: typeof lit): number =>
      paperLightAt(place(90, 5))[1] / paperLightAt(place(10, 95))[1];
    expect(Math.abs(fall(lit) / fall(plain) - 1)).toBeLessThan(0.015);
  });
  it('are as they are stored by a camera that is true to light', () => {
    const told = tonesOf(draw({ stored: linearToSrgb }))!;
    if (!('undone' in told)) return expect(told).toHaveProperty('undone');
    expect(told.undone.bentBy).toBeLessThan(0.02);
    const ratio = (of: Float32Array): number => of[200]! / of[80]!;
    expect(ratio(told.undone.linearOfByte) / ratio(LINEAR_OF_BYTE)).toBeCloseTo(1, 1);
  });
  it('are unsure beyond the darkest grey, the more the further', () => {
    const told = tonesOf(draw())!;
    if (!('undone' in told)) return expect(told).toHaveProperty('undone');
    const { sigmaOfRatio } = told.undone;
    // The darkest grey has 0.04 of some 0.7.
    expect(sigmaOfRatio(0.3, 0.005)).toBeGreaterThan(sigmaOfRatio(0.3, 0.015));
    expect(sigmaOfRatio(0.3, 0.005)).toBeGreaterThan(0.3);
    expect(sigmaOfRatio(0.3, 0.06)).toBeLessThan(0.1);
  });
  it('are told with one corner gone, and not where there is no sheet', () => {
    expect(tonesOf(draw({ without: [2] }))).toHaveProperty('undone');
    expect(tonesOf(draw({ without: [1, 2] }))).toBeNull();
  });
  it('are not told by a sheet that was never measured, nor by another print, nor by one in the shadow of an edge', () => {
    const photo = draw();
    expect(tonesBySheet(photo, findMarkers(photo, atLeast(8)), { letter: GREYS })).toEqual({
      fault: 'sheet-not-measured',
    });
    // Two greys of the print that lies there were printed for each other.
    const shuffled = [0, 1, 5, 3, 4, 2, 6, 7, 8].map((step) => INK_SHARES[step]!);
    expect(tonesOf(draw({ shareOf: (step) => [shuffled[step]!, shuffled[step]!, shuffled[step]!] }))).toEqual({
      fault: 'greys-disagree',
    });
    expect(tonesOf(draw({ light: (x, y) => light(x, y) * (x + y > 90 ? 0.4 : 1) }))).toEqual({
      fault: 'greys-disagree',
    });
  });
  it('are not told where nearly all greys are at the bright end', () => {
    expect(tonesOf(draw({ light: () => 9 }))).toEqual({ fault: 'no-greys' });
  });
});

describe('the greys of a sheet in a photo', () => {
  it('are its patches, and the black rims of its markers where a photo is to be told by them', () => {
    const photo = draw({ light: () => 0.8, stored: linearToSrgb });
    const place = locateSheet(findMarkers(photo))!;
    const patches = seenGreys(photo, place, LINEAR_OF_BYTE);
    expect(patches).toHaveLength(sheet.patches.length);
    for (const { step, rgb } of patches) expect(rgb[1] / 0.8 / INK_SHARES[step]!).toBeCloseTo(1, 1);
    const rims = seenGreysAndRims(photo, place, LINEAR_OF_BYTE).slice(patches.length);
    expect(rims.map(({ step }) => step)).toEqual([0, 0, 0, 0]);
    // All ink, 0.04 of the light on it, with none of the paper on either side; in the sheet's corners.
    for (const { rgb } of rims) expect(rgb[1]).toBeCloseTo(0.8 * 0.04, 2);
    expect(rims.map(({ x, y }) => [x, y])).toEqual(
      sheet.markers.map(({ x, y, sizeMm }) => [x + sizeMm / 2, y + sizeMm / 2]),
    );
    // A photo that begins 2.1 mm inside the sheet: the rims of both markers on its left lose a tenth, and no patch any.
    const toPhoto = [5, 0, -10.5, 0, 5, 29.5, 0, 0, 1] as const;
    const rest = seenGreysAndRims(photo, { ...place, toPhoto }, LINEAR_OF_BYTE);
    expect(rest).toHaveLength(38);
    for (const { x } of rest.slice(patches.length)) expect(x).toBeGreaterThan(sheet.widthMm / 2);
  });
});

describe('greys of a print', () => {
  const measured = (first: RgbImage, second: RgbImage, logRatio = Math.LN2) =>
    measureGreys(first, { photo: second, logRatio, logRatioSigma: 0.01 });
  const darker = (how: Partial<DrawnSheet> = {}): RgbImage =>
    draw({ ...how, light: (x, y) => (how.light ?? light)(x, y) / 2 });
  it('are measured by two photos, whatever the camera makes of tones', () => {
    const told = measured(draw(), darker());
    if ('fault' in told) return expect(told).not.toHaveProperty('fault');
    expect(told.format).toBe('a5');
    told.greys.reflectances.forEach((rgb, step) =>
      rgb.forEach((value) => expect(value / INK_SHARES[step]!).toBeCloseTo(1, 1)),
    );
    expect(told.greys.reflectances[8]).toEqual([1, 1, 1]);
    expect(told.greys.contrastSigma).toBeCloseTo(0.01 / Math.LN2, 9);
    expect(told.scatter).toBeLessThan(0.02);
  });
  it('are told with the hue of their ink', () => {
    const shareOf = (step: number) =>
      [INK_SHARES[step]! ** 0.95, INK_SHARES[step]!, INK_SHARES[step]! ** 1.05] as const;
    const told = measured(draw({ shareOf, stored: linearToSrgb }), darker({ shareOf, stored: linearToSrgb }));
    if ('fault' in told) return expect(told).not.toHaveProperty('fault');
    const [red, green, blue] = told.greys.reflectances[2]!;
    expect(red / green).toBeCloseTo(INK_SHARES[2]! ** -0.05, 1);
    expect(red).toBeGreaterThan(blue * 1.1);
  });
  it('are not told by photos without a sheet, of two papers, of a print in another order, too pale or streaky, nor by two of one exposure', () => {
    const none = draw({ without: [0, 1] });
    expect(measured(none, darker())).toEqual({ fault: 'no-sheet' });
    expect(measured(draw(), none)).toEqual({ fault: 'no-sheet' });
    const letter = drawSheet(frameSheet('letter'), { light: () => 0.35, stored: phone });
    expect(measured(draw(), letter)).toEqual({ fault: 'two-formats' });
    const order = (step: number) => {
      const share = INK_SHARES[[0, 1, 5, 3, 4, 2, 6, 7, 8][step]!]!;
      return [share, share, share] as const;
    };
    expect(measured(draw({ shareOf: order }), darker({ shareOf: order }))).toEqual({ fault: 'greys-out-of-order' });
    // Two that are alike were not printed as they are listed either.
    const reflectances = [0.1, 0.3, 0.3, 1].map((grey) => [grey, grey, grey] as const);
    expect(faultOfGreys({ reflectances, contrastSigma: 0 })).toBe('greys-out-of-order');
    const pale = (step: number) => {
      const share = 0.3 + 0.7 * GREY_STEPS[step]!;
      return [share, share, share] as const;
    };
    expect(measured(draw({ shareOf: pale }), darker({ shareOf: pale }))).toEqual({ fault: 'too-pale' });
    const streaky = (x: number, y: number): number => light(x, y) * (Math.floor(x / 12) % 2 === 0 ? 1 : 0.7);
    expect(measured(draw({ light: streaky }), darker({ light: streaky }))).toEqual({ fault: 'uneven' });
    expect(measured(draw(), draw(), 0.001)).toEqual({ fault: 'no-curve' });
  });
  it('are not told where paper is at the bright end in the brighter photo', () => {
    const told = measured(draw({ light: () => 1.6 }), draw({ light: () => 0.8 }));
    expect(told).toEqual({ fault: 'clipped' });
  });
});
