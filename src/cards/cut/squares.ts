import type { CutEdge } from '../../core/book/fact-values';
import { wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Layout } from '../../core/card/layout';
import { DROP, EDGE, HOLES } from '../../core/card/usual-asks';
import { holeOf } from '../../core/reading/backlit/holes';
import { thicknessOf } from '../../core/stock/stock';

export const CUT_ASKS: readonly Ask[] = [HOLES, DROP, EDGE];

/** One square, and what became of it. */
export interface TappedSquare {
  readonly cellIndex: number;
  /** J/mm of all passes for each mm of thickness. */
  readonly energy: number;
  readonly passes: number;
  /** Null where that tells nothing: it flared up, or the source did not fire at all. */
  readonly drops: boolean | null;
  readonly word: string;
  /** Whether that is told by a photo on a light table alone. */
  readonly byPhoto: boolean;
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

/** What a light table shows of a square, in the words of a tap: a photo knows no more than whether it has dropped. */
function wordOfHole({ through = [] }: Seen, index: number): string | null {
  const cell = through.find(({ cellIndex }) => cellIndex === index);
  const hole = cell && holeOf(cell);
  return hole === 'open' ? 'clean' : hole === 'shut' ? 'not-through' : null;
}

/**
 * The squares of which somebody said what happened, or else a photo on a light table tells; whether one that a knife frees counts as dropped is the
 * wish's affair.
 */
export function tappedSquares(layout: Layout, seen: Seen, pairing: Pairing, knife: boolean): TappedSquare[] {
  const thickness = thicknessOf(pairing.stock).meanMm;
  return layout.order.flatMap((cellIndex): TappedSquare[] => {
    const said = wordOf(seen, DROP.field, cellIndex);
    const word = said ?? wordOfHole(seen, cellIndex);
    if (word === null) return [];
    const { settings } = mainBurn(layout.cells[cellIndex]!);
    const energy = deliveredBy(settings, pairing).lineJPerMm / thickness;
    const told = word === 'knife' ? knife : (DROPS[word] ?? null);
    const drops = energy > 0 ? told : null;
    const edge = edgeOf(seen, cellIndex);
    return [{ cellIndex, energy, passes: settings.passes, drops, word, byPhoto: said === null, edge }];
  });
}
