import type { ReactNode } from 'react';
import { formatLength, type LikedUnits } from '../../core/quantities/format';
import type { quantityKinds } from '../../components/quantity-kinds';
import type { KeptFits, KeptJoints } from '../../views/views';
import type { Sums } from './address';

/** What every part of the page is given. */
export interface SumsPartProps {
  readonly sums: Sums;
  readonly onSet: (change: Partial<Sums>) => void;
  /** A field for one of the sums that is a length. */
  readonly length: (label: string, name: keyof Sums, hint?: string) => ReactNode;
  readonly kinds: ReturnType<typeof quantityKinds>;
  readonly liked: LikedUnits;
  readonly fits: KeptFits;
  readonly joints: KeptJoints;
}

/** A drawn length, to a tenth of a micrometre: what is typed into a drawing. */
export const drawnWords = (mm: number, liked: LikedUnits): string => formatLength(Math.round(mm * 1e4) / 1e4, liked, 5);

/** " ± 0.02 mm", for 95 %; nothing where nobody knows. */
export const plusMinus = (sigmaMm: number | null, liked: LikedUnits): string =>
  sigmaMm === null ? '' : ` ± ${formatLength(2 * sigmaMm, liked, 2)}`;

/** Why something that was kept may hold no longer. */
export const staleWords = (stale: readonly string[]): string =>
  stale.length === 0 ? '' : ` (stale: ${stale.join(', ')})`;

/** What a sum says, or why there is none. */
export function told<Told>(sum: () => Told): { readonly told: Told | null; readonly why: string } {
  try {
    return { told: sum(), why: '' };
  } catch (error) {
    if (error instanceof RangeError) return { told: null, why: error.message };
    throw error;
  }
}
