import type { Piece } from './piece';
import { randomFrom } from './random';

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What a gauge shows, as it would type it into a keyboard's place, or why it cannot be set on. */
export type GaugeAnswer = { readonly shows: string } | { readonly cannot: string };

/** A caliper of a machine's workshop: off by a little always, off by a share of what it measures, and not quite steady in the hand. */
function caliperErrors(name: string): { biasMm: number; insideBiasMm: number; scale: number; unsteadyMm: number } {
  const random = randomFrom(`caliper ${name}`);
  const [biasMm, scale] = [0.012 * (2 * random() - 1), 0.0004 * (2 * random() - 1)];
  return { biasMm, insideBiasMm: 0.015 * (2 * random() - 1), scale, unsteadyMm: 0.006 };
}

const STEP_MM = 0.01;

/**
 * Depth at a place of the piece in card millimetres, between pixels.
 */
function depthAt({ depthMm, width, height, pxPerMm, marginMm }: Piece, x: number, y: number): number {
  const u = Math.min(width - 1.001, Math.max(0, (x + marginMm) * pxPerMm - 0.5));
  const v = Math.min(height - 1.001, Math.max(0, (y + marginMm) * pxPerMm - 0.5));
  const at = Math.floor(v) * width + Math.floor(u);
  const fu = u % 1;
  const fv = v % 1;
  return (
    (depthMm[at]! * (1 - fu) + depthMm[at + 1]! * fu) * (1 - fv) +
    (depthMm[at + width]! * (1 - fu) + depthMm[at + width + 1]! * fu) * fv
  );
}

/** Whether a part that was cut round a box has come loose: nothing holds it anywhere along its outline. */
export function isLoose(piece: Piece, box: Box): boolean {
  const { width, height, pxPerMm, marginMm, thicknessMm, depthMm } = piece;
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const through = 0.995 * thicknessMm;
  const seen = new Uint8Array(width * height);
  const start = px(box.y + box.height / 2) * width + px(box.x + box.width / 2);
  const left = px(box.x - 0.8);
  const right = px(box.x + box.width + 0.8);
  const top = px(box.y - 0.8);
  const bottom = px(box.y + box.height + 0.8);
  const waiting = [start];
  seen[start] = 1;
  while (waiting.length > 0) {
    const at = waiting.pop()!;
    const x = at % width;
    const y = Math.floor(at / width);
    if (x <= left || x >= right || y <= top || y >= bottom) return false;
    for (const next of [at - 1, at + 1, at - width, at + width]) {
      if (next < 0 || next >= seen.length || seen[next] === 1 || depthMm[next]! >= through) continue;
      seen[next] = 1;
      waiting.push(next);
    }
  }
  return true;
}

/** Where a part's lower edge stands along one line from its middle outwards: the last place that is not cut through. */
function edgeFrom(piece: Piece, x: number, y: number, dx: number, dy: number, reach: number): number {
  const limit = 0.995 * piece.thicknessMm;
  const step = 0.25 / piece.pxPerMm;
  let before = 0;
  for (let way = 0; way <= reach; way += step) {
    const depth = depthAt(piece, x + dx * way, y + dy * way);
    if (depth >= limit) return way - step * Math.max(0, Math.min(1, (depth - limit) / Math.max(1e-9, depth - before)));
    before = depth;
  }
  return NaN;
}

/** Where the rim of a hole stands, from its middle outwards: the first place past the cut that is not cut through. */
export function rimFrom(piece: Piece, x: number, y: number, dx: number, dy: number, reach: number): number {
  const limit = 0.995 * piece.thicknessMm;
  const step = 0.25 / piece.pxPerMm;
  let before = Infinity;
  for (let way = edgeFrom(piece, x, y, dx, dy, reach) + step; way <= reach + 1; way += step) {
    const depth = depthAt(piece, x + dx * way, y + dy * way);
    if (depth < limit) return way - step * Math.max(0, Math.min(1, (limit - depth) / Math.max(1e-9, before - depth)));
    before = depth;
  }
  return NaN;
}

/** What a caliper is set on: the part that was cut round a box, or the hole that it left, across x or y. */
export interface CaliperPlace {
  readonly axis: 'x' | 'y';
  readonly on: 'part' | 'hole';
}

/**
 * A caliper set on a part that was cut round `box`, or into the hole that it left, in steps of 0.01 mm: outside jaws touch the widest
 * place, inside jaws the narrowest, each with errors of their own. Each `turn` is another place and another grip.
 */
export function caliperReading(
  piece: Piece,
  box: Box,
  { axis, on }: CaliperPlace,
  caliper: { readonly owner: string; readonly turn: number },
): GaugeAnswer {
  if (!isLoose(piece, box)) return { cannot: 'The part has not come loose: it cannot be measured.' };
  const random = randomFrom(`grip ${caliper.owner} ${box.x} ${box.y} ${on} ${axis} ${caliper.turn}`);
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const [ux, uy] = axis === 'x' ? [1, 0] : [0, 1];
  const [along, breadth] = axis === 'x' ? [box.height, box.width] : [box.width, box.height];
  const edge = on === 'part' ? edgeFrom : rimFrom;
  // Jaws are wide: they rest on the proudest of several places.
  const widths = Array.from({ length: 5 }, (_, place) => {
    const aside = (0.12 * (place - 2) + 0.2 * (random() - 0.5)) * along;
    const [x, y] = axis === 'x' ? [middle.x, middle.y + aside] : [middle.x + aside, middle.y];
    const reach = breadth / 2 + 1;
    return edge(piece, x, y, ux, uy, reach) + edge(piece, x, y, -ux, -uy, reach);
  }).filter(Number.isFinite);
  if (widths.length === 0) return { cannot: 'The jaws find no edge to rest on.' };
  const proudest = on === 'part' ? Math.max(...widths) : Math.min(...widths);
  const { biasMm, insideBiasMm, scale, unsteadyMm } = caliperErrors(caliper.owner);
  const unsteady = unsteadyMm * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const off = on === 'part' ? biasMm : insideBiasMm;
  const shown = Math.round((proudest * (1 + scale) + off + unsteady) / STEP_MM) * STEP_MM;
  return { shows: shown.toFixed(2) };
}

/** A depth gauge set down in the middle of a box, its foot on the bare face beside it: the deepest its needle reaches, in steps of 0.01 mm. */
export function depthReading(
  piece: Piece,
  box: Box,
  gauge: { readonly owner: string; readonly turn: number },
): GaugeAnswer {
  const random = randomFrom(`needle ${gauge.owner} ${box.x} ${box.y} ${gauge.turn}`);
  let deepest = 0;
  for (let place = 0; place < 24; place++) {
    const x = box.x + box.width * (0.3 + 0.4 * random());
    const y = box.y + box.height * (0.3 + 0.4 * random());
    deepest = Math.max(deepest, depthAt(piece, x, y));
  }
  if (deepest >= 0.995 * piece.thicknessMm)
    return { cannot: 'The needle finds no ground: it is burned through there.' };
  const shown = Math.max(0, Math.round((deepest + 0.008 * (random() - 0.5)) / STEP_MM) * STEP_MM);
  return { shows: shown.toFixed(2) };
}
