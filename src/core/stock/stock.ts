import type { Outline } from './outline';
import { meanAndSpread } from '../stats/robust';

export interface Stock {
  readonly name: string;
  /** A family id, or the id of a banned material: both can stand in the stock room, only one can be burned. */
  readonly family: string;
  readonly type: string;
  readonly colour: string;
  /** L* of the bare face, measured or the family's default. */
  readonly bareLightness: number;
  readonly coating: string;
  readonly coatingSide: 'none' | 'top' | 'bottom' | 'both';
  readonly adhesiveBacking: boolean;
  readonly grain: 'none' | 'along-width' | 'along-depth';
  readonly nominalThicknessMm: number;
  readonly thicknessReadingsMm: readonly number[];
  readonly batch: string;
  /** Of the sheet, or of one blank. */
  readonly sheetWidthMm: number;
  readonly sheetDepthMm: number;
  readonly outline: Outline;
  /** Counted pieces of that size instead of sheets; null for sheets. */
  readonly blanks: { readonly count: number } | null;
}

export interface Thickness {
  readonly meanMm: number;
  readonly spreadMm: number | null;
  readonly readings: number;
  readonly origin: 'measured' | 'label';
}

/** The thickness to work with: mean and spread of the readings, or the label's number, said to be such, when there are none. */
export function thicknessOf(stock: Pick<Stock, 'nominalThicknessMm' | 'thicknessReadingsMm'>): Thickness {
  if (stock.thicknessReadingsMm.length === 0) {
    return { meanMm: stock.nominalThicknessMm, spreadMm: null, readings: 0, origin: 'label' };
  }
  const { count, mean, spread } = meanAndSpread(stock.thicknessReadingsMm);
  return { meanMm: mean, spreadMm: Number.isNaN(spread) ? null : spread, readings: count, origin: 'measured' };
}
