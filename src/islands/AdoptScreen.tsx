import { useMemo, useState } from 'react';
import { Button } from '../components/Button';
import { SelectField, TextField } from '../components/Field';
import { Notice, ProblemNotice } from '../components/Notice';
import page from '../components/Page.module.css';
import { QuantityField, type QuantityKind } from '../components/QuantityField';
import { quantityKinds } from '../components/quantity-kinds';
import { constantFields } from '../core/card/plan-fields';
import { QuantityError } from '../core/quantities/parse';
import { fieldMessage } from '../views/problem';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import { useRequestKey } from '../views/use-request-key';
import type { BringView } from '../views/views';
import { PlanFields } from './plan/PlanFields';

type Channel = 'power' | 'speed';

/** "10, 20, 30 %" in the unit of its kind; null where one of them cannot be read. */
function listOf(text: string, kind: QuantityKind): number[] | null {
  try {
    return text
      .split(/[;,\n]+|\s+(?=[\d.])/)
      .map((part) => part.trim())
      .filter(Boolean)
      .map((part) => kind.parse(part));
  } catch (error) {
    if (!(error instanceof QuantityError)) throw error;
    return null;
  }
}

/** An old card is told by its edges, its cells and what was the same in all of them. */
export function AdoptScreen({ view }: { view: BringView }) {
  const { pairing } = view;
  const { machine, stock } = pairing;
  const kinds = useMemo(() => quantityKinds(machine.likedUnits, machine.ratedPowerW), [machine]);
  const [acrossIs, setAcrossIs] = useState<Channel>('power');
  const [across, setAcross] = useState('');
  const [down, setDown] = useState('');
  const [cellMm, setCellMm] = useState<number | null>(5);
  const [gapMm, setGapMm] = useState<number | null>(1);
  const [constants, setConstants] = useState(() => {
    const { powerFraction: _power, speedMmPerS: _speed, ...rest } = view.usual;
    return rest;
  });
  const action = useAction();
  const key = useRequestKey(across, down, cellMm, gapMm, constants, acrossIs);
  const downIs: Channel = acrossIs === 'power' ? 'speed' : 'power';
  const values = { across: listOf(across, kinds[acrossIs]), down: listOf(down, kinds[downIs]) };
  const words = { power: 'power', speed: 'speed' } as const;
  const said = (list: number[] | null, kind: QuantityKind): string =>
    list === null ? 'one of these cannot be read' : list.length === 0 ? '' : list.map(kind.format).join(', ');
  const ready = (values.across?.length ?? 0) > 1 && (values.down?.length ?? 0) > 1 && cellMm !== null && gapMm !== null;
  const errors = Object.fromEntries(
    (action.problem?.fields ?? []).map(({ field, message }) => [field.replace(/^old\./, ''), message]),
  );
  const adopt = (): void =>
    action.run(async () => {
      const old = {
        across: { channel: acrossIs, values: values.across },
        down: { channel: downIs, values: values.down },
        cellMm,
        gapMm,
        constants,
      };
      const { id } = await send<{ id: number }>('/api/cards/adopt', {
        method: 'POST',
        key,
        json: { pairingId: pairing.id, old },
      });
      window.location.assign(`/cards/${id}#photo`);
    });
  return (
    <div className={page.page}>
      <div>
        <h1>Adopt an old card</h1>
        <p className={page.lead}>
          A card of {stock.name} that was burned on {machine.name} long ago, by whatever program: say what its edges
          mean, photograph it, and its cells are read and kept like those of a new one. It is marked as adopted.
        </p>
      </div>
      <div className={page.columns}>
        <fieldset className={page.group}>
          <legend>Its edges</legend>
          <SelectField
            label="Along the top, from left to right"
            value={acrossIs}
            onChange={(event) => setAcrossIs(event.target.value as Channel)}
          >
            <option value="power">power</option>
            <option value="speed">speed</option>
          </SelectField>
          <TextField
            label={`Its ${words[acrossIs]} values, left to right`}
            value={across}
            placeholder={acrossIs === 'power' ? '10, 20, 30, 40' : '6000, 4000, 2000 mm/min'}
            hint={said(values.across, kinds[acrossIs])}
            error={errors['across.values']}
            onChange={(event) => setAcross(event.target.value)}
          />
          <TextField
            label={`Down the side: ${words[downIs]} values, top to bottom`}
            value={down}
            placeholder={downIs === 'power' ? '10, 20, 30, 40' : '100, 200, 300 mm/s'}
            hint={said(values.down, kinds[downIs])}
            error={errors['down.values'] ?? errors['down.channel']}
            onChange={(event) => setDown(event.target.value)}
          />
          <QuantityField
            label="Side of a cell"
            kind={kinds.length}
            value={cellMm}
            onChange={setCellMm}
            error={errors['cellMm']}
            hint="measure it with a ruler"
          />
          <QuantityField
            label="Gap between cells"
            kind={kinds.length}
            value={gapMm}
            onChange={setGapMm}
            error={errors['gapMm']}
          />
          {values.across && values.down && ready && (
            <Notice>
              {values.across.length} columns and {values.down.length} rows: {values.across.length * values.down.length}{' '}
              cells.
            </Notice>
          )}
          <ProblemNotice problem={fieldMessage(action.problem, 'old') ? null : action.problem} />
          <Button look="main" busy={action.busy} disabled={!ready} onClick={adopt}>
            Adopt this card
          </Button>
        </fieldset>
        <fieldset className={page.group}>
          <legend>The same in every cell</legend>
          <PlanFields
            fields={constantFields(machine, 'constants', ['powerFraction', 'speedMmPerS'])}
            plan={{ constants }}
            onPlan={(next) => setConstants(next.constants)}
            kinds={kinds}
            errors={errors}
            reasons={{}}
          />
        </fieldset>
      </div>
    </div>
  );
}
