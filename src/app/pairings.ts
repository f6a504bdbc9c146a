import type { OpenPairing } from '../records/pairing';
import { assessPairing } from '../core/stock/assess';
import { machineById } from '../db/machines';
import * as pairings from '../db/pairings';
import type { PairingRecord } from '../db/pairings';
import { stockById } from '../db/stocks';
import type { AppContext } from './context';
import { notFound, Problem, type ProblemCode } from './problems';

async function assemble(ctx: AppContext, record: PairingRecord): Promise<OpenPairing> {
  const [machine, stock] = await Promise.all([
    machineById(ctx.db, record.machineId),
    stockById(ctx.db, record.stockId),
  ]);
  const lens = machine?.lenses.find((candidate) => candidate.id === record.lensId);
  if (!machine) throw notFound('machine', record.machineId);
  if (!lens) throw notFound('lens', record.lensId);
  if (!stock) throw notFound('stock', record.stockId);
  return { id: record.id, machine, lens, stock, remarks: assessPairing(machine, stock) };
}

export async function getPairing(ctx: AppContext, id: number): Promise<OpenPairing> {
  const record = await pairings.pairingById(ctx.db, id);
  if (!record) throw notFound('pairing', id);
  return assemble(ctx, record);
}

/** Opens the bench for machine, lens and stock: the pairing there is, or a new one. Records that do not exist are refused. */
export async function openBench(
  ctx: AppContext,
  key: { machineId: number; lensId: number; stockId: number },
): Promise<OpenPairing> {
  await assemble(ctx, { id: 0, ...key });
  return assemble(ctx, { id: await pairings.openPairing(ctx.db, key), ...key });
}

/** Throws the Problem that keeps a pairing from being planned or burned, if there is one. */
export function refuseUnlessBurnable({ machine, lens, stock, remarks }: OpenPairing): void {
  const stop = remarks.find((remark) => remark.severity === 'stop');
  if (stop) throw new Problem(stop.code as ProblemCode, stop.text, 'Nothing was planned and nothing was burned.');
  const retired = [machine, lens, stock].find((record) => record.retired);
  if (retired) throw new Problem('retired', `${retired.name} is retired.`);
}
