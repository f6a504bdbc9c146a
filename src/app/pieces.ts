import { factOf, type FactNow } from '../core/book/facts';
import { worthOf, worthWords, type Cost, type Pieces } from '../core/book/worth';
import { squareFillTimeS } from '../core/card/fill-time';
import type { Machine } from '../core/machine/machine';
import { setPieces } from '../db/pairings';
import type { AppContext } from './context';
import { getPairing } from './pairings';

/** What a piece costs: the stock under what is engraved, and the time of a square as large with the setting kept last; no time before there is one. */
function pieceCost({ widthMm, heightMm }: Pieces, machine: Machine, facts: readonly FactNow[]): Cost {
  const areaMm2 = widthMm * heightMm;
  const engrave = factOf(facts, 'engrave');
  return { areaMm2, seconds: engrave ? squareFillTimeS(engrave.value.settings, machine, Math.sqrt(areaMm2)) : 0 };
}

/** Whether a test is worth what it costs before these pieces, in words; empty where nothing is burned, or nobody said how many there will be. */
export function worthOfTest(
  test: Cost | undefined,
  pieces: Pieces | null,
  machine: Machine,
  facts: readonly FactNow[],
): string {
  if (!test || !pieces) return '';
  return worthWords(worthOf(test, pieceCost(pieces, machine, facts), pieces.count), pieces.count);
}

/** Says how many pieces a pairing's stock is for, and how large they are; null where that is not known any more. */
export async function sayPieces(ctx: AppContext, pairingId: number, pieces: Pieces | null): Promise<Pieces | null> {
  await getPairing(ctx, pairingId);
  await setPieces(ctx.db, pairingId, pieces);
  return pieces;
}
