import type { Selectable } from 'kysely';
import type { Lens, Machine } from '../core/machine/machine';
import type { LensRecord, MachineRecord } from '../records/machine';
import type { Db } from './client';
import type { DB } from './tables';

const lensOf = ({ createdAt, retiredAt, ...lens }: Selectable<DB['lens']>): LensRecord => ({
  ...lens,
  retired: retiredAt !== null,
});

const machineOf = (
  { createdAt, retiredAt, ...machine }: Selectable<DB['machine']>,
  lenses: readonly LensRecord[],
): MachineRecord => ({ ...machine, retired: retiredAt !== null, lenses });

const machineRow = (machine: Machine) => ({
  name: machine.name,
  head: machine.head,
  galvo: JSON.stringify(machine.galvo),
  zero: machine.zero,
  xPlus: machine.xPlus,
  yPlus: machine.yPlus,
  sourceKind: machine.sourceKind,
  wavelengthNm: machine.wavelengthNm,
  ratedPowerW: machine.ratedPowerW,
  lowestFiringCommand: machine.lowestFiringCommand,
  powerTable: JSON.stringify(machine.powerTable),
  bedWidthMm: machine.bedWidthMm,
  bedDepthMm: machine.bedDepthMm,
  topSpeedXMmPerS: machine.topSpeedXMmPerS,
  topSpeedYMmPerS: machine.topSpeedYMmPerS,
  accelerationXMmPerS2: machine.accelerationXMmPerS2,
  accelerationYMmPerS2: machine.accelerationYMmPerS2,
  airAssist: machine.airAssist,
  automaticFocus: machine.automaticFocus,
  rampPower: machine.rampPower,
  addsRunUp: machine.addsRunUp,
  powerCap: machine.powerCap,
  likedUnits: JSON.stringify(machine.likedUnits),
});

const lensRow = (lens: Lens) => ({
  name: lens.name,
  focalLengthMm: lens.focalLengthMm,
  spotXMm: lens.spotXMm,
  spotYMm: lens.spotYMm,
  spotOrigin: lens.spotOrigin,
  fieldMm: lens.fieldMm,
});

export async function listMachines(db: Db): Promise<MachineRecord[]> {
  const [machines, lenses] = await Promise.all([
    db
      .selectFrom('machine')
      .selectAll()
      .orderBy('retiredAt', (order) => order.asc().nullsFirst())
      .orderBy('name')
      .execute(),
    db.selectFrom('lens').selectAll().orderBy('id').execute(),
  ]);
  return machines.map((row) => machineOf(row, lenses.filter((lens) => lens.machineId === row.id).map(lensOf)));
}

export async function machineById(db: Db, id: number): Promise<MachineRecord | undefined> {
  const row = await db.selectFrom('machine').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return undefined;
  const lenses = await db.selectFrom('lens').selectAll().where('machineId', '=', id).orderBy('id').execute();
  return machineOf(row, lenses.map(lensOf));
}

export async function insertMachine(db: Db, machine: Machine): Promise<number> {
  return (await db.insertInto('machine').values(machineRow(machine)).returning('id').executeTakeFirstOrThrow()).id;
}

export async function updateMachine(db: Db, id: number, machine: Machine): Promise<boolean> {
  const result = await db.updateTable('machine').set(machineRow(machine)).where('id', '=', id).executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

export async function setMachineRetired(db: Db, id: number, at: Date | null): Promise<boolean> {
  const result = await db.updateTable('machine').set({ retiredAt: at }).where('id', '=', id).executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

export async function insertLens(db: Db, machineId: number, lens: Lens): Promise<number> {
  const row = { machineId: machineId, ...lensRow(lens) };
  return (await db.insertInto('lens').values(row).returning('id').executeTakeFirstOrThrow()).id;
}

export async function updateLens(
  db: Db,
  machineId: number,
  lensId: number,
  lens: Lens,
  retiredAt: Date | null,
): Promise<boolean> {
  const result = await db
    .updateTable('lens')
    .set({ ...lensRow(lens), retiredAt: retiredAt })
    .where('id', '=', lensId)
    .where('machineId', '=', machineId)
    .executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

export async function lensById(db: Db, id: number): Promise<LensRecord | undefined> {
  const row = await db.selectFrom('lens').selectAll().where('id', '=', id).executeTakeFirst();
  return row && lensOf(row);
}
