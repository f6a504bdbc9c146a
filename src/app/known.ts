import { FACTS, type FactNow } from '../core/book/facts';
import { stalenessReasons } from '../core/book/staleness';
import type { Known, Pairing } from '../core/card/contract';
import { diaryReasons, type DiaryEntry } from '../core/machine/diary';
import { diariesOf } from '../db/diary';
import { factsFor, type CurrentFact } from '../db/facts';
import type { OpenPairing } from '../records/pairing';
import type { AppContext } from './context';

/**
 * Why a fact may hold no longer: on a pairing as it is now, where it belongs to one, and by what happened to its machine since. Records that it was not
 * made for are taken as they are.
 */
export function staleNow({ fact, newest }: CurrentFact, now: Pairing | null, diary: readonly DiaryEntry[]): string[] {
  const { staleBy } = FACTS[fact.name];
  return [
    ...(now ? stalenessReasons({ ...now, ...newest.madeFor }, now, staleBy) : []),
    ...diaryReasons(diary, newest.createdAt, staleBy),
  ];
}

const factNow = (current: CurrentFact, now: Pairing, diary: readonly DiaryEntry[]): FactNow =>
  ({
    name: current.fact.name,
    at: current.fact.at,
    value: current.newest.value,
    sigma: current.newest.sigma,
    factId: current.fact.id,
    version: current.newest.version,
    origin: current.newest.origin,
    createdAt: current.newest.createdAt,
    stale: staleNow(current, now, diary),
  }) as FactNow;

/** Everything that is known of a pairing, its machine and lens, and its stock. */
export async function knownOf(ctx: AppContext, pairing: OpenPairing): Promise<Known> {
  const machineId = pairing.machine.id;
  const diaries = diariesOf(ctx.db, [machineId]);
  const facts = await factsFor(ctx.db, {
    pairingId: pairing.id,
    machineId,
    lensId: pairing.lens.id,
    stockId: pairing.stock.id,
  });
  const { machine, lens, stock } = pairing;
  const diary = (await diaries).get(machineId)!;
  return { pairing: { machine, lens, stock }, facts: facts.map((fact) => factNow(fact, pairing, diary)) };
}
