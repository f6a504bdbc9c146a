import { isLoose, type Box } from './gauges';
import { trueLuminanceRatio, type Piece } from './piece';

/** What a hand finds that taps the sheet under a part that was cut round a box, and holds the part to the light. */
export interface Tapped {
  /** Whether it drops, or what holds it. */
  readonly part: 'loose' | 'fibres' | 'hangs' | 'not-through';
  /** Share of its light that the stock close beside the cut has lost: how brown its edge is. */
  readonly edgeLoss: number;
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

/** Taps the sheet under a part that was cut round a box. */
export function tapPart(piece: Piece, box: Box): Tapped {
  const share = shareThrough(piece, box);
  // Of an outline of any shape the light beside its uppermost place is looked at.
  const beside = { x: box.x + 0.1 * box.width, y: box.y - 0.65, width: 0.8 * box.width, height: 0.4 };
  return {
    part: isLoose(piece, box)
      ? 'loose'
      : share >= FIBRES_FROM
        ? 'fibres'
        : share >= HANGS_FROM
          ? 'hangs'
          : 'not-through',
    edgeLoss: Math.max(0, 1 - trueLuminanceRatio(piece, beside)),
  };
}
