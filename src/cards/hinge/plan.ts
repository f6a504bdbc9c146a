import type { Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import type { CutLattice } from '../../core/hinge/bend';
import { axisValues } from '../../core/card/axis';
import type { Pattern } from '../../core/hinge/lattice';

export const HINGE_VERSION = 2;
export const MOST_SAMPLES = 6;

/** Strips with a field of slits each, at several pitches, to be bent round smaller and smaller things. */
export interface HingePlan extends BasePlan {
  /** One of the patterns, or either, to be compared on one card. */
  readonly pattern: Pattern | 'both';
  /** From row to row; of crossed slits alone, what stands between their ends. */
  readonly pitch: Axis;
  readonly slitMm: number;
  /** Of the crossed ones on a card of both: what stands between their ends, and how long they are. */
  readonly crossed: { readonly between: Axis; readonly slitMm: number };
  readonly bridgeMm: number;
  /** Of a strip, along its slits. */
  readonly widthMm: number;
  /** Of its field, along the bend. */
  readonly fieldMm: number;
  /** Of the sheet beyond the field at either end, to hold it by. */
  readonly holdMm: number;
  readonly gapMm: number;
  readonly thicknessMm: number;
  readonly kerfMm: number;
  readonly cut: BurnSettings;
}

/** What crossed slits begin with (common practice). */
export const USUAL_CROSSED: HingePlan['crossed'] = {
  between: { from: 1.3, to: 2.2, count: 3, spacing: 'ratio' },
  slitMm: 10,
};

export function upgradeHingePlan(stored: object): HingePlan {
  const { version } = stored as { version?: number };
  if (version === HINGE_VERSION) return stored as HingePlan;
  // Before both could lie on one card.
  if (version === 1) return { ...(stored as HingePlan), version: HINGE_VERSION, crossed: USUAL_CROSSED };
  throw new RangeError(`unknown hinge plan version: ${version}`);
}

/** A strip of a plan: its lattice, and the level of the axis that it stands for. */
export interface PlannedStrip {
  readonly level: number;
  readonly lattice: CutLattice;
}

/** Every strip of a plan from the left: rows at their pitches, then crossed slits. */
export function stripsOf(plan: HingePlan): PlannedStrip[] {
  const { pattern, pitch, slitMm, bridgeMm, crossed, thicknessMm, kerfMm } = plan;
  const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;
  const of = (one: Pattern, axis: Axis, slit: number): PlannedStrip[] =>
    axisValues(axis).map((value) => {
      const level = round(value);
      const between = one === 'rows' ? bridgeMm : level;
      return {
        level,
        lattice: { pattern: one, pitchMm: level, slitMm: slit, bridgeMm: between, thicknessMm, kerfMm },
      };
    });
  if (pattern === 'both') return [...of('rows', pitch, slitMm), ...of('crossed', crossed.between, crossed.slitMm)];
  return of(pattern, pitch, slitMm);
}
