import { wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import { FLAP, STITCH } from '../../core/card/usual-asks';
import { formatLength, formatPower } from '../../core/quantities/format';
import { betweenStitchesMm } from './plan';

export const SCORE_ASKS: readonly Ask[] = [FLAP, STITCH];

/** What a line is for. */
export interface ScoreWish {
  readonly want: 'tear' | 'fold' | 'stitch';
}

export const USUAL_SCORE_WISH: ScoreWish = { want: 'tear' };

/** A line as it was burned, and what its flap did, or what it looks like. */
export interface TriedLine {
  readonly cellIndex: number;
  readonly settings: BurnSettings;
  /** Whether it is scored for its looks, and frees nothing. */
  readonly isStitch: boolean;
  /** Null for a line without dashes. */
  readonly dashMm: number | null;
  readonly skipMm: number | null;
  /** Share of a cut's energy; null for one that is cut. */
  readonly score: number | null;
  /** Share of its length that is not cut; of a scored one all. */
  readonly drawnShare: number;
  readonly did: string;
}

export interface ScoreFinding extends BaseFinding {
  readonly lines: readonly TriedLine[];
  readonly chosen: TriedLine | null;
}

/** Fewer flaps tell nothing. */
const LEAST_TOLD = 3;
const WANTED: Readonly<Record<ScoreWish['want'], string>> = { tear: 'clean', fold: 'folds', stitch: 'stitching' };

/** The line that does what is wanted: of those that tear clean the one that holds best till then, of those that fold the one that folds easiest. */
export function findScore(layout: Layout, seen: Seen, { pairing }: Known, { want }: ScoreWish): ScoreFinding {
  const liked = pairing.machine.likedUnits;
  const lines = layout.order.flatMap((cellIndex): TriedLine[] => {
    const cell = layout.cells[cellIndex]!;
    const isStitch = cell.levels.side === 'stitch';
    const did = wordOf(seen, (isStitch ? STITCH : FLAP).field, cellIndex);
    const levels = cell.levels as Partial<Record<'dash' | 'skip' | 'stitch' | 'score', number>>;
    const { stitch, score } = levels;
    const dash = stitch ?? levels.dash;
    const skip = stitch === undefined ? levels.skip : betweenStitchesMm(stitch);
    const drawnShare = dash === undefined || skip === undefined ? 1 : skip / (dash + skip);
    return did === null
      ? []
      : [
          {
            cellIndex,
            settings: mainBurn(cell).settings,
            isStitch,
            dashMm: dash ?? null,
            skipMm: skip ?? null,
            score: score ?? null,
            drawnShare,
            did,
          },
        ];
  });
  const lacks = (missing: string): ScoreFinding => ({ lines, chosen: null, missing: [missing], says: '' });
  if (want === 'stitch') {
    const stitches = lines.filter(({ isStitch }) => isStitch);
    if (stitches.length === 0) return lacks('Look at the scored dashes of the last row, and say what each looks like.');
    // Of those that pass for stitches the longest: it is soonest done.
    const longest = stitches.filter(({ did }) => did === WANTED.stitch).sort((a, b) => b.dashMm! - a.dashMm!)[0];
    if (!longest)
      return lacks('None looks like stitching: score deeper where dashes are faint, shallower where they are deep.');
    const [dash, skip] = [longest.dashMm!, longest.skipMm!].map((mm) => formatLength(mm, liked, 3));
    const says = `Stitches of ${dash} with ${skip} between, scored at ${formatPower(longest.score!)} of a cut’s energy.`;
    return { lines, chosen: longest, missing: [], says };
  }
  const flaps = lines.filter(({ isStitch }) => !isStitch);
  if (flaps.length < LEAST_TOLD) return lacks('Fold the flaps and say what each does, three of them at the least.');
  // What is scored stands all along: of those the deepest folds easiest.
  const standing = ({ drawnShare, score }: TriedLine): number => drawnShare * (score === null ? 1 : 1 - score);
  const fitting = flaps.filter(({ did }) => did === WANTED[want]).sort((a, b) => standing(b) - standing(a));
  const chosen = (want === 'tear' ? fitting[0] : fitting.at(-1)) ?? null;
  if (!chosen) {
    if (flaps.every(({ did }) => did === 'off'))
      return lacks('Every flap came off by itself: leave more between dashes.');
    return lacks(
      want === 'tear'
        ? 'None tears clean: leave less between dashes, or make them longer.'
        : 'None folds and holds: this stock breaks, or its lines are too deep or too shallow. Try scoring between those that broke and those that were stiff.',
    );
  }
  const how =
    chosen.dashMm === null
      ? `Score at ${formatPower(chosen.score!)} of a cut’s energy`
      : `Dashes of ${formatLength(chosen.dashMm, liked, 3)} with ${formatLength(chosen.skipMm!, liked, 3)} between`;
  return {
    lines,
    chosen,
    missing: [],
    says: `${how}: ${want === 'tear' ? 'tears clean, and holds best till then' : 'folds easiest, and holds'}.`,
  };
}
