import { factOf } from '../../core/book/facts';
import type { Known } from '../../core/card/contract';

/** A beam burns about so much wider than its spot (from memory, without a source). */
const KERF_PER_SPOT = 1.3;

/** What a cut takes of a slot, which is drawn narrower by it, and where that comes from. */
export function kerfForSlots({ pairing, facts }: Known): { readonly mm: number; readonly origin: string } {
  const fact = factOf(facts, 'kerf');
  const mm = fact?.value.xMm ?? fact?.value.yMm ?? null;
  if (fact && mm !== null) {
    const origin =
      fact.stale.length === 0 ? 'the kerf that was kept' : `a kerf that is stale: ${fact.stale.join(', ')}`;
    return { mm: Math.max(0, Math.round(mm * 1000) / 1000), origin };
  }
  const guessed = Math.round(pairing.lens.spotXMm * KERF_PER_SPOT * 100) / 100;
  return { mm: guessed, origin: 'about what this lens’ spot burns: nobody measured the kerf yet' };
}
