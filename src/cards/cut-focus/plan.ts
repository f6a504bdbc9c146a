import type { BasePlan } from '../../core/card/contract';
import { LOWEST_MM } from '../../core/card/propose-cut';
import type { BurnSettings } from '../../core/card/settings';

export const CUT_FOCUS_VERSION = 1;
export const MOST_REPEATS = 6;

/** Where the sharp point stands in a cut: on the face, in the middle of the sheet, or lower with each pass. */
export const FOCUS_WAYS = ['top', 'middle', 'stepped'] as const;
export type FocusWay = (typeof FOCUS_WAYS)[number];

/** Squares cut with one energy, the focus on the face, in the middle, and stepped down pass by pass. */
export interface CutFocusPlan extends BasePlan {
  /** Whether the stepped way is tried: only machines that focus by themselves can. */
  readonly steps: boolean;
  readonly repeats: number;
  readonly sizeMm: number;
  readonly gapMm: number;
  readonly thicknessMm: number;
  /** What every square is cut with; its focus is each way’s own. */
  readonly cut: BurnSettings;
}

export function upgradeCutFocusPlan(stored: object): CutFocusPlan {
  const { version } = stored as { version?: number };
  if (version === CUT_FOCUS_VERSION) return stored as CutFocusPlan;
  throw new RangeError(`unknown cut focus plan version: ${version}`);
}

export const waysOf = ({ steps }: Pick<CutFocusPlan, 'steps'>): readonly FocusWay[] =>
  steps ? FOCUS_WAYS : FOCUS_WAYS.slice(0, 2);

/** Below the face, to a twentieth of a millimetre, and never so low that a head comes near the work. */
const lowered = (mm: number): number => -Math.min(LOWEST_MM, Math.round(mm * 20) / 20) + 0;

/** The burns of a way, one after another: all passes at one focus, or each pass in the middle of what it takes of the sheet. */
export function burnsOf(
  { cut, thicknessMm }: Pick<CutFocusPlan, 'cut' | 'thicknessMm'>,
  way: FocusWay,
): BurnSettings[] {
  if (way === 'top') return [{ ...cut, focusOffsetMm: 0 }];
  if (way === 'middle') return [{ ...cut, focusOffsetMm: lowered(thicknessMm / 2) }];
  return Array.from({ length: cut.passes }, (_, pass) => ({
    ...cut,
    passes: 1,
    focusOffsetMm: lowered((thicknessMm * (pass + 0.5)) / cut.passes),
  }));
}
