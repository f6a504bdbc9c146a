import type { CutEdge } from '../../core/book/fact-values';
import { wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Layout } from '../../core/card/layout';
import { DROP, EDGE } from '../../core/card/usual-asks';
import { thicknessOf } from '../../core/stock/stock';

export const CUT_ASKS: readonly Ask[] = [DROP, EDGE];

/** One square, and what became of it. */
export interface TappedSquare {
  readonly cellIndex: number;
  /** J/mm of all passes for each mm of thickness. */
  readonly energy: number;
  readonly passes: number;
  /** Null where that tells nothing: it flared up, or the source did not fire at all. */
  readonly drops: boolean | null;
  readonly word: string;
  readonly edge: CutEdge | null;
}

const DROPS: Readonly<Record<string, boolean | null>> = {
  clean: true,
  charred: true,
  tip: true,
  hangs: false,
  'not-through': false,
  flare: null,
};

const edgeOf = (seen: Seen, index: number): CutEdge | null => wordOf(seen, EDGE.field, index) as CutEdge | null;

/** The squares of which somebody said what happened; whether one that a knife frees counts as dropped is the wish's affair. */
export function tappedSquares(layout: Layout, seen: Seen, pairing: Pairing, knife: boolean): TappedSquare[] {
  const thickness = thicknessOf(pairing.stock).meanMm;
  return layout.order.flatMap((cellIndex): TappedSquare[] => {
    const word = wordOf(seen, DROP.field, cellIndex);
    if (word === null) return [];
    const { settings } = mainBurn(layout.cells[cellIndex]!);
    const energy = deliveredBy(settings, pairing).lineJPerMm / thickness;
    const told = word === 'knife' ? knife : (DROPS[word] ?? null);
    const drops = energy > 0 ? told : null;
    return [{ cellIndex, energy, passes: settings.passes, drops, word, edge: edgeOf(seen, cellIndex) }];
  });
}
