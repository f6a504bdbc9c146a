import { useState } from 'react';
import type { LensRecord, MachineRecord } from '../../records/machine';
import { Button } from '../../components/Button';
import { Notice, ProblemNotice } from '../../components/Notice';
import page from '../../components/Page.module.css';
import { quantityKinds } from '../../components/quantity-kinds';
import { fieldMessage } from '../../views/problem';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { LensFields, type LensDraft } from './LensFields';

function OneLens({ machine, lens }: { machine: MachineRecord; lens: LensRecord | null }) {
  const [draft, setDraft] = useState<LensDraft>(
    lens
      ? {
          name: lens.name,
          focalLengthMm: lens.focalLengthMm,
          spotXMm: lens.spotXMm,
          spotYMm: lens.spotYMm,
          spotOrigin: lens.spotOrigin,
          fieldMm: lens.fieldMm,
        }
      : { name: '', focalLengthMm: 50.8, spotXMm: 0.1, spotYMm: 0.1, spotOrigin: 'measured', fieldMm: null },
  );
  const [key] = useState(() => crypto.randomUUID());
  const [saved, setSaved] = useState(false);
  const action = useAction();
  const save = (retired: boolean): void =>
    action.run(async () => {
      setSaved(false);
      if (lens)
        await send(`/api/machines/${machine.id}/lenses/${lens.id}`, { method: 'PUT', json: { lens: draft, retired } });
      else await send(`/api/machines/${machine.id}/lenses`, { method: 'POST', key, json: draft });
      if (lens && retired === lens.retired) setSaved(true);
      else window.location.reload();
    });
  const at = lens ? 'lens.' : '';
  return (
    <fieldset className={`${page.group} ${lens?.retired ? page.retired : ''}`}>
      <legend>{lens ? `Lens ${lens.name}${lens.retired ? ' (retired)' : ''}` : 'Another lens'}</legend>
      <LensFields
        lens={draft}
        onChange={setDraft}
        kinds={quantityKinds(machine.likedUnits)}
        source={machine}
        error={(field) => fieldMessage(action.problem, at + field)}
      />
      <ProblemNotice problem={action.problem} />
      {saved && <Notice live>Saved.</Notice>}
      <div className={page.actions}>
        <Button look={lens ? 'plain' : 'main'} busy={action.busy} onClick={() => save(lens?.retired ?? false)}>
          {lens ? 'Save the lens' : 'Add this lens'}
        </Button>
        {lens && (
          <Button busy={action.busy} onClick={() => save(!lens.retired)}>
            {lens.retired ? 'Bring it back' : 'Retire'}
          </Button>
        )}
      </div>
    </fieldset>
  );
}

export function LensList({ machine }: { machine: MachineRecord }) {
  return (
    <section className={page.columns} aria-label="Lenses">
      {machine.lenses.map((lens) => (
        <OneLens key={lens.id} machine={machine} lens={lens} />
      ))}
      <OneLens machine={machine} lens={null} />
    </section>
  );
}
