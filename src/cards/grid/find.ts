import { wordOf, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known, Pairing } from '../../core/card/contract';
import { squareFillTimeS } from '../../core/card/fill-time';
import { mainBurn, type Cell, type Layout } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import { gradeOf, isSpoiled, OUTCOME } from '../../core/card/usual-asks';
import type { Exchange } from '../../core/fit/darkness-surface';
import { expectedMarkOf, familyOf } from '../../core/stock/families';
import type { GridChannel } from './axes';
import { fallenOf, fallenWords, type Fallen } from './fallen';
import { likedBest, type LikedBest } from '../../core/card/liked';
import { proposeLiked, type GridProposal } from './liked';
import { settingWords } from './setting-words';
import { bestPlace, counts, settingsAt, surfaceOfGrid, type Foretold, type GridSurface } from './surface';
import { markDirection, type MarkDirection } from '../../core/reading/mark-direction';
import type { CellReading } from '../../core/reading/observations';
import { clearedCells } from '../../core/reading/backlit/cleared';
import { formatAgainstBare, formatDuration, formatPower, plainNumber } from '../../core/quantities/format';

export type Pace = 'fast-and-strong' | 'slow-and-low';
export type DarknessStop = 'weak' | 'medium' | 'strong';

/** What the operator wants of the grid. Lightness is wanted L*; null leaves the choice to the medium stop. */
export interface GridWish {
  readonly lightness: number | null;
  readonly powerCap: number;
  readonly pace: Pace;
  /** Whether only cells whose coat is off are wanted, as a light table shows it, whatever their tone; left out where that is not asked. */
  readonly cleared?: boolean;
  /** The most that tone may vary within a cell, L* (one standard deviation); null or left out where it may. */
  readonly unevenness?: number | null;
  /** Whether cells are out that the operator said residue stays on. */
  readonly clean?: boolean;
}

/** What the surface through all cells says, which no cell needs to have been burned for. */
export interface SurfaceFound {
  /** L*, root mean square, by which cells are missed when foretold by the others. */
  readonly offL: number;
  /** L* by which patches of the same settings differ. */
  readonly scatter: number;
  readonly trusted: boolean;
  readonly across: GridChannel;
  readonly down: GridChannel;
  /** What halving the setting down is worth of the one across at the wanted tone. */
  readonly exchange: Exchange | null;
  /** The place that meets the wish best. */
  readonly foretold: (Foretold & { readonly timeS: number }) | null;
}

/** A cell that can be picked, with what it shows and costs. */
export interface Candidate {
  readonly cellIndex: number;
  readonly lightness: number;
  readonly lightnessSigma: number;
  readonly confidence: number;
  /** Seconds for a square of 100 mm at this cell's settings. */
  readonly timeS: number;
  readonly powerFraction: number;
  /** Whether a light table shows that its coat is off; null where that is open or was not looked at. */
  readonly cleared: boolean | null;
  readonly meets: boolean;
}

export interface GridFinding extends BaseFinding {
  readonly wantedLightness: number | null;
  /** L* to aim at for each stop: of the cell nearest to that share of the way from bare stock to the strongest sound cell. */
  readonly stops: Readonly<Record<DarknessStop, number>> | null;
  readonly range: { readonly bare: number; readonly strongest: number } | null;
  readonly candidates: readonly Candidate[];
  /** Indexes of the cells that no other cell beats in both contrast and time, from the least contrast. */
  readonly frontier: readonly number[];
  readonly proposal: GridProposal | null;
  /** Null where nothing was compared. */
  readonly liked: LikedBest | null;
  /** Null where too little was read for one. */
  readonly surface: SurfaceFound | null;
  /** The mildest cell that burned through; null where none did. */
  readonly fallen: Fallen | null;
  /** Something about what the photo shows that the operator should know; null when it is as expected. */
  readonly remark: string | null;
}

const NOTHING_READ = 'No photo of this card has been read yet, and no cell was graded 4 or 5 by eye.';
const ONLY_BACKLIT =
  'Only a photo on a light table was read, and no cell was graded 4 or 5 by eye. Take one by a lamp or a window too: it shows what marked at all.';

/** What the operator says of a cell that residue stays on. */
const RESIDUE = 'residue';
const outcomeOf = (seen: Seen, cellIndex: number): string | null => wordOf(seen, OUTCOME.field, cellIndex);

const REFERENCE_SQUARE_MM = 100;
const STOP_SHARES: Readonly<Record<DarknessStop, number>> = { weak: 0.3, medium: 0.6, strong: 0.9 };
/** A cell meets a wish when it is within this many L*, or within two of its own sigmas if that is more. */
const TOLERANCE = 3;

interface Sound {
  readonly cell: Cell;
  readonly settings: BurnSettings;
  readonly reading: CellReading;
}

function soundReadings(layout: Layout, seen: Seen): Sound[] {
  return seen.readings.flatMap((reading) => {
    const cell = layout.cells[reading.cellIndex];
    if (!cell || cell.leftOut || isSpoiled(seen, cell.index)) return [];
    return [{ cell, settings: mainBurn(cell).settings, reading }];
  });
}

/** The value nearest to a wanted one; the wanted one itself where there is none. */
const nearest = (values: readonly number[], wanted: number): number =>
  values.reduce(
    (best, value) => (Math.abs(value - wanted) < Math.abs(best - wanted) ? value : best),
    values[0] ?? wanted,
  );

/** Without a photo the operator's own grades speak: the best graded cell, the fastest of equals. */
function findByEye(layout: Layout, seen: Seen, pairing: Pairing, wish: GridWish): GridProposal | null {
  const graded = layout.cells
    .filter((cell) => !cell.leftOut && !isSpoiled(seen, cell.index))
    .map((cell) => ({ cell, grade: gradeOf(seen, cell.index) ?? 0, settings: mainBurn(cell).settings }))
    .filter(({ grade, settings }) => grade >= 4 && settings.powerFraction <= wish.powerCap + 1e-9);
  const time = (settings: BurnSettings): number => squareFillTimeS(settings, pairing.machine, REFERENCE_SQUARE_MM);
  const fast = wish.pace === 'fast-and-strong';
  const [best] = graded.sort(
    (a, b) =>
      b.grade - a.grade ||
      (fast ? time(a.settings) - time(b.settings) : a.settings.powerFraction - b.settings.powerFraction),
  );
  if (!best) return null;
  const words = settingWords(best.cell, pairing.machine.likedUnits);
  return { cellIndex: best.cell.index, reason: `${words}: graded ${best.grade} by eye, no photo was read.` };
}

/**
 * What a read grid says for a wish: the cells that meet the wanted lightness within the power cap, the frontier of contrast
 * against time, and one proposal with its reason. Cells the operator called spoiled are out; low-confidence cells are shown
 * but proposed only when the operator graded them 4 or 5. Without a photo the grades alone speak. Never throws on poor data: `missing` says what is needed.
 * `through` is the surface through its cells where it was worked out before.
 */
export function findInGrid(
  layout: Layout,
  seen: Seen,
  { pairing }: Known,
  wish: GridWish,
  through = surfaceOfGrid(layout, seen, pairing.stock.bareLightness),
): GridFinding {
  const liked = likedBest(layout, seen);
  const none = {
    liked,
    fallen: fallenOf(layout, seen, pairing),
    wantedLightness: null,
    stops: null,
    range: null,
    candidates: [],
    frontier: [],
    surface: null,
    remark: null,
  } as const;
  if (seen.readings.length === 0) {
    const graded = findByEye(layout, seen, pairing, wish);
    const proposal = proposeLiked(liked, layout, wish, graded, pairing) ?? graded;
    return {
      ...none,
      proposal,
      missing: proposal ? [] : [seen.through ? ONLY_BACKLIT : NOTHING_READ],
      says: proposal?.reason ?? '',
    };
  }
  const sound = soundReadings(layout, seen);
  if (sound.length === 0)
    return {
      ...none,
      proposal: null,
      missing: ['Every cell was called spoiled. Burn a card with less energy.'],
      says: '',
    };

  const bare = pairing.stock.bareLightness;
  const direction = markDirection(sound.map(({ reading }) => reading));
  if (direction === null) {
    const graded = findByEye(layout, seen, pairing, wish);
    const proposal = proposeLiked(liked, layout, wish, graded, pairing) ?? graded;
    return {
      ...none,
      proposal,
      missing: proposal
        ? []
        : [
            'Nothing marked: no cell stands off the bare stock by more than its own noise. Burn a card with more energy.',
          ],
      says: proposal?.reason ?? '',
    };
  }
  const darkens = direction === 'darker';
  const contrast = (lightness: number): number => (darkens ? bare - lightness : lightness - bare);
  const strongest = sound.reduce(
    (best, { reading }) => (contrast(reading.lightness) > contrast(best) ? reading.lightness : best),
    bare,
  );
  // What a stop aims at is a tone that the card has: on a card of few cells none may lie at the very share.
  const isTrusted = ({ reading }: Sound): boolean => counts(seen, reading);
  const trustedTones = sound.filter(isTrusted).map(({ reading }) => reading.lightness);
  const at = (share: number): number => nearest(trustedTones, bare + (strongest - bare) * share);
  const stops = { weak: at(STOP_SHARES.weak), medium: at(STOP_SHARES.medium), strong: at(STOP_SHARES.strong) };
  const wanted = wish.lightness ?? stops.medium;

  const clear = clearedCells(seen.through ?? []);
  const candidates = sound.map((one): Candidate => {
    const { cell, settings, reading } = one;
    const near = Math.abs(reading.lightness - wanted) <= Math.max(TOLERANCE, 2 * reading.lightnessSigma);
    const cleared = clear.get(cell.index) ?? null;
    return {
      cellIndex: cell.index,
      lightness: reading.lightness,
      lightnessSigma: reading.lightnessSigma,
      confidence: reading.confidence,
      timeS: squareFillTimeS(settings, pairing.machine, REFERENCE_SQUARE_MM),
      powerFraction: settings.powerFraction,
      cleared,
      meets:
        (wish.cleared ? cleared === true : near && isTrusted(one)) &&
        settings.powerFraction <= wish.powerCap + 1e-9 &&
        reading.spread <= (wish.unevenness ?? Infinity) &&
        !(wish.clean && outcomeOf(seen, cell.index) === RESIDUE),
    };
  });

  const byTone = propose(candidates, layout, wanted, wish, pairing);
  const proposal = proposeLiked(liked, layout, wish, byTone, pairing) ?? byTone;
  return {
    missing: [],
    says: proposal?.reason ?? noneMeets(wish, seen),
    wantedLightness: wanted,
    stops,
    range: { bare, strongest },
    fallen: none.fallen,
    candidates,
    frontier: frontierOf(candidates, contrast),
    liked,
    proposal,
    surface: through && surfaceFound(through, { ...wish, lightness: wanted }, pairing),
    remark: remarkOn(direction, pairing, seen, layout),
  };
}

/** What the surface says for a wish. */
function surfaceFound(
  surface: GridSurface,
  wish: GridWish & { readonly lightness: number },
  pairing: Pairing,
): SurfaceFound {
  const { fit, across, down, bare, darkens } = surface;
  const place = wish.cleared ? null : bestPlace(surface, wish, pairing);
  return {
    offL: fit.offL,
    scatter: fit.scatter,
    trusted: fit.trusted,
    across: across.channel,
    down: down.channel,
    exchange: fit.trusted ? fit.exchangeAt(darkens ? bare - wish.lightness : wish.lightness - bare) : null,
    foretold: place && {
      ...place,
      timeS: squareFillTimeS(settingsAt(surface, place), pairing.machine, REFERENCE_SQUARE_MM),
    },
  };
}

/** What does not go with the stock's record, or what a photo cannot tell. */
function remarkOn(direction: MarkDirection, pairing: Pairing, seen: Seen, layout: Layout): string | null {
  const { stock } = pairing;
  const least = fallenOf(layout, seen, pairing);
  const fallen = least && fallenWords(least);
  if (fallen) return fallen;
  if (expectedMarkOf(stock) !== direction)
    return `The marks are ${direction} than the bare stock, where ${stock.type || stock.name} is expected to turn ${expectedMarkOf(stock)}. Is it what its record says? The card goes by what the photo shows.`;
  if (familyOf(stock.family).judgedBy === 'depth')
    return `${familyOf(stock.family).name} is judged by its depth, which no photo shows: measure the cell before you keep it.`;
  if (familyOf(stock.family).coatOnClear && !seen.through)
    return 'Tone does not tell whether the coat is off: what looks bare may hold back half of the light. A photo of the card on a light table tells.';
  return null;
}

/** Why nothing is proposed. */
function noneMeets({ cleared }: GridWish, { through }: Seen): string {
  if (!cleared) return 'No cell meets this wish.';
  if (!through) return 'No photo on a light table was read yet: it tells which cells the coat is off.';
  const clearest = Math.max(...through.map((cell) => cell.through));
  return `The coat is off no cell for sure under this cap: the clearest lets ${plainNumber(100 * clearest, 2)} % of the light through. Burn a card with more energy.`;
}

function frontierOf(candidates: readonly Candidate[], contrast: (lightness: number) => number): number[] {
  const strongestFirst = [...candidates].sort(
    (a, b) => contrast(b.lightness) - contrast(a.lightness) || a.timeS - b.timeS,
  );
  let best = Infinity;
  const kept: number[] = [];
  for (const candidate of strongestFirst) {
    if (candidate.timeS < best) {
      best = candidate.timeS;
      kept.push(candidate.cellIndex);
    }
  }
  return kept.reverse();
}

function propose(
  candidates: readonly Candidate[],
  layout: Layout,
  wanted: number,
  wish: GridWish,
  pairing: Pairing,
): GridProposal | null {
  const { machine } = pairing;
  const meeting = candidates.filter((candidate) => candidate.meets);
  const fast = wish.pace === 'fast-and-strong';
  const byPace = (a: Candidate, b: Candidate): number =>
    fast
      ? a.timeS - b.timeS || Math.abs(a.lightness - wanted) - Math.abs(b.lightness - wanted)
      : a.powerFraction - b.powerFraction || Math.abs(a.lightness - wanted) - Math.abs(b.lightness - wanted);
  const chosen = [...meeting].sort(byPace)[0];
  if (!chosen) return null;
  const cell = layout.cells[chosen.cellIndex]!;
  const of =
    meeting.length === 1
      ? 'the only cell'
      : fast
        ? `the fastest of ${meeting.length} cells`
        : `the lowest power of ${meeting.length} cells`;
  const reach = wish.cleared
    ? 'whose coat is off, within'
    : `within reach of ${formatAgainstBare(wanted, pairing.stock.bareLightness)} and`;
  return {
    cellIndex: chosen.cellIndex,
    reason: `${settingWords(cell, machine.likedUnits)} is ${of} ${reach} the ${formatPower(wish.powerCap)} cap; 10 × 10 cm takes ${formatDuration(chosen.timeS)}.`,
  };
}
