import { useState } from 'react';
import { FormProvider, useForm, useWatch } from 'react-hook-form';
import type { MachineRecord } from '../../records/machine';
import type { Machine } from '../../core/machine/machine';
import { powerTableText, readPowerTable } from '../../core/machine/power-table';
import { DEFAULT_LIKED_UNITS } from '../../core/quantities/format';
import page from '../../components/Page.module.css';
import { quantityKinds } from '../../components/quantity-kinds';
import { RecordActions } from '../../components/RecordActions';
import { fieldMessage } from '../../views/problem';
import { useRecord } from '../../views/use-record';
import { BodyPart, ZeroPart } from './BodyPart';
import { FRESH_MACHINE, MachineMessages } from './machine-form';
import { LensFields, type LensDraft } from './LensFields';
import { MotionPart } from './MotionPart';
import { SourcePart } from './SourcePart';
import { UnitsPart } from './UnitsPart';

/** A machine as recorded, or a new one with its first lens. */
export function MachineForm({ machine }: { machine: MachineRecord | null }) {
  const {
    id,
    lenses: _lenses,
    retired,
    ...start
  } = machine ?? { ...FRESH_MACHINE, id: null, lenses: [], retired: false };
  const form = useForm<Machine>({ defaultValues: start });
  const now = useWatch({ control: form.control }) as Machine;
  const [table, setTable] = useState(powerTableText(start.powerTable));
  const [lens, setLens] = useState<LensDraft>({
    name: 'fixed',
    focalLengthMm: 50,
    spotXMm: 0.1,
    spotYMm: 0.1,
    spotOrigin: 'measured',
    fieldMm: null,
  });
  const record = useRecord('/machines', id, retired);
  const at = id === null ? 'machine.' : '';
  const submit = form.handleSubmit((values) => {
    const changed = { ...values, powerTable: readPowerTable(table) };
    record.save({ machine: changed, lens }, changed);
  });
  return (
    <FormProvider {...form}>
      <MachineMessages.Provider value={(field) => fieldMessage(record.action.problem, at + field)}>
        <form onSubmit={submit} className={page.columns} noValidate>
          <BodyPart />
          <ZeroPart />
          <SourcePart table={table} setTable={setTable} />
          <MotionPart />
          <UnitsPart />
          {id === null && (
            <fieldset className={page.group}>
              <legend>First lens</legend>
              <LensFields
                lens={lens}
                onChange={setLens}
                kinds={quantityKinds(now.likedUnits ?? DEFAULT_LIKED_UNITS)}
                source={now}
                error={(field) => fieldMessage(record.action.problem, `lens.${field}`)}
              />
            </fieldset>
          )}
          <div className={page.group}>
            <RecordActions
              record={record}
              add="Add this machine"
              kept="Cards already made keep the machine as it was."
            />
          </div>
        </form>
      </MachineMessages.Provider>
    </FormProvider>
  );
}
