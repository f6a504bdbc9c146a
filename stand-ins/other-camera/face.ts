import seedrandom from 'seedrandom';
import type { Layout } from '../../src/core/card/layout';
import { markerRegion } from '../../src/core/card/path';
import { linearOf, luminanceAt, luminanceOf, type Linear } from './colour';
import { field, manyNormals } from './noise';

/** What there is to see of a card, as shares of the light that falls on it, three channels. */
export interface Face {
  readonly data: Float32Array;
  readonly width: number;
  readonly height: number;
  readonly pxPerMm: number;
  /** Stock around the card, on every side. */
  readonly marginMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** What the camera takes into view; the card where it is not said. */
  readonly viewMm?: { readonly width: number; readonly height: number };
  /** L* of each cell, as its luminance is to that of bare stock at the same place; NaN for cells that are left out. */
  readonly truth: readonly number[];
}

export interface FaceOptions {
  readonly seed: string;
  /** Spread of bare stock's lightness by its grain, relative. */
  readonly grain?: number;
  /** Dark knots on the sheet, and how much light they take at their middle. */
  readonly knots?: number;
  /** Smoke round cells, as the share of light it takes at the edge of the strongest, and how far it reaches. */
  readonly smoke?: { readonly depth: number; readonly reachMm: number };
  /** Stock around the card; a card cut flush at its markers has none. */
  readonly marginMm?: number;
  /** What lies around the piece: shares of light. */
  readonly table?: Linear;
  /** A patterned table: lines as dark as markers. */
  readonly patterned?: boolean;
  /** Lines in the cells, as a relative ripple. */
  readonly ripple?: number;
  /** Grain that is printed or painted on: bands with hard edges along the sheet, and how much light they take. */
  readonly printed?: { readonly takes: number; readonly pitchMm: number };
  /** Oil or water on the stock: patches that darken it, cells and all. */
  readonly stains?: number;
}

const PX_PER_MM = 16;
const TABLE_MM = 14;

interface Look {
  readonly bareLightness: number;
  readonly colour: string;
}

/**
 * Paints a card that nobody burned. Each cell has a lightness from its place in a scattered order between nearly bare and nearly black (or
 * nearly white on dark stock), so that neighbours differ; markers and lettering are as strong as the strongest.
 */
export function paintFace(layout: Layout, stock: Look, options: FaceOptions): Face {
  const {
    seed,
    grain = 0.008,
    knots = 0,
    smoke,
    marginMm = 8,
    table = [0.1, 0.1, 0.11],
    patterned,
    ripple = 0.02,
    stains = 0,
    printed,
  } = options;
  const random = seedrandom(`face ${seed}`);
  const around = marginMm + TABLE_MM;
  const [width, height] = [layout.widthMm, layout.heightMm].map((mm) => Math.round((mm + 2 * around) * PX_PER_MM)) as [
    number,
    number,
  ];
  const bare = linearOf(stock.colour, stock.bareLightness);
  const bareY = luminanceOf(bare);
  const lighter = stock.bareLightness < 45;
  const strongest = lighter ? Math.min(92, stock.bareLightness + 48) : Math.max(10, stock.bareLightness - 52);

  const data = new Float32Array(width * height * 3);
  const fibre = field(`${seed} fibre`, 3, 0.35);
  const cloud = field(`${seed} cloud`, 9, 6);
  const speck = field(`${seed} speck`, 0.15, 0.15);
  const stain = field(`${seed} stain`, 12, 12);
  const spots = Array.from({ length: knots }, () => ({
    x: layout.widthMm * random(),
    y: layout.heightMm * random(),
    wide: 1.2 + 2.5 * random(),
    high: 0.8 + 1.2 * random(),
    takes: 0.2 + 0.35 * random(),
  }));
  const stockAt = (x: number, y: number): number => {
    let share = 1 + grain * (0.7 * fibre(x, y) + 0.6 * cloud(x, y) + 0.4 * speck(x, y));
    for (const spot of spots)
      share *= 1 - spot.takes * Math.exp(-(((x - spot.x) / spot.wide) ** 2) - ((y - spot.y) / spot.high) ** 2);
    // Bands wander as they run, and are as wide as what lies between them.
    if (printed && Math.sin((2 * Math.PI * y) / printed.pitchMm + 1.5 * cloud(x, y)) > 0) share *= 1 - printed.takes;
    if (stains > 0) share *= 1 - stains / (1 + Math.exp(-8 * (stain(x, y) - 0.8)));
    return Math.max(0.05, share);
  };

  const ratio = new Float32Array(width * height).fill(1);
  const shade = new Float32Array(width * height).fill(1);
  const fill = (x: number, y: number, wide: number, high: number, value: (px: number, py: number) => number): void => {
    const at = (mm: number): number => Math.round((mm + around) * PX_PER_MM);
    for (let row = Math.max(0, at(y)); row < Math.min(height, at(y + high)); row++)
      for (let column = Math.max(0, at(x)); column < Math.min(width, at(x + wide)); column++)
        ratio[row * width + column] = value((column + 0.5) / PX_PER_MM - around, (row + 0.5) / PX_PER_MM - around);
  };

  const shown = layout.cells.filter((cell) => !cell.leftOut);
  const order = shown.map((cell) => ({ cell, rank: random() })).sort((a, b) => a.rank - b.rank);
  const truth: number[] = layout.cells.map(() => NaN);
  order.forEach(({ cell }, place) => {
    const share = (place + 0.5) / order.length;
    const lightness = stock.bareLightness + (strongest - stock.bareLightness) * (0.04 + 0.94 * share);
    const value = luminanceAt(lightness) / bareY;
    truth[cell.index] = lightness;
    const interval = cell.burns[0]!.settings.intervalMm;
    const turns = (2 * Math.PI) / interval;
    fill(cell.box.x, cell.box.y, cell.box.width, cell.box.height, (_, py) =>
      Math.max(0.004, value * (1 + ripple * Math.cos(turns * py))),
    );
  });
  const dark = luminanceAt(strongest) / bareY;
  for (const marker of layout.frame.markers)
    for (const ring of markerRegion(marker)) {
      const xs = ring.map((point) => point.x);
      const ys = ring.map((point) => point.y);
      const [x, y] = [Math.min(...xs), Math.min(...ys)];
      fill(x, y, Math.max(...xs) - x, Math.max(...ys) - y, () => dark);
    }
  for (const line of layout.frame.lettering)
    for (const stroke of line.strokes)
      stroke.slice(1).forEach((to, index) => {
        const from = stroke[index]!;
        const steps = Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) * PX_PER_MM);
        for (let step = 0; step <= steps; step++) {
          const share = steps === 0 ? 0 : step / steps;
          fill(
            from.x + (to.x - from.x) * share - 0.06,
            from.y + (to.y - from.y) * share - 0.06,
            0.12,
            0.12,
            () => dark,
          );
        }
      });

  if (smoke)
    for (const cell of shown) {
      const strength = Math.abs(truth[cell.index]! - stock.bareLightness) / Math.abs(strongest - stock.bareLightness);
      const takes = smoke.depth * strength ** 2;
      const reach = 5 * smoke.reachMm;
      const at = (mm: number): number => Math.round((mm + around) * PX_PER_MM);
      const { box } = cell;
      for (let row = Math.max(0, at(box.y - reach)); row < Math.min(height, at(box.y + box.height + reach)); row++) {
        const y = (row + 0.5) / PX_PER_MM - around;
        const dy = Math.max(box.y - y, y - box.y - box.height, 0);
        for (
          let column = Math.max(0, at(box.x - reach));
          column < Math.min(width, at(box.x + box.width + reach));
          column++
        ) {
          const x = (column + 0.5) / PX_PER_MM - around;
          const dx = Math.max(box.x - x, x - box.x - box.width, 0);
          shade[row * width + column]! *= 1 - takes * Math.exp(-Math.sqrt(dx * dx + dy * dy) / smoke.reachMm);
        }
      }
    }

  const grit = manyNormals(`${seed} grit`);
  for (let row = 0; row < height; row++) {
    const y = (row + 0.5) / PX_PER_MM - around;
    for (let column = 0; column < width; column++) {
      const x = (column + 0.5) / PX_PER_MM - around;
      const at = row * width + column;
      const onPiece = x > -marginMm && y > -marginMm && x < layout.widthMm + marginMm && y < layout.heightMm + marginMm;
      if (!onPiece) {
        const striped = patterned && (Math.floor(x / 3) + Math.floor(y / 4)) % 2 === 0;
        for (let channel = 0; channel < 3; channel++) data[at * 3 + channel] = table[channel]! * (striped ? 3 : 1);
        continue;
      }
      const share = stockAt(x, y) * ratio[at]! * shade[at]! * (1 + 0.004 * grit());
      for (let channel = 0; channel < 3; channel++) data[at * 3 + channel] = bare[channel]! * share;
    }
  }
  // What is drawn on stock is drawn on its grain too: the ratio to the same place when bare is what was told.
  return {
    data,
    width,
    height,
    pxPerMm: PX_PER_MM,
    marginMm: around,
    widthMm: layout.widthMm,
    heightMm: layout.heightMm,
    truth,
  };
}
