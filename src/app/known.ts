import { FACTS, type FactNow } from '../core/book/facts';
import { redoneReasons, type KeptHistory } from '../core/book/redone';
import { stalenessReasons } from '../core/book/staleness';
import type { Known, Pairing } from '../core/card/contract';
import { diaryReasons, type DiaryEntry } from '../core/machine/diary';
import { ageReasons, type BurnedOn } from '../core/machine/source-hours';
import { hoursByDay } from '../db/burns';
import type { Db } from '../db/client';
import { diariesOf } from '../db/diary';
import { factsFor, historiesOf, type CurrentFact } from '../db/facts';
import type { OpenPairing } from '../records/pairing';
import type { AppContext } from './context';

/** What happened to machines, and what was kept on pairings: by it facts are told to hold no longer. */
export interface Happened {
  readonly diaries: ReadonlyMap<number, readonly DiaryEntry[]>;
  readonly burned: ReadonlyMap<number, readonly BurnedOn[]>;
  readonly kept: ReadonlyMap<number, readonly KeptHistory[]>;
}

export async function happenedTo(
  db: Db,
  { machineIds, pairingIds }: { readonly machineIds: readonly number[]; readonly pairingIds: readonly number[] },
): Promise<Happened> {
  const [diaries, burned, kept] = await Promise.all([
    diariesOf(db, machineIds),
    hoursByDay(db, machineIds),
    historiesOf(db, pairingIds),
  ]);
  return { diaries, burned, kept };
}

/**
 * Why a fact may hold no longer: on a pairing as it is now, where it belongs to one, by what happened to its machine since, by the hours that its
 * source burned, and by rungs below it that were done again. Records that it was not made for are taken as they are.
 */
export function staleNow(
  { fact, newest }: CurrentFact,
  now: Pairing | null,
  machineId: number | null,
  { diaries, burned, kept }: Happened,
): string[] {
  const { staleBy } = FACTS[fact.name];
  const since = newest.createdAt;
  const ages = now !== null && machineId !== null && staleBy.includes('power');
  return [
    ...(now ? stalenessReasons({ ...now, ...newest.madeFor }, now, staleBy) : []),
    ...(machineId === null ? [] : diaryReasons(diaries.get(machineId) ?? [], since, staleBy)),
    ...(ages ? ageReasons(now.machine.sourceKind, burned.get(machineId) ?? [], since) : []),
    ...(fact.pairingId === null
      ? []
      : redoneReasons({ name: fact.name, createdAt: since }, kept.get(fact.pairingId) ?? [])),
  ];
}

const factNow = (current: CurrentFact, now: Pairing, machineId: number, happened: Happened): FactNow =>
  ({
    name: current.fact.name,
    at: current.fact.at,
    value: current.newest.value,
    sigma: current.newest.sigma,
    factId: current.fact.id,
    version: current.newest.version,
    origin: current.newest.origin,
    createdAt: current.newest.createdAt,
    stale: staleNow(current, now, machineId, happened),
  }) as FactNow;

/** Everything that is known of a pairing, its machine and lens, and its stock. */
export async function knownOf(ctx: AppContext, pairing: OpenPairing): Promise<Known> {
  const machineId = pairing.machine.id;
  const [happened, facts] = await Promise.all([
    happenedTo(ctx.db, { machineIds: [machineId], pairingIds: [pairing.id] }),
    factsFor(ctx.db, { pairingId: pairing.id, machineId, lensId: pairing.lens.id, stockId: pairing.stock.id }),
  ]);
  const { machine, lens, stock } = pairing;
  return {
    pairing: { machine, lens, stock },
    facts: facts.map((fact) => factNow(fact, pairing, machineId, happened)),
  };
}
