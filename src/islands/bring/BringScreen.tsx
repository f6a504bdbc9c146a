import { useMemo, useState } from 'react';
import { Button, LinkButton } from '../../components/Button';
import { TextField } from '../../components/Field';
import { Notice, ProblemNotice } from '../../components/Notice';
import page from '../../components/Page.module.css';
import { quantityKinds } from '../../components/quantity-kinds';
import { ShadeField } from '../../components/ShadeField';
import { constantFields } from '../../core/card/plan-fields';
import type { BurnSettings } from '../../core/card/settings';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { useRequestKey } from '../../views/use-request-key';
import type { BringView } from '../../views/views';
import { PlanFields } from '../plan/PlanFields';
import { BringTable } from './BringTable';

/** Settings known from elsewhere: one typed by hand, or many from a table. */
export function BringScreen({ view }: { view: BringView }) {
  const { pairing } = view;
  const { machine, stock } = pairing;
  return (
    <div className={page.page}>
      <div>
        <h1>Bring settings along</h1>
        <p className={page.lead}>
          For {stock.name} on {machine.name}, lens {pairing.lens.name}. What comes from notes, from another program or
          from another shop is filed as it is, and marked as unproven until a small card of this bench says that it
          holds.
        </p>
      </div>
      <div className={page.columns}>
        <OneSetting view={view} />
        <BringTable view={view} />
      </div>
    </div>
  );
}

function OneSetting({ view }: { view: BringView }) {
  const { machine, id } = view.pairing;
  const kinds = useMemo(() => quantityKinds(machine.likedUnits, machine.ratedPowerW), [machine]);
  const [settings, setSettings] = useState<BurnSettings>(view.usual);
  const [shade, setShade] = useState('');
  const [note, setNote] = useState('');
  const [filed, setFiled] = useState<number | null>(null);
  const action = useAction();
  const key = useRequestKey(settings, shade, note);
  const errors = Object.fromEntries(
    (action.problem?.fields ?? []).map(({ field, message }) => [field.replace(/^settings\.0\./, ''), message]),
  );
  const file = (): void =>
    action.run(async () => {
      const json = { settings: [{ settings, shade, note }] };
      const made = await send<{ facts: { factId: number }[] }>(`/api/pairings/${id}/settings`, {
        method: 'POST',
        key,
        json,
      });
      setFiled(made.facts[0]!.factId);
    });
  return (
    <fieldset className={page.group}>
      <legend>One setting</legend>
      <PlanFields
        fields={constantFields(machine, 'settings')}
        plan={{ settings }}
        onPlan={(next) => {
          setSettings(next.settings);
          setFiled(null);
        }}
        kinds={kinds}
        errors={errors}
        reasons={{}}
      />
      <ShadeField shade={shade} onShade={setShade} known={view.shades} />
      <TextField
        label="Where it is from"
        value={note}
        maxLength={1000}
        placeholder="old notebook, another shop, the maker of the stock"
        onChange={(event) => setNote(event.target.value)}
      />
      <ProblemNotice problem={action.problem} />
      {filed === null ? (
        <Button look="main" busy={action.busy} onClick={file}>
          File it as unproven
        </Button>
      ) : (
        <>
          <Notice live>
            Filed, not proven. <a href={`/book/${filed}`}>Look at it in the book</a>.
          </Notice>
          <LinkButton look="main" href={`/bench/${id}/plan/grid?prove=${filed}`}>
            Prove it on a small card
          </LinkButton>
        </>
      )}
    </fieldset>
  );
}
