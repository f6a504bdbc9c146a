import seedrandom from 'seedrandom';
import { markerModules } from '../../src/core/card/markers';
import type { Rect } from '../../src/core/geometry/point';
import { GREY_STEPS, type FrameSheet } from '../../src/core/sheet/frame-sheet';
import type { Linear } from './colour';
import type { Face } from './face';

/** What a printer made of a frame sheet. */
export interface Print {
  /** What paper sends back, and what is left of that where all ink lies. */
  readonly paper: Linear;
  readonly ink: number;
  /** Dot gain: more than 1 prints greys darker than they were asked for. */
  readonly gain: number;
  /** How much one patch differs from another of its step, as a share. */
  readonly scatter: number;
  /** Steps printed in another order: which is printed in the place of each. */
  readonly order?: readonly number[];
  /** Markers that are torn off, by their place among the sheet's. */
  readonly without?: readonly number[];
}

export const USUAL_PRINT: Print = { paper: [0.86, 0.86, 0.88], ink: 0.045, gain: 1.5, scatter: 0.006 };

/** What a printed step sends back, as a share of what paper does. */
export const printedShare = ({ ink, gain }: Print, step: number): number => ink + (1 - ink) * GREY_STEPS[step]! ** gain;

/** Paper that shows beyond the frame. */
const PAPER_AROUND_MM = 6;
const TABLE: Linear = [0.1, 0.1, 0.11];

/** How a card was laid down: aside from the window's middle, in mm, and turned clockwise. */
export interface LaidDown {
  readonly dx: number;
  readonly dy: number;
  readonly degrees: number;
}
const STRAIGHT: LaidDown = { dx: 0, dy: 0, degrees: 0 };

/** The same card lying in a frame sheet's window, in its middle where it is not said; or the sheet alone, where there is no card. */
export function inSheet(face: Face | null, sheet: FrameSheet, print: Print, seed: string, laid = STRAIGHT): Face {
  const random = seedrandom(`print ${seed}`);
  const pxPerMm = face?.pxPerMm ?? 16;
  const [widthMm, heightMm] = face ? [face.widthMm, face.heightMm] : [sheet.window.width, sheet.window.height];
  // Sheet's origin in card mm: the window's middle lies under the card's.
  const left = widthMm / 2 - (sheet.window.x + sheet.window.width / 2);
  const top = heightMm / 2 - (sheet.window.y + sheet.window.height / 2);
  const marginMm = Math.ceil(Math.max(-left, -top) + PAPER_AROUND_MM + 30);
  const [width, height] = [widthMm, heightMm].map((mm) => Math.round((mm + 2 * marginMm) * pxPerMm)) as [
    number,
    number,
  ];
  const data = new Float32Array(width * height * 3);
  const paint = (box: Rect, share: (u: number, v: number) => number): void => {
    const [fromX, fromY] = [box.x + left + marginMm, box.y + top + marginMm];
    const ends = [fromY, fromY + box.height, fromX, fromX + box.width].map((mm) => Math.round(mm * pxPerMm));
    for (let row = Math.max(0, ends[0]!); row < Math.min(height, ends[1]!); row++)
      for (let column = Math.max(0, ends[2]!); column < Math.min(width, ends[3]!); column++) {
        const shown = share((column + 0.5) / pxPerMm - fromX, (row + 0.5) / pxPerMm - fromY);
        const at = (row * width + column) * 3;
        for (const channel of [0, 1, 2] as const) data[at + channel] = print.paper[channel] * shown;
      }
  };
  data.set(TABLE);
  // Twice as many pixels each time: one by one takes longer than the whole photo.
  for (let done = 3; done < data.length; done *= 2) data.copyWithin(done, 0, Math.min(done, data.length - done));
  const around = PAPER_AROUND_MM;
  paint({ x: -around, y: -around, width: sheet.widthMm + 2 * around, height: sheet.heightMm + 2 * around }, () => 1);
  const steps = sheet.patches.map(
    ({ step }) => printedShare(print, print.order?.[step] ?? step) * (1 + print.scatter * (2 * random() - 1)),
  );
  for (const { id, x, y, sizeMm } of sheet.markers.filter((_, index) => !print.without?.includes(index))) {
    const modules = markerModules(id);
    const at = (mm: number): number => Math.min(7, Math.floor((mm / sizeMm) * 8));
    paint({ x, y, width: sizeMm, height: sizeMm }, (u, v) => (modules[at(v) * 8 + at(u)] ? print.ink : 1));
  }
  sheet.patches.forEach(({ box }, index) => paint(box, () => steps[index]!));
  if (face) lay(face, data, width, marginMm, laid);
  const viewMm = { width: sheet.widthMm + 2 * PAPER_AROUND_MM, height: sheet.heightMm + 2 * PAPER_AROUND_MM };
  return { data, width, height, pxPerMm, marginMm, widthMm, heightMm, viewMm, truth: face?.truth ?? [] };
}

/** Stock of a card that lies on the sheet: the table around it stays away. */
const STOCK_AROUND_MM = 4;

function lay(face: Face, data: Float32Array, width: number, marginMm: number, { dx, dy, degrees }: LaidDown): void {
  const { pxPerMm } = face;
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [midX, midY] = [face.widthMm / 2, face.heightMm / 2];
  const reach = Math.hypot(midX + STOCK_AROUND_MM, midY + STOCK_AROUND_MM);
  const pixel = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  for (let row = pixel(midY + dy - reach); row < pixel(midY + dy + reach); row++)
    for (let column = pixel(midX + dx - reach); column < pixel(midX + dx + reach); column++) {
      const [px, py] = [(column + 0.5) / pxPerMm - marginMm - midX - dx, (row + 0.5) / pxPerMm - marginMm - midY - dy];
      const [x, y] = [c * px + s * py, -s * px + c * py];
      if (Math.abs(x) > midX + STOCK_AROUND_MM || Math.abs(y) > midY + STOCK_AROUND_MM) continue;
      const u = Math.floor((x + midX + face.marginMm) * pxPerMm);
      const v = Math.floor((y + midY + face.marginMm) * pxPerMm);
      for (const channel of [0, 1, 2] as const)
        data[(row * width + column) * 3 + channel] = face.data[(v * face.width + u) * 3 + channel]!;
    }
}
