import { isDeepStrictEqual } from 'node:util';
import type { FactName, FactValues } from '../core/book/fact-values';
import type { Lens, Machine } from '../core/machine/machine';
import type { Pace } from '../core/motion/pace';
import { thicknessOf, type Stock } from '../core/stock/stock';
import type { Tx } from '../db/client';
import { FROM_NO_CARD, insertFactVersion, newestOfOwner, type OwnerId } from '../db/facts';

/** Keeps what a record says it measured as a fact, when it says anything new. To be called in a transaction. */
async function keepIfNew<Name extends FactName>(
  tx: Tx,
  owner: OwnerId,
  name: Name,
  value: FactValues[Name] | null,
  sigma: number | null,
  madeFor: object,
  origin: 'record' | 'logs' = 'record',
): Promise<void> {
  if (value === null) return;
  const last = await newestOfOwner(tx, owner, name);
  // Whatever the order their keys are stored in.
  if (last && isDeepStrictEqual(last.value, value)) return;
  await insertFactVersion(tx, owner, {
    name,
    at: {},
    value,
    sigma,
    origin,
    ...FROM_NO_CARD,
    madeFor,
    note: '',
  });
}

export async function keepThickness(tx: Tx, stockId: number, stock: Stock): Promise<void> {
  const { meanMm, spreadMm, readings, origin } = thicknessOf(stock);
  const value = origin === 'measured' ? { meanMm, readings } : null;
  await keepIfNew(tx, { stockId }, 'thickness', value, spreadMm, { stock });
}

export async function keepSpot(tx: Tx, lensId: number, lens: Lens): Promise<void> {
  const value = lens.spotOrigin === 'measured' ? { xMm: lens.spotXMm, yMm: lens.spotYMm } : null;
  await keepIfNew(tx, { lensId }, 'spot', value, null, { lens });
}

export async function keepWatts(tx: Tx, machineId: number, machine: Machine): Promise<void> {
  const value = machine.powerTable ? { points: machine.powerTable } : null;
  await keepIfNew(tx, { machineId }, 'watts', value, null, { machine });
}

/** Keeps what timed burns told of a machine's pace. Too few of them are kept only where they take an earlier answer back. */
export async function keepPace(tx: Tx, machineId: number, pace: Pace, machine: Machine): Promise<void> {
  const last = await newestOfOwner(tx, { machineId }, 'pace');
  if (pace.by === 'record' && !last) return;
  const sigma = pace.within95 === null ? null : pace.within95 / 2;
  await keepIfNew(tx, { machineId }, 'pace', pace, sigma, { machine }, 'logs');
}
