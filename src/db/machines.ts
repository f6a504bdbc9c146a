import type { Selectable } from 'kysely';
import type { Lens, Machine } from '../core/machine/machine';
import type { LensRecord, MachineRecord } from '../records/machine';
import type { Db } from './client';
import type { LensTable, MachineTable } from './schema';

const lensOf = (row: Selectable<LensTable>): LensRecord => ({
  id: row.id,
  machineId: row.machine_id,
  name: row.name,
  focalLengthMm: row.focal_length_mm,
  spotXMm: row.spot_x_mm,
  spotYMm: row.spot_y_mm,
  spotOrigin: row.spot_origin,
  fieldMm: row.field_mm,
  retired: row.retired_at !== null,
});

const machineOf = (row: Selectable<MachineTable>, lenses: readonly LensRecord[]): MachineRecord => ({
  id: row.id,
  name: row.name,
  head: row.head,
  galvo: row.galvo,
  zero: row.zero,
  xPlus: row.x_plus,
  yPlus: row.y_plus,
  sourceKind: row.source_kind,
  wavelengthNm: row.wavelength_nm,
  ratedPowerW: row.rated_power_w,
  lowestFiringCommand: row.lowest_firing_command,
  powerTable: row.power_table,
  bedWidthMm: row.bed_width_mm,
  bedDepthMm: row.bed_depth_mm,
  topSpeedXMmPerS: row.top_speed_x_mm_per_s,
  topSpeedYMmPerS: row.top_speed_y_mm_per_s,
  accelerationXMmPerS2: row.acceleration_x_mm_per_s2,
  accelerationYMmPerS2: row.acceleration_y_mm_per_s2,
  airAssist: row.air_assist,
  automaticFocus: row.automatic_focus,
  rampPower: row.ramp_power,
  addsRunUp: row.adds_run_up,
  powerCap: row.power_cap,
  likedUnits: row.liked_units,
  retired: row.retired_at !== null,
  lenses,
});

const machineRow = (machine: Machine) => ({
  name: machine.name,
  head: machine.head,
  galvo: JSON.stringify(machine.galvo),
  zero: machine.zero,
  x_plus: machine.xPlus,
  y_plus: machine.yPlus,
  source_kind: machine.sourceKind,
  wavelength_nm: machine.wavelengthNm,
  rated_power_w: machine.ratedPowerW,
  lowest_firing_command: machine.lowestFiringCommand,
  power_table: JSON.stringify(machine.powerTable),
  bed_width_mm: machine.bedWidthMm,
  bed_depth_mm: machine.bedDepthMm,
  top_speed_x_mm_per_s: machine.topSpeedXMmPerS,
  top_speed_y_mm_per_s: machine.topSpeedYMmPerS,
  acceleration_x_mm_per_s2: machine.accelerationXMmPerS2,
  acceleration_y_mm_per_s2: machine.accelerationYMmPerS2,
  air_assist: machine.airAssist,
  automatic_focus: machine.automaticFocus,
  ramp_power: machine.rampPower,
  adds_run_up: machine.addsRunUp,
  power_cap: machine.powerCap,
  liked_units: JSON.stringify(machine.likedUnits),
});

const lensRow = (lens: Lens) => ({
  name: lens.name,
  focal_length_mm: lens.focalLengthMm,
  spot_x_mm: lens.spotXMm,
  spot_y_mm: lens.spotYMm,
  spot_origin: lens.spotOrigin,
  field_mm: lens.fieldMm,
});

export async function listMachines(db: Db): Promise<MachineRecord[]> {
  const [machines, lenses] = await Promise.all([
    db
      .selectFrom('machine')
      .selectAll()
      .orderBy('retired_at', (order) => order.asc().nullsFirst())
      .orderBy('name')
      .execute(),
    db.selectFrom('lens').selectAll().orderBy('id').execute(),
  ]);
  return machines.map((row) => machineOf(row, lenses.filter((lens) => lens.machine_id === row.id).map(lensOf)));
}

export async function machineById(db: Db, id: number): Promise<MachineRecord | undefined> {
  const row = await db.selectFrom('machine').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return undefined;
  const lenses = await db.selectFrom('lens').selectAll().where('machine_id', '=', id).orderBy('id').execute();
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
  const result = await db.updateTable('machine').set({ retired_at: at }).where('id', '=', id).executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

export async function insertLens(db: Db, machineId: number, lens: Lens): Promise<number> {
  const row = { machine_id: machineId, ...lensRow(lens) };
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
    .set({ ...lensRow(lens), retired_at: retiredAt })
    .where('id', '=', lensId)
    .where('machine_id', '=', machineId)
    .executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

export async function lensById(db: Db, id: number): Promise<LensRecord | undefined> {
  const row = await db.selectFrom('lens').selectAll().where('id', '=', id).executeTakeFirst();
  return row && lensOf(row);
}
