import type { Lens, Machine } from '../core/machine/machine';
import { brokenConstraint } from '../db/client';
import * as machines from '../db/machines';
import type { MachineRecord } from '../records/machine';
import type { AppContext } from './context';
import { renewPace } from './pace';
import { notFound, Problem } from './problems';
import { once } from './once';
import { keepSpot, keepWatts } from './record-facts';

async function orNameTaken<T>(name: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (brokenConstraint(error) === 'machine_name') {
      throw new Problem('name-taken', `There is a machine named “${name}” already.`, 'Nothing was changed.', [
        { field: 'name', message: 'This name is in use.' },
      ]);
    }
    throw error;
  }
}

export async function getMachine({ db }: AppContext, id: number): Promise<MachineRecord> {
  const machine = await machines.machineById(db, id);
  if (!machine) throw notFound('machine', id);
  return machine;
}

export function createMachine(
  ctx: AppContext,
  machine: Machine,
  lens: Lens,
  key?: string,
): Promise<{ id: number; lensId: number }> {
  return orNameTaken(machine.name, () =>
    once(ctx, key, 'create-machine', async (tx) => {
      const id = await machines.insertMachine(tx, machine);
      const lensId = await machines.insertLens(tx, id, lens);
      await keepWatts(tx, id, machine);
      await keepSpot(tx, lensId, lens);
      return { id, lensId };
    }),
  );
}

export async function changeMachine(ctx: AppContext, id: number, machine: Machine): Promise<MachineRecord> {
  const found = await orNameTaken(machine.name, () =>
    ctx.db.transaction().execute(async (tx) => {
      if (!(await machines.updateMachine(tx, id, machine))) return false;
      await keepWatts(tx, id, machine);
      return true;
    }),
  );
  if (!found) throw notFound('machine', id);
  await renewPace(ctx, id);
  return getMachine(ctx, id);
}

/** Retires a machine or brings it back. Its history stays. */
export async function retireMachine(ctx: AppContext, id: number, retired: boolean): Promise<MachineRecord> {
  const { name } = await getMachine(ctx, id);
  await orNameTaken(name, () => machines.setMachineRetired(ctx.db, id, retired ? ctx.now() : null));
  return getMachine(ctx, id);
}

export async function addLens(ctx: AppContext, machineId: number, lens: Lens, key?: string): Promise<{ id: number }> {
  await getMachine(ctx, machineId);
  return once(ctx, key, 'add-lens', async (tx) => {
    const id = await machines.insertLens(tx, machineId, lens);
    await keepSpot(tx, id, lens);
    return { id };
  });
}

export async function changeLens(
  ctx: AppContext,
  machineId: number,
  lensId: number,
  lens: Lens,
  retired: boolean,
): Promise<MachineRecord> {
  const found = await ctx.db.transaction().execute(async (tx) => {
    if (!(await machines.updateLens(tx, machineId, lensId, lens, retired ? ctx.now() : null))) return false;
    await keepSpot(tx, lensId, lens);
    return true;
  });
  if (!found) throw notFound('lens', lensId);
  return getMachine(ctx, machineId);
}
