import { useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import type { StockInput, StockRecord } from '../records/stock';
import type { Machine } from '../core/machine/machine';
import { assessPairing, assessStock } from '../core/stock/assess';
import { BANNED_MATERIALS } from '../core/stock/banned';
import { bareFaceOf, FAMILIES } from '../core/stock/families';
import { OUTLINES, RECTANGLE } from '../core/stock/outline';
import { thicknessOf } from '../core/stock/stock';
import { plainNumber } from '../core/quantities/format';
import { parseLength, QuantityError } from '../core/quantities/parse';
import { Button } from '../components/Button';
import { CheckField, SelectField, TextField } from '../components/Field';
import { Notice, ProblemNotice } from '../components/Notice';
import page from '../components/Page.module.css';
import { QuantityField } from '../components/QuantityField';
import { COUNT, LIGHTNESS, quantityKinds } from '../components/quantity-kinds';
import { DEFAULT_LIKED_UNITS } from '../core/quantities/format';
import { fieldMessage } from '../views/problem';
import { send } from '../views/send';
import { useAction } from '../views/use-action';

const FIRST = FAMILIES[0];
const KINDS = quantityKinds(DEFAULT_LIKED_UNITS);

const FRESH: StockInput = {
  name: '',
  family: FIRST.id,
  type: FIRST.types[0].name,
  colour: FIRST.bareColour,
  bareLightness: FIRST.bareLightness,
  coating: '',
  coatingSide: 'none',
  adhesiveBacking: false,
  grain: 'none',
  nominalThicknessMm: 3,
  thicknessReadingsMm: [],
  batch: '',
  sheetWidthMm: 300,
  sheetDepthMm: 200,
  outline: RECTANGLE,
  blanks: null,
  acquiredOn: null,
};

/** Readings as typed: separated by spaces, commas with blanks, semicolons or line breaks, each with its own unit if wanted. */
function readReadings(text: string): { readings: number[]; misread: string | null } {
  const parts = text
    .split(/[;\n]|,\s|\s+(?=[\d.])/)
    .map((part) => part.trim())
    .filter(Boolean);
  try {
    return { readings: parts.map((part) => parseLength(part)), misread: null };
  } catch (error) {
    if (!(error instanceof QuantityError)) throw error;
    return { readings: [], misread: error.message };
  }
}

/** One stock: what it is, how thick it really is, whether it may be burned, and how each machine takes it. */
export function StockPage({
  stock,
  machines,
}: {
  stock: StockRecord | null;
  machines: readonly (Machine & { id: number })[];
}) {
  const { id, retired, ...start } = stock ?? { ...FRESH, id: null, retired: false };
  const { control, register, handleSubmit, setValue } = useForm<StockInput>({ defaultValues: start });
  const now = useWatch({ control }) as StockInput;
  const [readingsText, setReadingsText] = useState(
    start.thicknessReadingsMm.map((mm) => `${plainNumber(mm, 5)} mm`).join('; '),
  );
  const { readings, misread } = readReadings(readingsText);
  const [key] = useState(() => crypto.randomUUID());
  const [saved, setSaved] = useState(false);
  const action = useAction();
  const family = FAMILIES.find((candidate) => candidate.id === now.family);
  const draft = { ...now, thicknessReadingsMm: readings };
  const stops = assessStock(draft);
  const thickness = thicknessOf(draft);
  const error = (field: string): string | undefined => fieldMessage(action.problem, field);

  const submit = handleSubmit((values) =>
    action.run(async () => {
      setSaved(false);
      const json: StockInput = { ...values, thicknessReadingsMm: readings, acquiredOn: values.acquiredOn || null };
      if (id === null) {
        const made = await send<{ id: number }>('/api/stock', { method: 'POST', key, json });
        window.location.assign(`/stock/${made.id}`);
      } else {
        await send(`/api/stock/${id}`, { method: 'PUT', json });
        setSaved(true);
      }
    }),
  );
  const retire = (): void =>
    action.run(async () => {
      await send(`/api/stock/${id}/retired`, { method: 'PUT', json: { retired: !retired } });
      window.location.reload();
    });
  const chooseFamily = (next: string): void => {
    const chosen = FAMILIES.find((candidate) => candidate.id === next);
    if (!chosen) return;
    setValue('type', chosen.types[0].name);
    chooseType(chosen.types[0].name, next);
  };
  /** A known type brings its face along; a name of the operator's own leaves what was set. */
  const chooseType = (type: string, ofFamily: string): void => {
    const of = FAMILIES.find((candidate) => candidate.id === ofFamily);
    if (!of?.types.some(({ name }) => name === type)) return;
    const face = bareFaceOf({ family: ofFamily, type });
    setValue('colour', face.colour);
    setValue('bareLightness', face.lightness);
  };

  return (
    <div className={page.page}>
      <h1>{stock ? stock.name : 'New stock'}</h1>
      {retired && <Notice look="straw">Retired: it keeps its history, but nothing new is planned on it.</Notice>}
      <form onSubmit={submit} className={page.columns} noValidate>
        <fieldset className={page.group}>
          <legend>What it is</legend>
          <TextField label="Name" {...register('name')} error={error('name')} maxLength={60} />
          <SelectField
            label="Family"
            {...register('family', {
              onChange: (event: { target: { value: string } }) => chooseFamily(event.target.value),
            })}
            error={error('family')}
          >
            <optgroup label="May be burned">
              {FAMILIES.map(({ id: value, name }) => (
                <option key={value} value={value}>
                  {name}
                </option>
              ))}
            </optgroup>
            <optgroup label="Never burned">
              {BANNED_MATERIALS.map(({ id: value, name }) => (
                <option key={value} value={value}>
                  {name}
                </option>
              ))}
            </optgroup>
          </SelectField>
          <TextField
            label="Type"
            {...register('type', {
              onChange: (event: { target: { value: string } }) => chooseType(event.target.value, now.family),
            })}
            list="types"
            error={error('type')}
          />
          <datalist id="types">
            {family?.types.map(({ name }) => (
              <option key={name} value={name} />
            ))}
          </datalist>
          <div className={page.pair}>
            <TextField label="Colour when bare" type="color" {...register('colour')} error={error('colour')} />
            <Controller
              control={control}
              name="bareLightness"
              render={({ field: { value, onChange } }) => (
                <QuantityField
                  label="Lightness when bare"
                  kind={LIGHTNESS}
                  value={value}
                  onChange={onChange}
                  error={error('bareLightness')}
                />
              )}
            />
          </div>
          <TextField label="Coating, if any" {...register('coating')} error={error('coating')} />
          <SelectField label="Coating’s side" {...register('coatingSide')}>
            <option value="none">no coating</option>
            <option value="top">top</option>
            <option value="bottom">bottom</option>
            <option value="both">both</option>
          </SelectField>
          <CheckField label="Adhesive backing" {...register('adhesiveBacking')} />
        </fieldset>
        <fieldset className={page.group}>
          <legend>The sheet</legend>
          <Controller
            control={control}
            name="nominalThicknessMm"
            render={({ field: { value, onChange } }) => (
              <QuantityField
                label="Thickness by the label"
                kind={KINDS.length}
                value={value}
                onChange={onChange}
                error={error('nominalThicknessMm')}
              />
            )}
          />
          <TextField
            label="Thickness measured, several places"
            value={readingsText}
            placeholder="3.08; 3.12; 0.122 in"
            onChange={(event) => setReadingsText(event.target.value)}
            error={misread ?? error('thicknessReadingsMm')}
            hint={
              thickness.origin === 'measured'
                ? `${plainNumber(thickness.meanMm, 4)} mm, ${thickness.spreadMm === null ? 'one reading' : `spread ${plainNumber(thickness.spreadMm, 2)} mm of ${thickness.readings}`}`
                : 'the label often lies: measure in three places'
            }
          />
          <SelectField label="Grain runs" {...register('grain')}>
            <option value="none">no grain</option>
            <option value="along-width">along the width</option>
            <option value="along-depth">along the depth</option>
          </SelectField>
          <CheckField
            label="Counted blanks, not sheets"
            hint="coasters, tags, tiles: each card lies on one of them"
            checked={now.blanks !== null}
            onChange={(event) => setValue('blanks', event.target.checked ? { count: 10 } : null)}
          />
          {now.blanks && (
            <Controller
              control={control}
              name="blanks.count"
              render={({ field: { value, onChange } }) => (
                <QuantityField
                  label="How many"
                  kind={COUNT}
                  value={value ?? null}
                  onChange={onChange}
                  error={error('blanks.count')}
                />
              )}
            />
          )}
          <SelectField label="Outline" {...register('outline.shape')}>
            {Object.entries(OUTLINES).map(([value, name]) => (
              <option key={value} value={value}>
                {name}
              </option>
            ))}
          </SelectField>
          {now.outline.shape === 'rounded' && (
            <Controller
              control={control}
              name="outline.radiusMm"
              render={({ field: { value, onChange } }) => (
                <QuantityField
                  label="Radius of its corners"
                  kind={KINDS.length}
                  value={value}
                  onChange={onChange}
                  error={error('outline.radiusMm')}
                />
              )}
            />
          )}
          <div className={page.pair}>
            <Controller
              control={control}
              name="sheetWidthMm"
              render={({ field: { value, onChange } }) => (
                <QuantityField
                  label={now.blanks ? 'Blank, width' : 'Sheet width'}
                  kind={KINDS.length}
                  value={value}
                  onChange={onChange}
                  error={error('sheetWidthMm')}
                />
              )}
            />
            <Controller
              control={control}
              name="sheetDepthMm"
              render={({ field: { value, onChange } }) => (
                <QuantityField
                  label={now.blanks ? 'Blank, depth' : 'Sheet depth'}
                  kind={KINDS.length}
                  value={value}
                  onChange={onChange}
                  error={error('sheetDepthMm')}
                />
              )}
            />
          </div>
          <TextField
            label="Supplier’s batch"
            {...register('batch')}
            error={error('batch')}
            hint="a new batch makes old findings stale"
          />
          <TextField label="Since" type="date" {...register('acquiredOn')} error={error('acquiredOn')} />
        </fieldset>
        <section className={page.group} id="safety" aria-label="Safety">
          <h2>May it be burned?</h2>
          {stops.map((stop) => (
            <Notice key={stop.code} look="heat" title="Stop" live>
              {stop.text} {stop.whatToDo}
            </Notice>
          ))}
          {stops.length === 0 &&
            machines.map((machine) => {
              const remarks = assessPairing(machine, draft).filter((remark) => remark.code.startsWith('wavelength'));
              const stop = remarks.some((remark) => remark.severity === 'stop');
              return (
                <Notice
                  key={machine.id}
                  look={stop ? 'heat' : remarks.length > 0 ? 'straw' : 'plain'}
                  title={`Under ${machine.name}`}
                >
                  {remarks.length > 0
                    ? remarks.map((remark) => `${remark.text} ${remark.whatToDo}`).join(' ')
                    : 'Works.'}
                </Notice>
              );
            })}
          <p className={page.soft}>Usual shop cautions. Local codes and the maker’s data sheet come first.</p>
          <ProblemNotice problem={action.problem} />
          {saved && <Notice live>Saved. Cards already made keep the stock as it was.</Notice>}
          <div className={page.actions}>
            <Button look="main" type="submit" busy={action.busy} disabled={misread !== null}>
              {id === null ? 'Add this stock' : 'Save'}
            </Button>
            {id !== null && (
              <Button onClick={retire} busy={action.busy}>
                {retired ? 'Bring it back' : 'Retire'}
              </Button>
            )}
          </div>
        </section>
      </form>
    </div>
  );
}
