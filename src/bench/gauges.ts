import type { Piece } from './piece';
import { randomFrom } from './random';

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** What was cut there, where that is no rectangle: its outline as it was wanted, and a place on what comes loose. */
  readonly shape?: { readonly outline: readonly Place[]; readonly on: Place };
}

interface Place {
  readonly x: number;
  readonly y: number;
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
export const isLoose = (piece: Piece, box: Box): boolean => loosePart(piece, box) !== null;

/** Share of the thickness from which on nothing is left of it. */
const THROUGH = 0.995;
/** What is still one with the part so far outside its box holds it. */
const HELD_BEYOND_MM = 0.8;

/** The pixels of a part that has come loose, in a window of its piece: those that are 1. */
export interface LoosePart {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly is: Uint8Array;
}

const looked = new WeakMap<Piece, Map<string, LoosePart | null>>();

/** The pixels of a part that has come loose; null where something holds it. Hands ask the same again and again: a burned piece does not change. */
export function loosePart(piece: Piece, box: Box): LoosePart | null {
  const on = box.shape?.on ?? { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const key = [box.x, box.y, box.width, box.height, on.x, on.y].join(' ');
  const parts = looked.get(piece) ?? new Map<string, LoosePart | null>();
  looked.set(piece, parts);
  const known = parts.get(key);
  if (known !== undefined) return known;
  const part = partAround(piece, box, on);
  parts.set(key, part);
  return part;
}

function partAround(piece: Piece, box: Box, on: Place): LoosePart | null {
  const { pxPerMm, marginMm, thicknessMm, depthMm } = piece;
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const through = THROUGH * thicknessMm;
  const left = Math.max(0, px(box.x - HELD_BEYOND_MM));
  const top = Math.max(0, px(box.y - HELD_BEYOND_MM));
  const width = Math.min(piece.width - 1, px(box.x + box.width + HELD_BEYOND_MM)) - left + 1;
  const height = Math.min(piece.height - 1, px(box.y + box.height + HELD_BEYOND_MM)) - top + 1;
  const is = new Uint8Array(width * height);
  // Each place waits once at the most: it is marked when it begins to.
  const waiting = new Int32Array(is.length);
  const steps = [-1, 1, -width, width];
  const stepsOnPiece = [-1, 1, -piece.width, piece.width];
  let count = 1;
  waiting[0] = (px(on.y) - top) * width + px(on.x) - left;
  is[waiting[0]] = 1;
  while (count > 0) {
    const at = waiting[--count]!;
    const x = at % width;
    const y = Math.floor(at / width);
    if (x === 0 || x === width - 1 || y === 0 || y === height - 1) return null;
    const onPiece = (top + y) * piece.width + left + x;
    for (let k = 0; k < 4; k++) {
      const next = at + steps[k]!;
      if (is[next] === 1 || depthMm[onPiece + stepsOnPiece[k]!]! >= through) continue;
      is[next] = 1;
      waiting[count++] = next;
    }
  }
  return { left, top, width, height, is };
}

/** Lines across a shape that jaws are tried along. */
const JAW_LINES = 41;
/** Inside jaws stand where a hole is as wide as this share of its widest, as a hand finds by rocking them. */
const WIDEST_SHARE = 0.998;

/**
 * Between which places jaws stand on a part of any outline, or in its hole, along x or y: outside jaws are straight, and rest on the proudest place of
 * either side; inside jaws touch two places across from each other, the nearest of those where the hole is widest. Null where there are none.
 */
function jawsOnShape(piece: Piece, box: Box, axis: 'x' | 'y', on: 'part' | 'hole'): number | null {
  const part = loosePart(piece, box);
  if (!part || !box.shape) return null;
  const { width, pxPerMm, marginMm, depthMm, thicknessMm } = piece;
  const limit = THROUGH * thicknessMm;
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const [from, breadth, along] = axis === 'x' ? [box.y, box.height, box.width] : [box.x, box.width, box.height];
  const start = axis === 'x' ? box.x : box.y;
  const pixel = (line: number, place: number): number => (axis === 'x' ? line * width + place : place * width + line);
  const isOfPart = (line: number, place: number): boolean => {
    const [x, y] = axis === 'x' ? [place - part.left, line - part.top] : [line - part.left, place - part.top];
    return part.is[y * part.width + x] === 1;
  };
  /** Where depth passes the limit between two neighbouring places, the first of which is not through. */
  const edge = (line: number, solid: number, open: number): number => {
    const [a, b] = [depthMm[pixel(line, solid)]!, depthMm[pixel(line, open)]!];
    return solid + (open - solid) * Math.min(1, Math.max(0, (limit - a) / Math.max(1e-9, b - a)));
  };
  const [lowest, highest] = [px(start - 0.7), px(start + along + 0.7)];
  const ends: { low: number; high: number }[] = [];
  for (let k = 0; k < JAW_LINES; k++) {
    const at = from + (breadth * (k + 0.5)) / JAW_LINES;
    if (on === 'hole' && wantedAcross(box.shape.outline, at, axis) < WIDEST_SHARE * along) continue;
    const line = px(at);
    let [first, last] = [lowest, highest];
    while (first <= highest && !isOfPart(line, first)) first++;
    while (last >= lowest && !isOfPart(line, last)) last--;
    if (first > last) continue;
    if (on === 'part') ends.push({ low: edge(line, first, first - 1), high: edge(line, last, last + 1) });
    else {
      let [low, high] = [first - 1, last + 1];
      while (low > lowest - 20 && depthMm[pixel(line, low)]! >= limit) low--;
      while (high < highest + 20 && depthMm[pixel(line, high)]! >= limit) high++;
      ends.push({ low: edge(line, low, low + 1), high: edge(line, high, high - 1) });
    }
  }
  if (ends.length === 0) return null;
  if (on === 'part')
    return (Math.max(...ends.map(({ high }) => high)) - Math.min(...ends.map(({ low }) => low))) / pxPerMm;
  return Math.min(...ends.map(({ low, high }) => high - low)) / pxPerMm;
}

/** How far apart the outermost crossings of a line across an outline are. */
function wantedAcross(outline: readonly Place[], at: number, axis: 'x' | 'y'): number {
  let [low, high] = [Infinity, -Infinity];
  outline.forEach((a, index) => {
    const b = outline[(index + 1) % outline.length]!;
    const [aAcross, bAcross, aAlong, bAlong] = axis === 'x' ? [a.y, b.y, a.x, b.x] : [a.x, b.x, a.y, b.y];
    if (aAcross <= at === bAcross <= at) return;
    const crossing = aAlong + ((at - aAcross) / (bAcross - aAcross)) * (bAlong - aAlong);
    low = Math.min(low, crossing);
    high = Math.max(high, crossing);
  });
  return high - low;
}

/** How wide a part that has come loose is along an axis; null where something holds it. */
export const widthOfPart = (piece: Piece, box: Box, axis: 'x' | 'y'): number | null =>
  jawsOnShape(piece, box, axis, 'part');

/** Where a part's lower edge stands along one line from its middle outwards: the last place that is not cut through, or not cut so deep. */
function edgeFrom(
  piece: Piece,
  x: number,
  y: number,
  dx: number,
  dy: number,
  reach: number,
  limit = 0.995 * piece.thicknessMm,
): number {
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
  /** Of a part: its upper face alone, by the tips of the jaws; the whole of it, which is widest below, where left out. */
  readonly face?: 'upper';
}

/** So deep the upper edge of a part is already taken. */
const UPPER_EDGE_MM = 0.06;

/**
 * A caliper set on a part that was cut round `box`, or into the hole that it left, in steps of 0.01 mm: outside jaws touch the widest
 * place, inside jaws the narrowest, each with errors of their own. Each `turn` is another place and another grip.
 */
export function caliperReading(
  piece: Piece,
  box: Box,
  { axis, on, face }: CaliperPlace,
  caliper: { readonly owner: string; readonly turn: number },
): GaugeAnswer {
  if (!isLoose(piece, box)) return { cannot: 'The part has not come loose: it cannot be measured.' };
  const random = randomFrom(`grip ${caliper.owner} ${box.x} ${box.y} ${on} ${axis} ${caliper.turn}${face ?? ''}`);
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const [ux, uy] = axis === 'x' ? [1, 0] : [0, 1];
  const [along, breadth] = axis === 'x' ? [box.height, box.width] : [box.width, box.height];
  const shaped = box.shape ? jawsOnShape(piece, box, axis, on) : undefined;
  if (shaped === null) return { cannot: 'The jaws find no two faces across from each other to rest on.' };
  const limit = face === 'upper' ? UPPER_EDGE_MM : undefined;
  const edge = (x: number, y: number, dx: number, dy: number, reach: number): number =>
    on === 'part' ? edgeFrom(piece, x, y, dx, dy, reach, limit) : rimFrom(piece, x, y, dx, dy, reach);
  // Jaws are wide: they rest on the proudest of several places.
  const across = (place: number): number => {
    const aside = (0.12 * (place - 2) + 0.2 * (random() - 0.5)) * along;
    const [x, y] = axis === 'x' ? [middle.x, middle.y + aside] : [middle.x + aside, middle.y];
    const reach = breadth / 2 + 1;
    return edge(x, y, ux, uy, reach) + edge(x, y, -ux, -uy, reach);
  };
  const widths = shaped === undefined ? [0, 1, 2, 3, 4].map(across).filter(Number.isFinite) : [shaped];
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
