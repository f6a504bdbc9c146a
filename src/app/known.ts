import { FACTS, type FactNow } from '../core/book/facts';
import { stalenessReasons } from '../core/book/staleness';
import type { Known, Pairing } from '../core/card/contract';
import { factsFor, type CurrentFact } from '../db/facts';
import type { OpenPairing } from '../records/pairing';
import type { AppContext } from './context';

/** Why a fact may hold no longer on a pairing as it is now; records that it was not made for are taken as they are. */
export function staleOn({ fact, newest }: CurrentFact, now: Pairing): string[] {
  return stalenessReasons({ ...now, ...newest.madeFor }, now, FACTS[fact.name].staleBy);
}

const factNow = (current: CurrentFact, now: Pairing): FactNow =>
  ({
    name: current.fact.name,
    at: current.fact.at,
    value: current.newest.value,
    sigma: current.newest.sigma,
    factId: current.fact.id,
    version: current.newest.version,
    origin: current.newest.origin,
    createdAt: current.newest.createdAt,
    stale: staleOn(current, now),
  }) as FactNow;

/** Everything that is known of a pairing, its machine and lens, and its stock. */
export async function knownOf(ctx: AppContext, pairing: OpenPairing): Promise<Known> {
  const facts = await factsFor(ctx.db, {
    pairingId: pairing.id,
    machineId: pairing.machine.id,
    lensId: pairing.lens.id,
    stockId: pairing.stock.id,
  });
  const { machine, lens, stock } = pairing;
  return { pairing: { machine, lens, stock }, facts: facts.map((fact) => factNow(fact, pairing)) };
}
