import { describe, expect, it } from 'vitest';
import { grid } from '../../cards/grid';
import { demoPairing } from '../../../tests/support/demo';
import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { linearToSrgb } from '../color/srgb';
import { layCard } from '../card/lay';
import { mainBurn, type Cell, type Layout } from '../card/layout';
import { grayOfRgb } from '../image/gray';
import type { RgbImage } from '../image/raster';
import { fitLight } from './light/light-on-bare';
import { flattened } from './flattened';
import { measureCell } from './measure-cell';
import type { PhotoContext } from './photo-context';
import { readCard, RECTIFIED_PX_PER_MM, stockLinearColour } from './read-card';
import { rectify } from './rectify';

const pairing = demoPairing('heron', 'mdf');
const { plan } = grid.propose({ pairing, facts: [] });
const small = {
  ...plan,
  leaveOutFailing: false,
  power: { ...plan.power, count: 4 },
  speed: { ...plan.speed, count: 3 },
  cellMm: 4.5,
};
const layout: Layout = layCard(grid, small, pairing, { cardNumber: 5 });
const PX = 18;

/** Light over the card: a slope, a bow and a twist, brightest 1. */
const light = (x: number, y: number): number => {
  const u = x / layout.widthMm;
  const v = y / layout.heightMm;
  return 0.98 - 0.35 * u - 0.12 * v * v + 0.1 * u * v;
};

interface Scene {
  /** Luminance ratio of a cell to bare stock. */
  readonly ratio: (cell: Cell) => number;
  readonly ripple?: number;
  /** Pitch of the ripple, where it is not the cell's own interval. */
  readonly intervalMm?: number;
  readonly edgeSigmaMm?: number;
  readonly knot?: { x: number; y: number; radius: number };
  /** Factors on the light that comes back, by place in mm. */
  readonly veil?: (x: number, y: number) => number;
}

/** sRGB bytes of linear light 0..1. */
const BYTES = Uint8Array.from({ length: 65_536 }, (_, step) => Math.round(255 * linearToSrgb(step / 65_535)));

/** How much of a soft-edged span from `from` over `size` lies under each pixel of a row or column. */
const softSpan = (count: number, from: number, size: number, sigma: number): Float64Array => {
  const step = (d: number): number => 1 / (1 + Math.exp(-1.702 * (d / sigma)));
  return Float64Array.from({ length: count }, (_, pixel) => {
    const at = (pixel + 0.5) / PX;
    return step(at - from) * step(from + size - at);
  });
};

/** A photo straight from above that this test draws itself: gray stock of reflectance 0.5, flat cells, no noise. */
function draw(scene: Scene, of: Layout = layout) {
  const width = Math.round(layout.widthMm * PX);
  const height = Math.round(layout.heightMm * PX);
  const value = new Float64Array(width * height).fill(0.5);
  const { knot, veil } = scene;
  for (const cell of of.cells) {
    const { box } = cell;
    const { settings } = mainBurn(cell);
    const across = softSpan(width, box.x, box.width, scene.edgeSigmaMm ?? 0.01);
    const down = softSpan(height, box.y, box.height, scene.edgeSigmaMm ?? 0.01);
    const [left, top] = [Math.floor((box.x - 1) * PX), Math.floor((box.y - 1) * PX)];
    const [right, bottom] = [Math.ceil((box.x + box.width + 1) * PX), Math.ceil((box.y + box.height + 1) * PX)];
    const turns = (2 * Math.PI) / (scene.intervalMm ?? settings.intervalMm);
    for (let py = top; py < bottom; py++) {
      for (let px = left; px < right; px++) {
        const along = settings.direction === 'horizontal' ? (py + 0.5) / PX - box.y : (px + 0.5) / PX - box.x;
        const wave = scene.ripple ? 1 + scene.ripple * Math.cos(turns * along) : 1;
        const inside = across[px]! * down[py]!;
        value[py * width + px]! *= 1 - inside + inside * scene.ratio(cell) * wave;
      }
    }
  }
  const data = new Uint8Array(width * height * 3);
  for (let pixel = 0, byte = 0; pixel < value.length; pixel++) {
    const x = ((pixel % width) + 0.5) / PX;
    const y = (Math.floor(pixel / width) + 0.5) / PX;
    let bright = value[pixel]! * light(x, y);
    if (knot && Math.hypot(x - knot.x, y - knot.y) < knot.radius) bright *= 0.6;
    if (veil) bright *= veil(x, y);
    const encoded = BYTES[Math.round(bright * (BYTES.length - 1))]!;
    for (let channel = 0; channel < 3; channel++) data[byte++] = encoded;
  }
  return { data, width, height };
}

/** The map from card millimetres to this scene's pixels, centres at whole coordinates. */
const TO_PHOTO = [PX, 0, -0.5, 0, PX, -0.5, 0, 0, 1] as const;

function contextOf(scene: Scene, of: Layout = layout): PhotoContext {
  const photo = draw(scene, of);
  const rectified = rectify(photo, TO_PHOTO, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, 1);
  const field = fitLight(rectified, layout)!;
  const stockLinear = stockLinearColour({ bareLightness: 62, colour: '#808080' });
  return {
    rectified,
    field,
    gray: grayOfRgb(photo),
    toPhoto: TO_PHOTO,
    photoPxPerMm: PX,
    stockLinear,
    uncertainFrame: false,
    frameErrorMm: 0,
    addedSigma: () => 0,
    toneSigma: () => 0,
    tonesUnknown: false,
  };
}

const cellOf = (index: number): Cell => layout.cells[index]!;

describe('the light on bare stock', () => {
  it('is found to a per cent under slope, bow and twist, beside dark cells', () => {
    const { field } = contextOf({ ratio: () => 0.3 });
    for (const cell of layout.cells) {
      const x = cell.box.x + cell.box.width / 2;
      const y = cell.box.y + cell.box.height / 2;
      expect(field.at(x, y)[1] / (0.5 * light(x, y))).toBeCloseTo(1, 2);
    }
  });
  it('is not pulled by a knot', () => {
    const { field } = contextOf({
      ratio: () => 0.5,
      knot: { x: layout.widthMm - 3.5, y: layout.heightMm / 2, radius: 1.6 },
    });
    const x = layout.widthMm - 3.5;
    const y = layout.heightMm / 2;
    expect(Math.abs(field.at(x, y)[1] / (0.5 * light(x, y)) - 1)).toBeLessThan(0.03);
    // What lies there is told as darker, less surely than stock elsewhere.
    const there = field.under({ x: x - 1, y: y - 1, width: 2, height: 2 });
    const elsewhere = field.under({ x: x - 1, y: 17, width: 2, height: 2 });
    expect(there.shift).toBeLessThan(-0.02);
    expect(Math.abs(elsewhere.shift)).toBeLessThan(0.005);
    expect(there.sigma).toBeGreaterThan(3 * elsewhere.sigma);
  });
  it('near a cell is told by the stock within its reach, on each of its sides, and by nothing further off', () => {
    const cell = layout.cells[5]!;
    const { x, y, width, height } = cell.box;
    const strip =
      (side: 'left' | 'right' | 'above' | 'below', from: number) =>
      (px: number, py: number): number => {
        const away = { left: x - px, right: px - x - width, above: y - py, below: py - y - height }[side];
        const along =
          side === 'left' || side === 'right' ? py > y - 1 && py < y + height + 1 : px > x - 1 && px < x + width + 1;
        return along && away > from && away < from + 0.9 ? 0.85 : 1;
      };
    const offsetWith = (veil?: Scene['veil']): number =>
      contextOf({ ratio: () => 0.5, ...(veil && { veil }) }).field.under(cell.box).shift;
    const plain = offsetWith();
    for (const side of ['left', 'right', 'above', 'below'] as const) {
      expect(offsetWith(strip(side, 0.05)) - plain, side).toBeLessThan(-0.004);
      // The next cell begins a millimetre away; what lies beyond it is not near.
      expect(Math.abs(offsetWith(strip(side, width + 1.05)) - plain), side).toBeLessThan(0.002);
    }
  });
  it('is told by each of its sides as much, whichever of them is darker', () => {
    const { box } = layout.cells[5]!;
    const reach = 0.9;
    const shifted = (dark: (x: number, y: number) => boolean): number => {
      const { field } = contextOf({ ratio: () => 0.5, veil: (x, y) => (dark(x, y) ? 0.97 : 1) });
      return field.under(box).shift;
    };
    const within = (at: number, from: number, size: number): boolean => at > from && at < from + size;
    const sides = [
      shifted((x, y) => within(x, box.x - reach, reach) && within(y, box.y, box.height)),
      shifted((x, y) => within(x, box.x + box.width, reach) && within(y, box.y, box.height)),
      shifted((x, y) => within(y, box.y - reach, reach) && within(x, box.x, box.width)),
      shifted((x, y) => within(y, box.y + box.height, reach) && within(x, box.x, box.width)),
    ];
    expect(sides[0]!).toBeLessThan(-0.0003);
    for (const side of sides) expect(side / sides[0]!).toBeGreaterThan(0.7);
    for (const side of sides) expect(side / sides[0]!).toBeLessThan(1.4);
  });
  it('ends where a shadow does: cells are read in it, beside it and across its edge', () => {
    const edge = (x: number, y: number): number => 0.45 + 0.55 / (1 + Math.exp(-(0.9 * x + 0.44 * y - 19) / 0.15));
    const context = contextOf({ ratio: () => 0.4, veil: edge });
    expect(context.field.shadow).not.toBeNull();
    const wanted = lightnessOfLuminance(luminanceOfLightness(62) * 0.4);
    for (const cell of layout.cells) expect(Math.abs(measureCell(context, cell).lightness - wanted)).toBeLessThan(0.8);
    expect(contextOf({ ratio: () => 0.4 }).field.shadow).toBeNull();
  });
  it('is dimmed by smoke round strong cells, which lies on their weak neighbours too', () => {
    const strong = (cell: Cell): boolean => cell.index % 3 === 1;
    const smoke = (x: number, y: number): number =>
      layout.cells.filter(strong).reduce((share, { box }) => {
        const dx = Math.max(box.x - x, x - box.x - box.width, 0);
        const dy = Math.max(box.y - y, y - box.y - box.height, 0);
        return share * (1 - 0.2 * Math.exp(-Math.hypot(dx, dy) / 1.2));
      }, 1);
    const ratio = (cell: Cell): number => (strong(cell) ? 0.1 : 0.7);
    const context = contextOf({ ratio, veil: smoke });
    expect(context.field.smoke).not.toBeNull();
    for (const cell of layout.cells) {
      const wanted = lightnessOfLuminance(luminanceOfLightness(62) * ratio(cell));
      expect(Math.abs(measureCell(context, cell).lightness - wanted), `cell ${cell.index}`).toBeLessThan(1);
    }
  });
  it('is told by whole tiles of a quarter millimetre that keep off the card’s own edge, on all four sides', () => {
    const plain = { ...layout, widthMm: 10, heightMm: 8, cells: [], before: [], after: [] };
    const bare: Layout = { ...plain, frame: { ...layout.frame, markers: [], lettering: [] } };
    const even = { data: new Uint8Array(200 * 160 * 3).fill(128), width: 200, height: 160 };
    const seen = rectify(even, [18, 0, 5, 0, 18, 5, 0, 0, 1], 10, 8, 20, 1);
    // 40 x 32 tiles, less the outermost all round.
    expect(fitLight(seen, bare)!.tiles).toBe(38 * 30);
  });
  it('is not made up when no bare stock can be seen', () => {
    const photo = draw({ ratio: () => 0.5 });
    const blown = { ...photo, data: new Uint8Array(photo.data.length).fill(255) };
    expect(
      fitLight(rectify(blown, TO_PHOTO, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, 1), layout),
    ).toBeNull();
    const reading = (one: RgbImage, of: Layout) =>
      readCard({
        photo: one,
        layout: of,
        stock: { bareLightness: 62, colour: '#808080' },
        corners: [
          { x: 0, y: 0 },
          { x: photo.width - 1, y: 0 },
          { x: photo.width - 1, y: photo.height - 1 },
          { x: 0, y: photo.height - 1 },
        ],
        cameraIsTrue: true,
      });
    expect(reading(blown, layout)).toEqual({ outcome: 'unreadable', reason: 'overexposed' });
    const whole = { ...cellOf(0), box: { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm } };
    expect(reading(photo, { ...layout, cells: [whole] })).toEqual({ outcome: 'unreadable', reason: 'no-bare-stock' });
  });
});

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

  it('shows its lines when they can be seen, and about how strongly', () => {
    const [burn] = cellOf(0).burns;
    const coarse: Cell = { ...cellOf(0), burns: [{ ...burn!, settings: { ...burn!.settings, intervalMm: 0.3 } }] };
    const scene = { ratio: () => 0.5, ripple: 0.2, intervalMm: 0.3 };
    const rippled = measureCell(contextOf(scene), coarse).lineVisibility!;
    const flat = measureCell(contextOf({ ratio: () => 0.5 }), coarse).lineVisibility!;
    // 20 % in linear light is about 20 % / 2.2 in gray values.
    expect(rippled).toBeGreaterThan(0.05);
    expect(rippled).toBeLessThan(0.14);
    expect(flat).toBeLessThan(0.01);
  });

  it('shows them as strongly where they run down the card', () => {
    const [burn] = cellOf(0).burns;
    const turned = (direction: 'horizontal' | 'vertical'): Cell => ({
      ...cellOf(0),
      burns: [{ ...burn!, settings: { ...burn!.settings, intervalMm: 0.3, direction } }],
    });
    const down = { ...layout, cells: [turned('vertical')] };
    const scene = { ratio: () => 0.5, ripple: 0.2, intervalMm: 0.3 };
    const across = measureCell(contextOf(scene), turned('horizontal')).lineVisibility!;
    const along = measureCell(contextOf(scene, down), turned('vertical')).lineVisibility!;
    expect(along / across).toBeGreaterThan(0.9);
    expect(along / across).toBeLessThan(1.1);
    // Looked at the wrong way round there is nothing to see.
    expect(measureCell(contextOf(scene), turned('vertical')).lineVisibility).toBeLessThan(0.02);
  });

  it('says nothing of lines that the photo cannot resolve', () => {
    expect(measureCell(contextOf({ ratio: () => 0.5 }), cellOf(0)).lineVisibility).toBeNull();
  });

  it('has an edge about as wide as it was drawn: 10 to 90 % of a soft step are 2.56 sigmas', () => {
    const sigma = 0.08;
    const { edgeWidthMm } = measureCell(contextOf({ ratio: () => 0.2, edgeSigmaMm: sigma }), cellOf(8));
    expect(edgeWidthMm! / (2.563 * sigma)).toBeGreaterThan(0.75);
    expect(edgeWidthMm! / (2.563 * sigma)).toBeLessThan(1.3);
    expect(measureCell(contextOf({ ratio: () => 0.98 }), cellOf(8)).edgeWidthMm).toBeNull();
  });

  it('over a knot is doubted', () => {
    const cell = cellOf(9);
    const reading = measureCell(
      contextOf({ ratio: () => 0.7, knot: { x: cell.box.x + 1.2, y: cell.box.y + 1.2, radius: 1.2 } }),
      cell,
    );
    expect(reading.confidence).toBeLessThan(0.9);
  });

  it.each(['left', 'right', 'above', 'below'] as const)('has a halo that is the mean of its four sides: soot %s it', (side) => {
    const cell = cellOf(5);
    const { x, y, width, height } = cell.box;
    const soot = { left: [x - 0.4, y, 0.25, height], right: [x + width + 0.15, y, 0.25, height],
      above: [x, y - 0.4, width, 0.25], below: [x, y + height + 0.15, width, 0.25] }[side]; // prettier-ignore
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
  }); // prettier-ignore

  it('spreads by its patches’ scatter, and is doubted as uneven where a quarter of it differs', () => {
    const cell = cellOf(6);
    const { x, y, width, height } = cell.box;
    const calm = measureCell(contextOf({ ratio: () => 0.4 }), cell);
    expect(calm.spread).toBeLessThan(0.3);
    for (const [right, down] of [[0, 0], [1, 0], [0, 1], [1, 1]] as const) {
      const veil = (px: number, py: number): number =>
        px >= x && px < x + width && py >= y && py < y + height &&
        px >= x + width / 2 === (right === 1) && py >= y + height / 2 === (down === 1) ? 0.6 : 1; // prettier-ignore
      const uneven = measureCell(contextOf({ ratio: () => 0.4, veil }), cell);
      expect(uneven.doubts).toEqual(['uneven']);
      expect(uneven.confidence).toBeLessThanOrEqual(0.75);
      // A quarter of the patches lies this much darker: their standard deviation is sqrt(3)/4 of it.
      const bare = luminanceOfLightness(62);
      const step = lightnessOfLuminance(bare * 0.4) - lightnessOfLuminance(bare * 0.24);
      expect(uneven.spread / ((Math.sqrt(3) / 4) * step)).toBeGreaterThan(0.85);
      expect(uneven.spread / ((Math.sqrt(3) / 4) * step)).toBeLessThan(1.15);
    } // prettier-ignore
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
      measureCell({ ...dark, field: { ...dark.field, under: (area) => ({ ...dark.field.under(area), sigma }) } }, cellOf(5)).doubts; // prettier-ignore
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
      [{ field: { ...context.field, under: (area) => ({ ...context.field.under(area), sigma: 0.07 }) } }, 'stock-varies'],
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
  }); // prettier-ignore

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
    const sigma = (share: number): number => measureCell({ ...context, addedSigma: () => share }, layout.cells[5]!).lightnessSigma;
    const [bare, cell] = [luminanceOfLightness(62), 0.2 * luminanceOfLightness(62)];
    // Read off a photo with so much added to stock and cell alike, it would be as bright as this.
    const read = lightnessOfLuminance((bare * (cell + added)) / (bare + added));
    const change = Math.abs(read - lightnessOfLuminance(cell));
    expect(Math.sqrt(sigma(added) ** 2 - sigma(0) ** 2) / change).toBeCloseTo(1, 1);
  }); // prettier-ignore
  it('asks of added light in its middle, and of tones between itself and the stock beside it', () => {
    const context = contextOf({ ratio: () => 0.2 });
    const asked: number[][] = [];
    const cell = layout.cells[5]!;
    const plain = measureCell(context, cell).lightnessSigma;
    const toneSigma = (light: number, other: number): number => {
      asked.push([light / other]);
      return 0.05;
    };
    const { lightnessSigma } = measureCell({ ...context, addedSigma: (x, y) => (asked.push([x, y]), 0), toneSigma }, cell);
    const { x, y, width, height } = cell.box;
    expect(asked).toEqual([[x + width / 2, y + height / 2], [expect.closeTo(0.2, 2)]]);
    // Five per cent of light at a fifth of the stock's: times 116/3 Y^(1/3).
    const part = (116 / 3) * Math.cbrt(0.2 * luminanceOfLightness(62)) * 0.05;
    expect(Math.sqrt(lightnessSigma ** 2 - plain ** 2) / part).toBeCloseTo(1, 1);
  }); // prettier-ignore
  it('is less sure when the frame is', () => {
    const context = contextOf({ ratio: () => 0.2 });
    const sure = measureCell(context, cellOf(3));
    const unsure = measureCell({ ...context, frameErrorMm: 0.5, uncertainFrame: true }, cellOf(3));
    expect(unsure.confidence).toBeLessThan(sure.confidence);
    expect(unsure.doubts).toEqual(expect.arrayContaining(['few-markers', 'off-frame']));
  });
});

describe('the levelled picture', () => {
  it('shows bare stock in its own colour all over', () => {
    const context = contextOf({ ratio: () => 0.4 });
    const picture = flattened(context.rectified, context.field, context.stockLinear);
    const wanted = Math.round(255 * linearToSrgb(context.stockLinear[1]));
    const at = (xMm: number, yMm: number): number =>
      picture.data[(Math.round(yMm * 20) * picture.width + Math.round(xMm * 20)) * 3 + 1]!;
    for (const [x, y] of [
      [layout.widthMm - 2, layout.heightMm / 2],
      [layout.widthMm - 2.5, 12],
      [layout.widthMm - 2.5, layout.heightMm - 10],
    ] as const) {
      expect(Math.abs(at(x, y) - wanted)).toBeLessThanOrEqual(3);
    }
  });
});
