import { isLoose, type Box } from './gauges';
import { trueLuminanceRatio, type Piece } from './piece';

/** What a hand finds that taps the sheet under a part that was cut round a box, and holds the part to the light. */
export interface Tapped {
  /** Whether it drops, or what holds it. */
  readonly part: 'loose' | 'fibres' | 'hangs' | 'not-through';
  /** Share of its light that the stock close beside the cut has lost: how brown its edge is. */
  readonly edgeLoss: number;
  /** The same of the sharpest tip of a part of any outline; 0 where none is sharp. */
  readonly tipLoss: number;
}

/** So much of its outline is through where only a few fibres are left, and where it hangs. */
const FIBRES_FROM = 0.97;
const HANGS_FROM = 0.8;
const PLACES_A_SIDE = 240;
/** A beam lies a little beside the line that it was sent along, the more the further its axes took it. */
const ASIDE_MM = Array.from({ length: 19 }, (_, step) => (step - 9) * 0.02);

/** Share of a box's outline that is cut through. */
function shareThrough({ depthMm, width, pxPerMm, marginMm, thicknessMm }: Piece, box: Box): number {
  const depth = (x: number, y: number): number =>
    depthMm[Math.floor((y + marginMm) * pxPerMm) * width + Math.floor((x + marginMm) * pxPerMm)]!;
  const { x: left, y: top } = box;
  const [right, bottom] = [left + box.width, top + box.height];
  const isThrough = (px: number, py: number): boolean =>
    Math.max(...ASIDE_MM.flatMap((aside) => [depth(px + aside, py), depth(px, py + aside)])) >= 0.995 * thicknessMm;
  if (box.shape) {
    const places = alongOutline(box.shape.outline);
    return places.filter(({ x, y }) => isThrough(x, y)).length / places.length;
  }
  let through = 0;
  for (let place = 0; place < PLACES_A_SIDE; place++) {
    const along = (place + 0.5) / PLACES_A_SIDE;
    const x = left + along * box.width;
    const y = top + along * box.height;
    for (const [px, py] of [
      [x, top],
      [x, bottom],
      [left, y],
      [right, y],
    ] as const) {
      if (isThrough(px, py)) through++;
    }
  }
  return through / (4 * PLACES_A_SIDE);
}

/** Places along an outline, a tenth of a millimetre apart. */
function alongOutline(outline: readonly { readonly x: number; readonly y: number }[]): { x: number; y: number }[] {
  return outline.flatMap((a, index) => {
    const b = outline[(index + 1) % outline.length]!;
    const steps = Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / 0.1));
    return Array.from({ length: steps }, (_, step) => ({
      x: a.x + ((b.x - a.x) * step) / steps,
      y: a.y + ((b.y - a.y) * step) / steps,
    }));
  });
}

/** Only what is sharper is a tip. */
const SHARP_DEG = 60;
/** A tip is looked at where half of it is so wide, over a spot of this size. */
const LOOKED_AT = { halfMm: 0.5, sideMm: 0.3 } as const;

/** So far beside an outline its edge is looked at, at the middle of every side that is long enough. */
const BESIDE_MM = 0.45;
const LONG_MM = 1.5;

/** Share of its light that stock beside the sides of an outline has lost, on the average; of an outline without long sides, beside all of them. */
function edgeLossOf(piece: Piece, outline: readonly { readonly x: number; readonly y: number }[]): number {
  const sides = outline.map((a, index) => {
    const b = outline[(index + 1) % outline.length]!;
    return { a, b, length: Math.hypot(b.x - a.x, b.y - a.y) };
  });
  const area = sides.reduce((sum, { a, b }) => sum + a.x * b.y - b.x * a.y, 0);
  const long = sides.filter(({ length }) => length >= LONG_MM);
  const looked = long.length > 0 ? long : sides.filter(({ length }) => length > 0);
  const losses = looked.map(({ a, b, length }) => {
    const out = (Math.sign(area) * BESIDE_MM) / length;
    const x = (a.x + b.x) / 2 + (b.y - a.y) * out - LOOKED_AT.sideMm / 2;
    const y = (a.y + b.y) / 2 - (b.x - a.x) * out - LOOKED_AT.sideMm / 2;
    return Math.max(0, 1 - trueLuminanceRatio(piece, { x, y, width: LOOKED_AT.sideMm, height: LOOKED_AT.sideMm }));
  });
  return losses.reduce((sum, loss) => sum + loss, 0) / Math.max(1, losses.length);
}

/** Share of its light that the sharpest tip of an outline has lost. */
function tipLossOf(piece: Piece, outline: readonly { readonly x: number; readonly y: number }[]): number {
  let sharpest = { half: (SHARP_DEG / 2) * (Math.PI / 180), loss: 0 };
  outline.forEach((tip, index) => {
    const toward = (other: { readonly x: number; readonly y: number }): { x: number; y: number } => {
      const length = Math.hypot(other.x - tip.x, other.y - tip.y);
      return { x: (other.x - tip.x) / length, y: (other.y - tip.y) / length };
    };
    const [a, b] = [
      toward(outline[(index + 1) % outline.length]!),
      toward(outline[(index + outline.length - 1) % outline.length]!),
    ];
    const half = Math.acos(Math.max(-1, Math.min(1, a.x * b.x + a.y * b.y))) / 2;
    if (!(half < sharpest.half)) return;
    const way = LOOKED_AT.halfMm / Math.tan(half);
    const middle = Math.hypot(a.x + b.x, a.y + b.y);
    const x = tip.x + ((a.x + b.x) / middle) * way - LOOKED_AT.sideMm / 2;
    const y = tip.y + ((a.y + b.y) / middle) * way - LOOKED_AT.sideMm / 2;
    const area = { x, y, width: LOOKED_AT.sideMm, height: LOOKED_AT.sideMm };
    sharpest = { half, loss: Math.max(0, 1 - trueLuminanceRatio(piece, area)) };
  });
  return sharpest.loss;
}

/** Taps the sheet under a part that was cut round a box. */
export function tapPart(piece: Piece, box: Box): Tapped {
  const share = shareThrough(piece, box);
  const beside = { x: box.x + 0.1 * box.width, y: box.y - 0.65, width: 0.8 * box.width, height: 0.4 };
  return {
    part: isLoose(piece, box)
      ? 'loose'
      : share >= FIBRES_FROM
        ? 'fibres'
        : share >= HANGS_FROM
          ? 'hangs'
          : 'not-through',
    edgeLoss: box.shape ? edgeLossOf(piece, box.shape.outline) : Math.max(0, 1 - trueLuminanceRatio(piece, beside)),
    tipLoss: box.shape ? tipLossOf(piece, box.shape.outline) : 0,
  };
}
