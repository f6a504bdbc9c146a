import type { Observations, Pairing, Verdict } from '../../core/card/contract';
import type { Cell, Layout } from '../../core/card/layout';
import { LOW_CONFIDENCE, type CellReading } from '../../core/reading/observations';
import { formatDuration, formatPower, formatSpeed } from '../../core/quantities/format';
import { sweepLimits } from '../../core/machine/machine';
import { fillLineTimeS } from '../../core/motion/move';
import { familyOf } from '../../core/stock/families';

export type Pace = 'fast-and-strong' | 'slow-and-low';
export type DarknessStop = 'light' | 'medium' | 'deep';

/** What the operator wants of the grid. Lightness is wanted L*; null leaves the choice to the medium stop. */
export interface GridWish {
  readonly lightness: number | null;
  readonly powerCap: number;
  readonly pace: Pace;
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
  readonly meets: boolean;
}

export interface GridFinding {
  readonly kind: 'grid';
  /** What is missing for an answer; empty when there is one. */
  readonly missing: readonly string[];
  readonly wantedLightness: number | null;
  /** L* to aim at for each stop, from bare stock to the strongest sound cell. */
  readonly stops: Readonly<Record<DarknessStop, number>> | null;
  readonly range: { readonly bare: number; readonly strongest: number } | null;
  readonly candidates: readonly Candidate[];
  /** Indexes of the cells that no other cell beats in both contrast and time, from the least contrast. */
  readonly frontier: readonly number[];
  readonly proposal: { readonly cellIndex: number; readonly reason: string } | null;
}

const REFERENCE_SQUARE_MM = 100;
const STOP_SHARES: Readonly<Record<DarknessStop, number>> = { light: 0.3, medium: 0.6, deep: 0.9 };
/** A cell meets a wish when it is within this many L*, or within two of its own sigmas if that is more. */
const TOLERANCE = 3;

const SPOILED: ReadonlySet<string> = new Set(['charred', 'burned-through', 'flare-up', 'no-mark']);

function timeFor100MmSquareS(cell: Cell, pairing: Pairing): number {
  const { intervalMm, passes, speedMmPerS, direction, bothWays } = cell.settings;
  const { accelerationMmPerS2, topSpeedMmPerS } = sweepLimits(pairing.machine, direction);
  const line = fillLineTimeS(REFERENCE_SQUARE_MM, speedMmPerS, accelerationMmPerS2);
  const back = bothWays ? 0 : fillLineTimeS(REFERENCE_SQUARE_MM, topSpeedMmPerS, accelerationMmPerS2);
  return (REFERENCE_SQUARE_MM / intervalMm) * passes * (line + back);
}

function soundReadings(
  layout: Layout,
  seen: Observations,
): { cell: Cell; reading: CellReading; verdict: Verdict | undefined }[] {
  const verdicts = new Map(seen.verdicts.map((verdict) => [verdict.cellIndex, verdict]));
  return seen.cells.flatMap((reading) => {
    const cell = layout.cells[reading.cellIndex];
    const verdict = verdicts.get(reading.cellIndex);
    if (!cell || cell.leftOut || SPOILED.has(verdict?.outcome ?? '')) return [];
    return [{ cell, reading, verdict }];
  });
}

/**
 * What a read grid says for a wish: the cells that meet the wanted lightness within the power cap, the frontier of contrast
 * against time, and one proposal with its reason. Cells the operator called spoiled are out; low-confidence cells are shown
 * but proposed only when the operator graded them 4 or 5. Never throws on poor data: `missing` says what is needed.
 */
export function findInGrid(layout: Layout, seen: Observations, pairing: Pairing, wish: GridWish): GridFinding {
  const none = {
    kind: 'grid',
    wantedLightness: null,
    stops: null,
    range: null,
    candidates: [],
    frontier: [],
    proposal: null,
  } as const;
  if (seen.cells.length === 0) return { ...none, missing: ['No photo of this card has been read yet.'] };
  const sound = soundReadings(layout, seen);
  if (sound.length === 0) return { ...none, missing: ['Every cell was called spoiled. Burn a card with less energy.'] };

  const bare = pairing.stock.bareLightness;
  const darkens = familyOf(pairing.stock.family).mark === 'darkens';
  const contrast = (lightness: number): number => (darkens ? bare - lightness : lightness - bare);
  const strongest = sound.reduce(
    (best, { reading }) => (contrast(reading.lightness) > contrast(best) ? reading.lightness : best),
    bare,
  );
  const at = (share: number): number => bare + (strongest - bare) * share;
  const stops = { light: at(STOP_SHARES.light), medium: at(STOP_SHARES.medium), deep: at(STOP_SHARES.deep) };
  const wanted = wish.lightness ?? stops.medium;

  const candidates = sound.map(({ cell, reading, verdict }): Candidate => {
    const near = Math.abs(reading.lightness - wanted) <= Math.max(TOLERANCE, 2 * reading.lightnessSigma);
    const trusted = reading.confidence >= LOW_CONFIDENCE || (verdict?.grade ?? 0) >= 4;
    return {
      cellIndex: cell.index,
      lightness: reading.lightness,
      lightnessSigma: reading.lightnessSigma,
      confidence: reading.confidence,
      timeS: timeFor100MmSquareS(cell, pairing),
      powerFraction: cell.settings.powerFraction,
      meets: near && trusted && cell.settings.powerFraction <= wish.powerCap + 1e-9,
    };
  });

  return {
    kind: 'grid',
    missing: [],
    wantedLightness: wanted,
    stops,
    range: { bare, strongest },
    candidates,
    frontier: frontierOf(candidates, contrast),
    proposal: propose(candidates, layout, wanted, wish),
  };
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
): GridFinding['proposal'] {
  const meeting = candidates.filter((candidate) => candidate.meets);
  const fast = wish.pace === 'fast-and-strong';
  const byPace = (a: Candidate, b: Candidate): number =>
    fast
      ? a.timeS - b.timeS || Math.abs(a.lightness - wanted) - Math.abs(b.lightness - wanted)
      : a.powerFraction - b.powerFraction || Math.abs(a.lightness - wanted) - Math.abs(b.lightness - wanted);
  const chosen = [...meeting].sort(byPace)[0];
  if (!chosen) return null;
  const { powerFraction, speedMmPerS } = layout.cells[chosen.cellIndex]!.settings;
  const of =
    meeting.length === 1
      ? 'the only cell'
      : fast
        ? `the fastest of ${meeting.length} cells`
        : `the lowest power of ${meeting.length} cells`;
  return {
    cellIndex: chosen.cellIndex,
    reason: `${formatPower(powerFraction)} at ${formatSpeed(speedMmPerS)} is ${of} within reach of L* ${wanted.toFixed(0)} and the ${formatPower(wish.powerCap)} cap; 10 × 10 cm takes ${formatDuration(chosen.timeS)}.`,
  };
}
