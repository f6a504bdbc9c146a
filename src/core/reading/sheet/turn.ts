import { sampleRankCorrelation } from 'simple-statistics';
import type { Layout } from '../../card/layout';

/** A card as it would lie: its layout, and the gray that is seen at each of its places, in card mm. */
interface Seen {
  readonly layout: Layout;
  grayAt(xMm: number, yMm: number): number;
}

/** How well the right turn must be told, and how much better than any other: by correlation, and by lettering as a part of the best. */
const LEAST_TREND = 0.6;
const TREND_AHEAD = 0.4;
const LETTERS_AHEAD = 0.5;
/** Lettering that differs from what is beside it by fewer grays is not seen: noise alone can be twice as much one way round as the other. */
const LEAST_LETTERS = 3;
/** Fewer cells of different strength have no trend. */
const LEAST_CELLS = 4;
/** How far beside its strokes lettering is compared with bare stock. */
const BESIDE_MM = 0.7;

/**
 * Which of several turns that fit a card's cells alike is the right one: that in which strokes lie where its lettering does, or, where it has none,
 * in which cells that took more energy stand out more. A single one is taken as it is. Null where neither tells: then nobody knows.
 */
export function turnTold<Pose>(likely: readonly Pose[], seenAs: (pose: Pose) => Seen): Pose | null {
  if (likely.length <= 1) return likely[0] ?? null;
  const told = likely.map((pose) => ({ pose, letters: lettersOf(seenAs(pose)), trend: trendOf(seenAs(pose)) }));
  const byLetters = [...told].sort((a, b) => b.letters - a.letters);
  const [most, next] = byLetters.map(({ letters }) => letters) as [number, number];
  if (most > LEAST_LETTERS && next < LETTERS_AHEAD * most) return byLetters[0]!.pose;
  const byTrend = [...told].sort((a, b) => b.trend - a.trend);
  return byTrend[0]!.trend > LEAST_TREND && byTrend[0]!.trend - byTrend[1]!.trend > TREND_AHEAD
    ? byTrend[0]!.pose
    : null;
}

/** Rank correlation of what cells took and how much they stand out. */
function trendOf({ layout, grayAt }: Seen): number {
  const cells = layout.cells.filter(({ leftOut }) => !leftOut);
  const risks = cells.map(({ risk }) => risk);
  if (new Set(risks).size < LEAST_CELLS) return 0;
  const standsOut = cells.map(({ box: { x, y, width, height } }) => {
    const inside = [0.3, 0.5, 0.7].map((part) => grayAt(x + part * width, y + part * height));
    const around = [
      grayAt(x - 0.3, y + height / 2),
      grayAt(x + width + 0.3, y + height / 2),
      grayAt(x + width / 2, y - 0.3),
      grayAt(x + width / 2, y + height + 0.3),
    ];
    const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
    const apart = Math.abs(mean(inside) - mean(around));
    return Number.isFinite(apart) ? apart : 0;
  });
  return sampleRankCorrelation(risks, standsOut);
}

/** Mean difference, in grays, of the places that lettering's strokes run through and places beside them. */
function lettersOf({ layout, grayAt }: Seen): number {
  let sum = 0;
  let count = 0;
  for (const { strokes } of layout.frame.lettering)
    for (const stroke of strokes)
      for (let k = 1; k < stroke.length; k++) {
        const [a, b] = [stroke[k - 1]!, stroke[k]!];
        const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
        const beside = [
          [BESIDE_MM, 0],
          [-BESIDE_MM, 0],
          [0, BESIDE_MM],
          [0, -BESIDE_MM],
        ].map(([dx, dy]) => grayAt(x + dx!, y + dy!));
        const apart = grayAt(x, y) - beside.reduce((total, value) => total + value, 0) / beside.length;
        if (!Number.isFinite(apart)) continue;
        sum += apart;
        count++;
      }
  return count > 0 ? Math.abs(sum / count) : 0;
}
