import type { BedCorner, BedVerdict } from '../../core/book/fact-values';
import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { RANGE_OVER_DEPTH } from './plan';
import { heightsOf, planeThrough, type Plane, type Uncertain } from '../../core/fit/bed';
import { formatLength, plainNumber, type LikedUnits } from '../../core/quantities/format';
import { LOW_CONFIDENCE } from '../../core/reading/observations';

export const LINES_FIELD = 'lines';

export const BED_ASKS: readonly Ask[] = [
  { field: 'fill', by: 'photo', measure: 'lines' },
  eyeAsk(LINES_FIELD, 'How do its lines look beside the other two of its place?', [
    ['sharpest', 's', 'sharpest'],
    ['softer', 'f', 'softer'],
    ['gone', 'g', 'gone'],
  ]),
];

/** What is known of one place of the bed. */
export interface PlaceSeen {
  readonly name: string;
  /** Its patches, from the lowered to the raised. */
  readonly cells: readonly number[];
  /** Middle of its patches on the card, in mm: x from the left, y from the rear. */
  readonly x: number;
  readonly y: number;
  /** By how much the sheet stands higher there than the set focus; null where it is not told. */
  readonly height: Uncertain | null;
  readonly by: 'photo' | 'eye' | null;
  /** By how many L* its patches differ from bare stock; null where no photo tells all of them surely. */
  readonly strength: Uncertain | null;
}

/** How much too high a corner of what was tested lies, about the middle. */
export interface CornerHeight extends Uncertain {
  readonly corner: BedCorner;
}

/** By how many L* marks get stronger from one side to the other. */
export interface Drift {
  readonly toward: 'left' | 'right' | 'rear' | 'front';
  readonly strongerL: number;
  readonly sigma: number;
}

export interface BedFinding extends BaseFinding {
  readonly places: readonly PlaceSeen[];
  /** Null where too few places tell their height. */
  readonly verdict: BedVerdict | null;
  readonly corners: readonly CornerHeight[];
  /** What the middle is off the set focus. */
  readonly middle: Uncertain | null;
  readonly focusDepthMm: number | null;
  /** Root mean square of what lies off the plane. */
  readonly offPlaneMm: number | null;
  /** Strength of marks that goes one way over the bed where height does not. */
  readonly drifts: readonly Drift[];
  /** Places along each axis, and how far the outer ones lie from each other. */
  readonly columns: number;
  readonly rows: number;
  readonly widthMm: number;
  readonly depthMm: number;
}

const CORNERS: readonly { readonly corner: BedCorner; readonly at: readonly [number, number] }[] = [
  { corner: 'rear left', at: [0, 0] },
  { corner: 'rear right', at: [1, 0] },
  { corner: 'front right', at: [1, 1] },
  { corner: 'front left', at: [0, 1] },
];

const LEAST_PLACES = 4;
/**
 * Marks are no copy of the light that makes them: they begin at a threshold and get no darker than so much, and their ripples fall faster far from
 * the focus than by the square. Three patches do not tell how much faster: heights are off by up to about this share of themselves.
 */
const LAW_SHARE = 0.15;
/** A sheet that lies off a plane by less than this share of the depth of focus, root mean square, is flat enough to tell a tilt by. */
const FLAT_SHARE = 0.2;
/** Marks of one setting differ by so much from piece to piece of one sheet, beside what a photo tells of its own doubt (common practice). */
const STOCK_SIGMA_L = 0.3;
/** Half of a step is the most that an eye which saw one of three patches sharpest is off, evenly: its standard deviation as a share of a step. */
const EYE_SHARE = 1 / Math.sqrt(12);

/** The set focus is itself set to no better than it scatters; the heights of places about each other are not. */
const countedFrom = ({ value, sigma }: Uncertain, scatterMm: number): Uncertain => ({
  value,
  sigma: Math.hypot(sigma, scatterMm),
});

const withLaw = ({ value, sigma }: Uncertain): Uncertain => ({ value, sigma: Math.hypot(sigma, LAW_SHARE * value) });

/** Where a place is sharpest to the eye: the middle of the patches that it calls so; null where it says nothing, or only the outer ones. */
function heightByEye(seen: Seen, cells: readonly number[], offsets: readonly number[]): Uncertain | null {
  const words = cells.map((cell) => wordOf(seen, LINES_FIELD, cell));
  const sharpest = offsets.filter((_, index) => words[index] === 'sharpest');
  if (sharpest.length === 0 || sharpest.length === cells.length) return null;
  if (sharpest.length === 2 && words[1] !== 'sharpest') return null;
  const step = offsets[1]! - offsets[0]!;
  return {
    value: sharpest.reduce((sum, mm) => sum + mm, 0) / sharpest.length + 0,
    sigma: step * EYE_SHARE,
  };
}

const length = (mm: number, liked: LikedUnits): string => formatLength(mm, liked, 2);
const plusMinus = ({ sigma }: Uncertain, liked: LikedUnits): string => `± ${length(2 * sigma, liked)}`;

/**
 * Whether the bed is level, from which of three focus offsets is sharpest at each place, and whether the beam is as strong all over it. The eye's
 * word goes before a photo's where they are more than a step apart. Darkness tells a drift only along an axis on which height does not change:
 * darkness alone does not know up from down.
 */
export function findBed(layout: Layout, seen: Seen, { pairing }: Known): BedFinding {
  const liked = pairing.machine.likedUnits;
  const stations = layout.stations ?? [];
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const offsetOf = (cell: number): number => mainBurn(layout.cells[cell]!).settings.focusOffsetMm;
  const ripples = stations.map(({ cells }) =>
    cells.flatMap((cell) => {
      const ripple = readings.get(cell)?.ripple;
      return ripple ? [{ offsetMm: offsetOf(cell), visibility: ripple.amplitude, sigma: ripple.sigma }] : [];
    }),
  );
  const byPhoto = heightsOf(ripples);
  const places = stations.map(({ name, cells }, index): PlaceSeen => {
    const offsets = cells.map(offsetOf);
    const boxes = cells.map((cell) => layout.cells[cell]!.box);
    const first = boxes[0]!;
    const last = boxes.at(-1)!;
    const eye = heightByEye(seen, cells, offsets);
    const told = byPhoto?.at[index] ?? null;
    const photo = told && { value: told.heightMm, sigma: told.sigmaMm };
    const step = offsets[1]! - offsets[0]!;
    const byEye = eye !== null && (photo === null || Math.abs(eye.value - photo.value) > step);
    const tones = cells.flatMap((cell) => {
      const reading = readings.get(cell);
      return reading && reading.confidence >= LOW_CONFIDENCE
        ? [{ value: Math.abs(reading.deltaLightness), sigma: Math.hypot(STOCK_SIGMA_L, reading.lightnessSigma) }]
        : [];
    });
    return {
      name,
      cells,
      x: (first.x + last.x + last.width) / 2,
      y: first.y + first.height / 2,
      height: byEye ? eye : photo,
      by: byEye ? 'eye' : photo ? 'photo' : null,
      strength: tones.length === cells.length ? meanOf(tones) : null,
    };
  });
  const spans = (values: readonly number[]): number => Math.max(...values) - Math.min(...values);
  const none = {
    places,
    verdict: null,
    corners: [],
    middle: null,
    focusDepthMm: byPhoto?.depthMm ?? null,
    offPlaneMm: null,
    drifts: [],
    columns: new Set(places.map(({ x }) => x)).size,
    rows: new Set(places.map(({ y }) => y)).size,
    widthMm: spans(places.map(({ x }) => x)),
    depthMm: spans(places.map(({ y }) => y)),
    says: '',
  };
  const told = places.flatMap(({ x, y, height }) => (height ? [{ x, y, ...height }] : []));
  const plane = planeThrough(told, places);
  if (!plane) return { ...none, missing: [missingWords(places, seen)] };
  const isBent = plane.isBent && plane.offPlane > FLAT_SHARE * (byPhoto?.depthMm ?? 0);
  const verdict = isBent ? 'bent' : plane.risesAlongX || plane.risesAlongY ? 'tilted' : 'level';
  const corners = CORNERS.map(({ corner, at }) => ({ corner, ...withLaw(plane.offMiddle(...at)) }));
  const missed = mayRise(corners);
  const matters = byPhoto?.depthMm ?? Math.abs(offsetOf(stations[0]!.cells[0]!)) / RANGE_OVER_DEPTH;
  if (verdict === 'level' && missed > matters)
    return {
      ...none,
      missing: [
        `No tilt shows, but one that lifts a corner by ${length(missed, liked)} would not show either, and that is out of focus. Photograph more places, or from closer by.`,
      ],
    };
  const drifts = isBent ? [] : driftsOf(places, plane);
  const finding = {
    ...none,
    verdict,
    corners,
    middle: countedFrom(withLaw(plane.middle), layout.focusScatterMm ?? 0),
    offPlaneMm: plane.offPlane,
    drifts,
  } as const;
  const untold = places.filter(({ height }) => height === null).map(({ name }) => name);
  return {
    ...finding,
    missing: [],
    says: [
      heightWords(finding, liked),
      ...(plane.isBent && !isBent
        ? [`The sheet itself is not quite flat: places lie ${length(plane.offPlane, liked)} off that plane.`]
        : []),
      ...drifts.map((drift) => driftWords(drift)),
      ...(untold.length > 0 ? [`Not told: ${untold.join(', ')}.`] : []),
    ].join(' '),
  };
}

/** By how much the highest corner may stand over the middle, at 95 %. */
function mayRise(corners: readonly CornerHeight[]): number {
  return Math.max(...corners.map(({ value, sigma }) => value + 2 * sigma));
}

function missingWords(places: readonly PlaceSeen[], seen: Seen): string {
  const told = places.filter(({ height }) => height !== null).length;
  const unread = places.filter(
    ({ cells }) => !cells.some((cell) => seen.readings.some((one) => one.cellIndex === cell)),
  );
  const wanted = `Heights are told at ${told} of ${places.length} places, and ${LEAST_PLACES} that are not on one line are the least.`;
  return unread.length > 0
    ? `${wanted} Photograph ${unread.map(({ name }) => name).join(', ')}, one after another, or say which patch of each is sharpest.`
    : `${wanted} Say which patch of each place is sharpest, or burn them with lines further apart.`;
}

/** The mean of patches that need not be alike: those out of focus differ from the sharp one, everywhere alike. */
const meanOf = (tones: readonly Uncertain[]): Uncertain => ({
  value: tones.reduce((sum, { value }) => sum + value, 0) / tones.length,
  sigma: Math.sqrt(tones.reduce((sum, { sigma }) => sum + sigma ** 2, 0)) / tones.length,
});

/** Strength that rises along an axis on which heights do not. */
function driftsOf(places: readonly PlaceSeen[], heights: Plane): Drift[] {
  const told = places.flatMap(({ x, y, strength }) => (strength ? [{ x, y, ...strength }] : []));
  const tones = planeThrough(told, places);
  if (!tones || tones.isBent) return [];
  const along = (
    rises: boolean,
    across: Uncertain,
    [low, high]: readonly [Drift['toward'], Drift['toward']],
  ): Drift[] =>
    rises ? [{ toward: across.value > 0 ? high : low, strongerL: Math.abs(across.value), sigma: across.sigma }] : [];
  return [
    ...along(tones.risesAlongX && !heights.risesAlongX, tones.acrossX, ['left', 'right']),
    ...along(tones.risesAlongY && !heights.risesAlongY, tones.acrossY, ['rear', 'front']),
  ];
}

function heightWords(
  {
    verdict,
    corners,
    focusDepthMm,
    offPlaneMm,
  }: Pick<BedFinding, 'verdict' | 'corners' | 'focusDepthMm' | 'offPlaneMm'>,
  liked: LikedUnits,
): string {
  const high = corners.reduce((one, other) => (other.value > one.value ? other : one));
  const low = corners.reduce((one, other) => (other.value < one.value ? other : one));
  // Opposite corners: their heights about the middle are one number, and so is its doubt.
  const apart = { value: high.value - low.value, sigma: 2 * high.sigma };
  if (verdict === 'bent')
    return `Heights make no plane: places lie ${length(offPlaneMm!, liked)} off it. The sheet is warped or not held flat, or something lies under it. Hold it down and burn again before you touch the bed.`;
  const most = length(apart.value + 2 * apart.sigma, liked);
  if (verdict === 'level') return `Level: from corner to corner it is no more than ${most}.`;
  const within = focusDepthMm !== null && mayRise(corners) < focusDepthMm;
  return `Tilted: at the ${high.corner} the sheet stands ${length(apart.value, liked)} ${plusMinus(apart, liked)} higher than at the ${low.corner}. ${
    within
      ? `That stays within the depth of focus, ${length(focusDepthMm, liked)} to either side: engraving need not care.`
      : `That leaves the depth of focus${focusDepthMm === null ? '' : `, ${length(focusDepthMm, liked)} to either side`}: lower the ${high.corner} and raise the ${low.corner} by half of it each.`
  }`;
}

function driftWords({ toward, strongerL, sigma }: Drift): string {
  return `Marks get stronger towards the ${toward} by ${plainNumber(strongerL, 2)} L* ± ${plainNumber(2 * sigma, 2)}, and height does not tell why: the beam is weaker on the other side, as one that is not centred on its mirrors.`;
}
