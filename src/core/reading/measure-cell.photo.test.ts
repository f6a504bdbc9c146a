import { describe, expect, it } from 'vitest';
import { contextOf, layout } from '../../../tests/support/flat-scene';
import type { Cell } from '../card/layout';
import { rectRing } from '../card/shape';
import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { linearToSrgb } from '../color/srgb';
import { measureCell } from './measure-cell';
import type { PhotoContext } from './photo-context';
import { tuples } from '../../../tests/support/tuples';

const cellOf = (index: number): Cell => layout.cells[index]!;

describe('a cell', () => {
  it('is read as its share of bare stock’s luminance, on the stock’s scale', () => {
    const shares = [0.1, 0.3, 0.6, 0.9, 1.4];
    const shareOf = ({ index }: Cell): number => shares[index % shares.length]!;
    const context = contextOf({ ratio: shareOf });
    for (const cell of layout.cells) {
      const share = shareOf(cell);
      const wanted = lightnessOfLuminance(luminanceOfLightness(62) * share);
      const reading = measureCell(context, cell);
      expect(Math.abs(reading.lightness - wanted), `share ${share}`).toBeLessThan(0.6);
      expect(reading.deltaLightness).toBeCloseTo(reading.lightness - 62, 1);
      expect(Math.sign(reading.deltaLightness)).toBe(share < 1 ? -1 : 1);
      expect(reading.confidence).toBeGreaterThan(0.98);
      expect(reading.doubts).toEqual([]);
    }
  });

  it('shows its lines when they can be seen, as strongly as they ripple, whichever way they run', () => {
    const [burn] = cellOf(0).burns;
    const turned = (direction: 'horizontal' | 'vertical'): Cell => ({
      ...cellOf(0),
      burns: [{ ...burn!, settings: { ...burn!.settings, intervalMm: 0.3, direction } }],
    });
    const scene = { ratio: () => 0.5, ripple: 0.2, intervalMm: 0.3 };
    const across = measureCell(contextOf(scene), turned('horizontal')).lines!;
    const down = measureCell(contextOf(scene, { ...layout, cells: [turned('vertical')] }), turned('vertical')).lines!;
    for (const { visibility, pitchMm } of [across, down]) {
      // The drawing has no pixels of its own width: what a pixel would blunt is undone all the same.
      expect(visibility).toBeGreaterThan(0.18);
      expect(visibility).toBeLessThan(0.24);
      expect(pitchMm!).toBeCloseTo(0.3, 2);
    }
    // Looked at the wrong way round there is nothing to see.
    expect(measureCell(contextOf(scene), turned('vertical')).lines!.visibility).toBeLessThan(0.02);
  });

  it('shows the lines of its strongest fill, and none that the photo cannot resolve', () => {
    const { box, burns } = cellOf(0);
    const settings = { ...burns[0]!.settings, intervalMm: 0.3 };
    const half = (x: number, powerFraction: number) => ({
      shape: { do: 'sweep' as const, area: [rectRing({ ...box, x, width: box.width / 2 })] },
      settings: { ...settings, powerFraction, intervalMm: powerFraction > 0.5 ? 0.3 : 0.4 },
    });
    const both = { ...cellOf(0), burns: [half(box.x, 0.3), half(box.x + box.width / 2, 0.9)] };
    const scene = { ratio: () => 0.5, ripple: 0.2, intervalMm: 0.3 };
    expect(measureCell(contextOf(scene), both).lines!.pitchMm!).toBeCloseTo(0.3, 2);
    expect(measureCell(contextOf({ ratio: () => 0.5 }), cellOf(0)).lines).toBeNull();
  });

  it('has an edge about as wide as it was drawn: 10 to 90 % of a soft step are 2.56 sigmas', () => {
    const sigma = 0.08;
    const { edgeWidthMm } = measureCell(contextOf({ ratio: () => 0.2, edgeSigmaMm: sigma }), cellOf(8));
    expect(edgeWidthMm! / (2.563 * sigma)).toBeGreaterThan(0.75);
    expect(edgeWidthMm! / (2.563 * sigma)).toBeLessThan(1.3);
    expect(measureCell(contextOf({ ratio: () => 0.98 }), cellOf(8)).edgeWidthMm).toBeNull();
  });

  it('is less sure where the card lies beside its place: by its narrower side, and by how far it is from bare stock', () => {
    const cell = cellOf(9);
    const low = { ...cell, box: { ...cell.box, height: cell.box.height / 2 } };
    const added = (ratio: number, of: Cell): { part: number; delta: number } => {
      const context = contextOf({ ratio: () => ratio });
      const [flat, beside] = [measureCell(context, of), measureCell({ ...context, frameErrorMm: 0.2 }, of)];
      return {
        part: Math.sqrt(beside.lightnessSigma ** 2 - flat.lightnessSigma ** 2),
        delta: Math.abs(flat.deltaLightness),
      };
    };
    for (const [ratio, of] of tuples([0.3, cell], [0.3, low], [0.8, low])) {
      const { part, delta } = added(ratio, of);
      expect(part).toBeCloseTo(Math.min(3, (0.2 / of.box.height) * 0.5 * delta), 6);
    }
    expect(low.box.height).toBeLessThan(low.box.width);
  });

  it.each(['left', 'right', 'above', 'below'] as const)(
    'has a halo that is the mean of its four sides: soot %s it',
    (side) => {
      const cell = cellOf(5);
      const { x, y, width, height } = cell.box;
      const soot = {
        left: [x - 0.4, y, 0.25, height],
        right: [x + width + 0.15, y, 0.25, height],
        above: [x, y - 0.4, width, 0.25],
        below: [x, y + height + 0.15, width, 0.25],
      }[side];
      const share = 0.7;
      const inside = (at: number, from: number, size: number): boolean => at >= from && at < from + size;
      const veil = (px: number, py: number): number =>
        inside(px, soot[0]!, soot[2]!) && inside(py, soot[1]!, soot[3]!) ? share : 1;
      const bare = luminanceOfLightness(62);
      const wanted = (lightnessOfLuminance(bare * share) - 62) / 4;
      const clean = measureCell(contextOf({ ratio: () => 0.5 }), cell).edgeHalo;
      expect(Math.abs(clean)).toBeLessThan(0.5);
      const { edgeHalo } = measureCell(contextOf({ ratio: () => 0.5, veil }), cell);
      expect(edgeHalo - clean).toBeGreaterThan(wanted * 1.25);
      expect(edgeHalo - clean).toBeLessThan(wanted * 0.75);
    },
  );

  it('spreads by its patches’ scatter, and is doubted as uneven where a quarter of it differs', () => {
    const cell = cellOf(6);
    const { x, y, width, height } = cell.box;
    const calm = measureCell(contextOf({ ratio: () => 0.4 }), cell);
    expect(calm.spread).toBeLessThan(0.3);
    for (const [right, down] of tuples([0, 0], [1, 0], [0, 1], [1, 1])) {
      const veil = (px: number, py: number): number =>
        px >= x &&
        px < x + width &&
        py >= y &&
        py < y + height &&
        px >= x + width / 2 === (right === 1) &&
        py >= y + height / 2 === (down === 1)
          ? 0.6
          : 1;
      const uneven = measureCell(contextOf({ ratio: () => 0.4, veil }), cell);
      expect(uneven.doubts).toEqual(['uneven']);
      expect(uneven.confidence).toBeLessThanOrEqual(0.75);
      // A quarter of the patches lies this much darker: their standard deviation is sqrt(3)/4 of it.
      const bare = luminanceOfLightness(62);
      const step = lightnessOfLuminance(bare * 0.4) - lightnessOfLuminance(bare * 0.24);
      expect(uneven.spread / ((Math.sqrt(3) / 4) * step)).toBeGreaterThan(0.85);
      expect(uneven.spread / ((Math.sqrt(3) / 4) * step)).toBeLessThan(1.15);
    }
  });

  it('has the colour that it shows on stock of its own colour', () => {
    const context = contextOf({ ratio: () => 0.3 });
    const { colour, lightness } = measureCell(context, cellOf(2));
    const gray = Math.round(255 * linearToSrgb(context.stockLinear[0] * 0.3));
    const shown = Number.parseInt(colour.slice(1, 3), 16);
    expect(Math.abs(shown - gray)).toBeLessThanOrEqual(2);
    expect(colour).toBe(`#${colour.slice(1, 3).repeat(3)}`);
    expect(lightness).toBeCloseTo(lightnessOfLuminance(luminanceOfLightness(62) * 0.3), 0);
  });

  it('is doubted for each reason from its own limit on', () => {
    const context = contextOf({ ratio: () => 0.4 });
    const doubts = (change: Partial<PhotoContext>): readonly string[] =>
      measureCell({ ...context, ...change }, cellOf(5)).doubts;
    expect(doubts({})).toEqual([]);
    expect(doubts({ photoPxPerMm: 8 })).toEqual([]);
    expect(doubts({ photoPxPerMm: 7.9 })).toEqual(['blurred']);
    expect(doubts({ frameErrorMm: 0.4 })).toEqual([]);
    expect(doubts({ frameErrorMm: 0.41 })).toEqual(['off-frame']);
    expect(doubts({ frameErrorMm: 0.3, uncertainFrame: true })).toEqual([]);
    expect(doubts({ frameErrorMm: 0.31, uncertainFrame: true })).toEqual(['few-markers']);
    const sureness = (change: Partial<PhotoContext>): number =>
      measureCell({ ...context, ...change }, cellOf(5)).confidence;
    expect(sureness({})).toBeGreaterThan(0.98);
    // Each doubt leaves three quarters of what the one before left.
    expect(sureness({ photoPxPerMm: 7 })).toBeCloseTo(0.75, 6);
    expect(
      sureness({
        photoPxPerMm: 7,
        field: { ...context.field, under: (area) => ({ ...context.field.under(area), tiles: 7 }) },
      }),
    ).toBeCloseTo(0.75 ** 2, 6);
    const near = (change: object) => ({
      field: {
        ...context.field,
        under: (area: Parameters<typeof context.field.under>[0]) => ({ ...context.field.under(area), ...change }),
      },
    });
    // On a dark cell as much unsure stock is less than the promise.
    const dark = contextOf({ ratio: () => 0.06 });
    const under = (sigma: number): readonly string[] =>
      measureCell(
        { ...dark, field: { ...dark.field, under: (area) => ({ ...dark.field.under(area), sigma }) } },
        cellOf(5),
      ).doubts;
    expect(under(0.08)).toEqual([]);
    expect(under(0.081)).toEqual(['stock-varies']);
    expect(doubts(near({ tiles: 8 }))).toEqual([]);
    expect(doubts(near({ tiles: 7 }))).toEqual(['far-from-bare-stock']);
    const clipped = (clippedShare: number) => doubts({ ...context, field: { ...context.field, clippedShare } });
    expect(clipped(0.61)).toEqual(['stock-clipped']);
    expect(clipped(0.6)).toEqual([]);
  });

  it('is never marked without a reason: where none is past its limit, what leaves it most unsure is said', () => {
    const context = contextOf({ ratio: () => 0.4 });
    const marked = (change: Partial<PhotoContext>) => measureCell({ ...context, ...change }, cellOf(5));
    for (const [change, reason] of [
      [{ addedSigma: () => 0.03 }, 'reflection'],
      [{ toneSigma: () => 0.08 }, 'tones-unsure'],
      [{ toneSigma: () => 0.08, tonesUnknown: true }, 'tones-unknown'],
      [
        { field: { ...context.field, under: (area) => ({ ...context.field.under(area), sigma: 0.07 }) } },
        'stock-varies',
      ],
      // A little of each: the greatest.
      [{ addedSigma: () => 0.02, toneSigma: () => 0.05 }, 'reflection'],
      [{ addedSigma: () => 0.01, toneSigma: () => 0.07 }, 'tones-unsure'],
    ] as readonly [Partial<PhotoContext>, string][]) {
      const cell = marked(change);
      expect(cell.doubts, reason).toEqual([reason]);
      expect(cell.confidence).toBeLessThanOrEqual(0.75);
    }
    expect(marked({ addedSigma: () => 0.004 })).toMatchObject({ doubts: [] });
    // What the camera makes of tones is alike in every photo by it.
    expect(marked({ toneSigma: () => 0.08, tonesUnknown: true }).sharedSigma).toBeGreaterThan(1.4);
    expect(marked({ toneSigma: () => 0.08 }).sharedSigma).toBeLessThan(0.8);
  });

  it('is doubted as clipped from a fiftieth of its pixels on', () => {
    const context = contextOf({ ratio: () => 0.4 });
    const { box } = cellOf(5);
    const clippedBy = (share: number): readonly string[] => {
      const clipped = new Uint8Array(context.rectified.clipped.length);
      const { width, pxPerMm } = context.rectified;
      let at = 0;
      for (let y = Math.round(box.y * pxPerMm); y < (box.y + box.height) * pxPerMm; y++)
        for (let x = Math.round(box.x * pxPerMm); x < (box.x + box.width) * pxPerMm; x++, at++)
          clipped[y * width + x] = Math.floor((at + 1) * share) > Math.floor(at * share) ? 1 : 0;
      return measureCell({ ...context, rectified: { ...context.rectified, clipped } }, cellOf(5)).doubts;
    };
    expect(clippedBy(0)).toEqual([]);
    expect(clippedBy(0.012)).toEqual([]);
    expect(clippedBy(0.04)).toEqual(['clipped']);
  });

  it('is told against the stock under it: where that is darker, the burn took less', () => {
    const context = contextOf({ ratio: () => 0.5 });
    const on = (shift: number): number => {
      const field = { ...context.field, under: () => ({ shift, sigma: 0, tiles: 99 }) };
      return measureCell({ ...context, field }, layout.cells[5]!).lightness;
    };
    const bare = luminanceOfLightness(62);
    for (const shift of [-0.1, 0, 0.1])
      expect(on(shift)).toBeCloseTo(lightnessOfLuminance(bare * 0.5 * Math.exp(-shift)), 0);
    expect(on(-0.1)).toBeGreaterThan(on(0.1) + 3);
  });
  it('is as unsure of light that may have been added as that light would change it', () => {
    const context = contextOf({ ratio: () => 0.2 });
    const added = 0.002;
    const sigma = (share: number): number =>
      measureCell({ ...context, addedSigma: () => share }, layout.cells[5]!).lightnessSigma;
    const [bare, cell] = [luminanceOfLightness(62), 0.2 * luminanceOfLightness(62)];
    // Read off a photo with so much added to stock and cell alike, it would be as bright as this.
    const read = lightnessOfLuminance((bare * (cell + added)) / (bare + added));
    const change = Math.abs(read - lightnessOfLuminance(cell));
    expect(Math.sqrt(sigma(added) ** 2 - sigma(0) ** 2) / change).toBeCloseTo(1, 1);
  });
  it('asks of added light in its middle, and of tones between itself and the stock beside it', () => {
    const context = contextOf({ ratio: () => 0.2 });
    const asked: number[][] = [];
    const cell = layout.cells[5]!;
    const plain = measureCell(context, cell).lightnessSigma;
    const toneSigma = (light: number, other: number): number => {
      asked.push([light / other, other]);
      return 0.05;
    };
    const { lightnessSigma } = measureCell(
      { ...context, addedSigma: (x, y) => (asked.push([x, y]), 0), toneSigma },
      cell,
    );
    const { x, y, width, height } = cell.box;
    const middle = context.field.at(x + width / 2, y + height / 2)[1];
    expect(asked).toEqual([
      [x + width / 2, y + height / 2],
      [expect.closeTo(0.2, 2), middle],
    ]);
    // Five per cent of light at a fifth of the stock's: times 116/3 Y^(1/3).
    const part = (116 / 3) * Math.cbrt(0.2 * luminanceOfLightness(62)) * 0.05;
    expect(Math.sqrt(lightnessSigma ** 2 - plain ** 2) / part).toBeCloseTo(1, 1);
  });
});
