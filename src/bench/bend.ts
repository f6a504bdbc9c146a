import { isLoose, type Box, type GaugeAnswer } from './gauges';
import type { Piece } from './piece';
import { randomFrom } from './random';

/** Modulus over breaking stress, by what the stock is: brittle ones break early, fibrous and soft ones late. */
const STIFF_OVER_STRONG: Readonly<Record<string, number>> = {
  'acrylic-cast': 130,
  'acrylic-extruded': 110,
  mdf: 95,
  plywood: 62,
  hardwood: 75,
  softwood: 68,
  'light-wood': 55,
  bamboo: 58,
  card: 30,
};
const USUALLY = 70;
/** Strips of one sheet differ by so much in the logarithm. */
const SCATTER = 0.09;
/** What lies about a workshop to bend things round, in mm of radius. */
const ROUND_THINGS_MM = [4, 5, 6, 8, 10, 12.5, 15, 18, 22, 27, 33, 40, 50, 60, 75, 90, 110, 135];
/** Longer openings along the bend are no slits across it. */
const LONGEST_OPENING_MM = 1;

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** What a tenth of them is narrower than. */
const narrow = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 10)]!;

interface Runs {
  /** Lengths of what is open, and of what stands between two openings. */
  readonly open: readonly number[];
  readonly solid: readonly number[];
  readonly middles: readonly number[];
}

/** What is open and what stands along a line of pixels, in mm. */
function runsAlong(isOpen: (at: number) => boolean, from: number, to: number, pxPerMm: number): Runs {
  const open: number[] = [];
  const solid: number[] = [];
  const middles: number[] = [];
  let start: number | null = null;
  let lastEnd: number | null = null;
  for (let at = from; at <= to; at++) {
    if (isOpen(at)) {
      start ??= at;
      continue;
    }
    if (start === null) continue;
    if (lastEnd !== null) solid.push((start - lastEnd) / pxPerMm);
    open.push((at - start) / pxPerMm);
    middles.push((start + at) / 2);
    lastEnd = at;
    start = null;
  }
  return { open, solid, middles };
}

/**
 * A hand that bends a strip along y round smaller and smaller things until it breaks: the last that it held round. By what its slits left standing, and
 * by a strength of its own.
 */
export function bendReading(
  piece: Piece,
  box: Box,
  { family, seed }: { readonly family: string; readonly seed: string },
): GaugeAnswer {
  if (!isLoose(piece, box)) return { cannot: 'The strip has not come loose: it cannot be bent.' };
  const { width, pxPerMm, marginMm, depthMm, thicknessMm } = piece;
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const through = 0.995 * thicknessMm;
  const isOpen = (x: number, y: number): boolean => depthMm[y * width + x]! >= through;
  const [top, bottom] = [px(box.y + 1), px(box.y + box.height - 1)];
  const [left, right] = [px(box.x + 0.5), px(box.x + box.width - 0.5)];
  const links: number[] = [];
  let crosses = false;
  const kerfs: number[] = [];
  const rows = new Map<number, number>();
  for (let x = left; x <= right; x += 3) {
    const { open, solid, middles } = runsAlong((y) => isOpen(x, y), top, bottom, pxPerMm);
    links.push(...solid);
    open.forEach((length, k) => {
      if (length > LONGEST_OPENING_MM) {
        crosses = true;
        return;
      }
      kerfs.push(length);
      const row = Math.round(middles[k]!);
      rows.set(row, (rows.get(row) ?? 0) + 1);
    });
  }
  if (links.length === 0 || kerfs.length === 0)
    return { cannot: 'Its slits are not through: it does not bend, it breaks.' };
  const along = [...rows.keys()].map((y) => runsAlong((x) => isOpen(x, y), left, right, pxPerMm));
  const slits = along.flatMap(({ open }) => open);
  const bridges = along.flatMap(({ solid }) => solid);
  const longest = Math.max(...slits);
  const slit = median(slits.filter((length) => length > 0.7 * longest));
  const bridge = bridges.length > 0 ? median(bridges) : 1;
  const t = thicknessMm;
  // Where slits cross, what twists is what is left between the end of one and the side of the next.
  const b = crosses ? narrow([...links, ...bridges]) : median(links);
  const pitch = crosses ? (slit + 2 * (b + median(kerfs))) / 2 : b + median(kerfs);
  const free = crosses ? slit / 2 : Math.max(0.5, (slit - bridge) / 2);
  const ratio = Math.max(b, t) / Math.min(b, t);
  // How much more the middle of a bar's long side is strained than a thin one's: an approximation of its own.
  const shape = 1 - 0.325 * Math.exp(-1.55 * (ratio - 1));
  const random = randomFrom(`bent ${seed} ${box.x} ${box.y}`);
  const lot = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const strength = (STIFF_OVER_STRONG[family] ?? USUALLY) * Math.exp(SCATTER * lot);
  const breaksMm = (strength * shape * Math.min(b, t) * pitch) / free;
  const held = ROUND_THINGS_MM.find((radius) => radius >= breaksMm);
  return held === undefined ? { cannot: 'It breaks round the largest thing at hand.' } : { shows: held.toFixed(1) };
}
