import { cardKind, CARD_KIND_NAMES } from '../cards/registry';
import { checkOldCard } from '../core/card/adopt';
import type { OldCard } from '../core/card/old-card';
import * as cards from '../db/cards';
import type { AppContext } from './context';
import { answeredBefore, once } from './once';
import { getPairing, refuseUnlessBurnable } from './pairings';
import { Problem } from './problems';

export interface AdoptRequest {
  readonly pairingId: number;
  readonly old: OldCard;
}

/** The kind that takes old cards in. */
const ADOPTING = CARD_KIND_NAMES.map(cardKind).find((kind) => kind.adopt !== undefined)!;

/**
 * Takes an old card in, burned long ago by other means and told by its edges: it gets a number of its own, lies on no sheet and is never
 * burned here; its photo is placed by its cells.
 */
export async function adoptCard(
  ctx: AppContext,
  { pairingId, old }: AdoptRequest,
  key?: string,
): Promise<{ id: number; code: string }> {
  const action = 'adopt-card';
  const earlier = key === undefined ? undefined : await answeredBefore<{ id: number; code: string }>(ctx, key, action);
  if (earlier) return earlier;
  const pairing = await getPairing(ctx, pairingId);
  // Nothing is burned, but what comes of it will be.
  refuseUnlessBurnable(pairing);
  const { machine, lens, stock } = pairing;
  const on = { machine, lens, stock };
  const problems = checkOldCard(old, on);
  if (problems.length > 0) {
    const fields = problems.map(({ field, message }) => ({ field: `old.${field}`, message }));
    throw new Problem(
      'invalid-input',
      [...new Set(problems.map(({ message }) => message))].join(' '),
      undefined,
      fields,
    );
  }
  const number = await cards.nextCardNumber(ctx.db);
  const { plan, layout } = ADOPTING.adopt!(old, on, number);
  return once(ctx, key, action, async (tx) => {
    const id = await cards.insertCard(tx, {
      number,
      kind: ADOPTING.kind,
      pairingId,
      plan,
      layout,
      madeFor: on,
      piece: 1,
      sheetXMm: 0,
      sheetYMm: 0,
      bed: { leftMm: 0, rearMm: 0 },
      estimatedS: 0,
      roundId: null,
    });
    return { id, code: layout.code };
  });
}
