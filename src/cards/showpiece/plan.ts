import { placesOfPicture, type ChosenPicture, type SizedPicture } from '../../core/card/chosen-picture';
import type { BasePlan } from '../../core/card/contract';
import { letter, letterable, letteringWidthMm } from '../../core/card/lettering';
import type { BurnSettings } from '../../core/card/settings';
import type { Greys } from '../../core/picture/greys';
import { asLineArt, distanceToStrokes, drawnWhere, mostRuns, placesOver } from '../../core/picture/line-art';
import { resampled, type Crop } from '../../core/picture/sample';

export const SHOWPIECE_VERSION = 1;

/** What a part of the showpiece stands for. */
export const PARTS = ['broad', 'lettering', 'hairline', 'point'] as const;
export type PartName = (typeof PARTS)[number];

/** A drawing of one's own and, beside it, lettering of three heights, hairlines and points of three widths, all with one setting. */
export interface ShowpiecePlan extends BasePlan {
  /** 0 for white, 255 for black, as a picture is; what is darker than half is burned. */
  readonly drawing: ChosenPicture;
  readonly crop: Crop;
  readonly widthMm: number;
  readonly words: string;
  /** Capitals. */
  readonly heights: { readonly smallMm: number; readonly middleMm: number; readonly largeMm: number };
  /** The thinnest; there are two more, twice and three times as wide. */
  readonly hairlineMm: number;
  /** The smallest; there are two more, twice and three times as wide. */
  readonly pointMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'lineAngleDeg' | 'crossHatch'>;
}

/** Of a letter's height: as bold as plain lettering is (common practice: a sixth to an eighth). */
const STROKE_SHARE = 1 / 7;
const HAIRLINE_MM = { along: 3, across: 2.4 } as const;
const TIMES = [1, 2, 3] as const;
/** Points of one width, and how far apart they stand: so many widths, or so many mm. */
const POINTS = 4;
const POINT_PITCH = { widths: 3, leastMm: 0.9 } as const;

/** A part as it is drawn: places that are burned or bare. */
export interface Part {
  readonly part: PartName;
  /** Height of capitals, or width of a hairline or point; none of the drawing. */
  readonly sizeMm: number | null;
  readonly drawn: Greys;
}

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** What of the drawing is burned, and how large. */
export const sizedDrawing = ({
  drawing,
  crop,
  widthMm,
  constants,
}: Pick<ShowpiecePlan, 'drawing' | 'crop' | 'widthMm' | 'constants'>): SizedPicture => ({
  picture: drawing,
  crop,
  widthMm,
  intervalMm: constants.intervalMm,
});

/** Words in capitals of a height, no stroke thinner than a line of the fill is. */
function lettering(words: string, heightMm: number, intervalMm: number): Greys {
  const stroke = Math.max(intervalMm, heightMm * STROKE_SHARE);
  const strokes = letter(words, { x: stroke / 2, y: stroke / 2, heightMm });
  return drawnWhere(
    placesOver(letteringWidthMm(letterable(words), heightMm) + stroke, heightMm + stroke, intervalMm),
    (x, y) => distanceToStrokes(x, y, strokes) <= stroke / 2 + 1e-9,
  );
}

/** One hairline along X and one along Y, of whole places: the nearest to a width, one at the least. */
function hairlines(widthMm: number, intervalMm: number): Greys {
  const count = Math.max(1, Math.round(widthMm / intervalMm));
  const { along, across } = HAIRLINE_MM;
  const places = placesOver(along + across / 2, across, intervalMm);
  const isIn = (at: number, middle: number): boolean => {
    const first = Math.round(middle / intervalMm - count / 2);
    return at >= first * intervalMm && at < (first + count) * intervalMm;
  };
  return drawnWhere(places, (x, y) => (x < along - 0.4 ? isIn(y, across / 2) : isIn(x, along + across / 4)));
}

/** A row of round points, each of one place at the least. */
function points(widthMm: number, intervalMm: number): Greys {
  const pitch = Math.max(POINT_PITCH.leastMm, POINT_PITCH.widths * widthMm);
  const places = placesOver(POINTS * pitch, pitch, intervalMm);
  // About the middle of a place, so that the smallest are one.
  const middleOf = (mm: number): number => (Math.floor(mm / intervalMm) + 0.5) * intervalMm;
  const reach = Math.max(widthMm, intervalMm) / 2;
  return drawnWhere(places, (x, y) => {
    const point = Math.min(POINTS - 1, Math.floor(x / pitch));
    return Math.hypot(x - middleOf((point + 0.5) * pitch), y - middleOf(pitch / 2)) <= reach * 1.001;
  });
}

/** How wide a hairline or point of a wanted width comes out: a whole number of lines. */
const wholeMm = (mm: number, intervalMm: number): number =>
  round(Math.max(1, Math.round(mm / intervalMm)) * intervalMm);

/** Everything that is drawn: the drawing first, then lettering from large to small, hairlines and points from thin to wide. */
export function partsOf(plan: ShowpiecePlan): Part[] {
  const { drawing, crop, words, heights, hairlineMm, pointMm, constants } = plan;
  const { intervalMm } = constants;
  const { columns, rows } = placesOfPicture(sizedDrawing(plan));
  const sizes = (mm: number): number[] => [...new Set(TIMES.map((times) => wholeMm(times * mm, intervalMm)))];
  return [
    { part: 'broad', sizeMm: null, drawn: asLineArt(resampled(drawing, crop, columns, rows)) },
    ...[heights.largeMm, heights.middleMm, heights.smallMm].map((sizeMm): Part => ({
      part: 'lettering',
      sizeMm,
      drawn: lettering(words, sizeMm, intervalMm),
    })),
    ...sizes(hairlineMm).map((sizeMm): Part => ({ part: 'hairline', sizeMm, drawn: hairlines(sizeMm, intervalMm) })),
    ...sizes(pointMm).map((sizeMm): Part => ({ part: 'point', sizeMm, drawn: points(sizeMm, intervalMm) })),
  ];
}

/** A stroke of a sign crosses no line of the fill more often than this. */
const RUNS_A_SIGN = 4;

/** How large each part is at the most, and in how many stretches each of its lines is burned: by arithmetic, nothing is drawn for it. */
export function sizesOf(
  plan: ShowpiecePlan,
): { readonly widthMm: number; readonly heightMm: number; readonly runs: number }[] {
  const { drawing, words, heights, pointMm, constants } = plan;
  const { intervalMm, direction } = constants;
  const { columns, rows } = placesOfPicture(sizedDrawing(plan));
  const signs = letterable(words).length;
  // A line of the fill lies between two of the drawing's own: it may have the ends of both.
  const runs = 2 * mostRuns(drawing, direction === 'horizontal');
  const pitch = Math.max(POINT_PITCH.leastMm, POINT_PITCH.widths * TIMES.at(-1)! * (pointMm + intervalMm));
  return [
    { widthMm: columns * intervalMm, heightMm: rows * intervalMm, runs },
    ...Object.values(heights).map((mm) => ({
      widthMm: letteringWidthMm(letterable(words), mm) + mm * STROKE_SHARE + 2 * intervalMm,
      heightMm: mm * (1 + STROKE_SHARE) + 2 * intervalMm,
      // A line along Y crosses one sign.
      runs: RUNS_A_SIGN * (direction === 'horizontal' ? signs : 1),
    })),
    ...TIMES.map(() => ({
      widthMm: HAIRLINE_MM.along + HAIRLINE_MM.across + intervalMm,
      heightMm: HAIRLINE_MM.across + intervalMm,
      runs: 2,
    })),
    ...TIMES.map(() => ({ widthMm: POINTS * pitch + intervalMm, heightMm: pitch + intervalMm, runs: POINTS })),
  ];
}

export function upgradeShowpiecePlan(stored: object): ShowpiecePlan {
  const { version } = stored as { version?: number };
  if (version !== SHOWPIECE_VERSION) throw new RangeError(`unknown showpiece plan version: ${version}`);
  return stored as ShowpiecePlan;
}
