import { useState } from 'react';
import { Controller, useForm, useWatch, type FieldPath } from 'react-hook-form';
import type { MachineRecord } from '../records/machine';
import {
  DEFAULT_LOWEST_FIRING,
  DEFAULT_POWER_CAP,
  SOURCE_NAMES,
  USUAL_GALVO,
  ZERO_PLACES,
  type Machine,
  type PowerPoint,
  type SourceKind,
} from '../core/machine/machine';
import { DEFAULT_LIKED_UNITS, type OwnSpeed } from '../core/quantities/format';
import { Button } from '../components/Button';
import { CheckField, SelectField, TextField } from '../components/Field';
import { Notice, ProblemNotice } from '../components/Notice';
import page from '../components/Page.module.css';
import { QuantityField, type QuantityKind } from '../components/QuantityField';
import {
  ACCELERATION,
  KILOHERTZ,
  MILLISECONDS,
  NANOMETRES,
  numberWith,
  quantityKinds,
  WATTS,
} from '../components/quantity-kinds';
import { fieldMessage } from '../views/problem';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import { LensFields, type LensDraft } from './LensFields';

const FRESH: Machine = {
  name: '',
  head: 'gantry',
  galvo: null,
  zero: 'bed-front-left',
  xPlus: 'right',
  yPlus: 'away',
  sourceKind: 'blue-diode',
  wavelengthNm: 450,
  ratedPowerW: 10,
  lowestFiringCommand: DEFAULT_LOWEST_FIRING['blue-diode'],
  powerTable: null,
  bedWidthMm: 400,
  bedDepthMm: 400,
  topSpeedXMmPerS: 200,
  topSpeedYMmPerS: 200,
  accelerationXMmPerS2: 2000,
  accelerationYMmPerS2: 2000,
  airAssist: 'on-off',
  automaticFocus: false,
  rampPower: 'constant',
  addsRunUp: false,
  powerCap: 0.8,
  likedUnits: DEFAULT_LIKED_UNITS,
};

const USUAL_WAVELENGTH_NM: Readonly<Record<SourceKind, number>> = {
  'blue-diode': 450,
  'co2-glass': 10600,
  'co2-rf': 10600,
  fibre: 1064,
  uv: 355,
};

const tableText = (table: readonly PowerPoint[] | null): string =>
  table?.map(({ command, watts }) => `${Math.round(command * 1000) / 10} % = ${watts} W`).join('\n') ?? '';

/** "20 % = 10.5 W", one pair a line. */
function readTable(text: string): PowerPoint[] | null {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  if (lines.length === 0) return null;
  return lines.map((line) => {
    const match = /^(\d+(?:[.,]\d+)?)\s*%?\s*[=:;\s]\s*(\d+(?:[.,]\d+)?)\s*w?$/i.exec(line);
    const number = (part: string | undefined): number => Number((part ?? '').replace(',', '.'));
    return match ? { command: number(match[1]) / 100, watts: number(match[2]) } : { command: NaN, watts: NaN };
  });
}

type MachineField = FieldPath<Machine>;

/** The machine's own scale of speed: what its numbers mean. */
function OwnSpeedFields({
  own,
  setOwn,
  error,
}: {
  own: OwnSpeed | undefined;
  setOwn: (own: OwnSpeed) => void;
  error: string | undefined;
}) {
  if (!own) return null;
  const perCent = own.unit === '% speed';
  return (
    <>
      <SelectField
        label="It states speed in"
        value={own.unit}
        onChange={(event) => {
          const unit = event.target.value as OwnSpeed['unit'];
          setOwn({ unit, mmPerSPerUnit: unit === 'dots/s' ? 25.4 / 500 : 4 });
        }}
      >
        <option value="% speed">per cent of its top speed</option>
        <option value="dots/s">dots a second</option>
      </SelectField>
      <QuantityField
        label={perCent ? '100 % is, in mm/s' : 'Dots in an inch'}
        kind={numberWith('')}
        value={perCent ? own.mmPerSPerUnit * 100 : 25.4 / own.mmPerSPerUnit}
        onChange={(value) =>
          value !== null && value > 0 && setOwn({ ...own, mmPerSPerUnit: perCent ? value / 100 : 25.4 / value })
        }
        error={error}
        hint={
          perCent ? 'measure it: a long line, a stopwatch, the slope of both' : 'its own dot pitch, not the picture’s'
        }
      />
    </>
  );
}

/** A machine as recorded, or a new one with its first lens. */
export function MachineForm({ machine }: { machine: MachineRecord | null }) {
  const { id, lenses: _lenses, retired, ...start } = machine ?? { ...FRESH, id: null, lenses: [], retired: false };
  const { control, register, handleSubmit, setValue } = useForm<Machine>({ defaultValues: start });
  const now = useWatch({ control }) as Machine;
  const [table, setTable] = useState(tableText(start.powerTable));
  const [lens, setLens] = useState<LensDraft>({
    name: 'fixed',
    focalLengthMm: 50,
    spotXMm: 0.1,
    spotYMm: 0.1,
    spotOrigin: 'measured',
    fieldMm: null,
  });
  const [key] = useState(() => crypto.randomUUID());
  const [saved, setSaved] = useState(false);
  const action = useAction();
  const kinds = quantityKinds(now.likedUnits ?? DEFAULT_LIKED_UNITS, now.ratedPowerW);
  const at = id === null ? 'machine.' : '';
  const message = (field: string): string | undefined => fieldMessage(action.problem, at + field);

  const quantity = (field: MachineField, label: string, kind: QuantityKind, hint?: string) => (
    <Controller
      control={control}
      name={field}
      render={({ field: { value, onChange } }) => (
        <QuantityField
          label={label}
          kind={kind}
          value={value as number | null}
          onChange={onChange}
          error={message(field)}
          hint={hint}
        />
      )}
    />
  );
  const setOwn = (own: OwnSpeed): void => setValue('likedUnits.ownSpeed', own);
  const submit = handleSubmit((values) =>
    action.run(async () => {
      setSaved(false);
      const json = { ...values, powerTable: readTable(table) };
      if (id === null) {
        const made = await send<{ id: number }>('/api/machines', {
          method: 'POST',
          key,
          json: { machine: json, lens },
        });
        window.location.assign(`/machines/${made.id}`);
      } else {
        await send(`/api/machines/${id}`, { method: 'PUT', json });
        setSaved(true);
      }
    }),
  );
  const retire = (): void =>
    action.run(async () => {
      await send(`/api/machines/${id}/retired`, { method: 'PUT', json: { retired: !retired } });
      window.location.reload();
    });

  return (
    <form onSubmit={submit} className={page.columns} noValidate>
      <fieldset className={page.group}>
        <legend>Machine</legend>
        <TextField label="Name" {...register('name')} error={message('name')} maxLength={60} />
        <SelectField
          label="Head"
          {...register('head', {
            onChange: (event: { target: { value: Machine['head'] } }) => {
              const mirrors = event.target.value === 'galvo';
              setValue('galvo', mirrors ? USUAL_GALVO : null);
              setValue('zero', mirrors ? 'bed-middle' : 'bed-front-left');
            },
          })}
        >
          <option value="gantry">gantry: the head travels</option>
          <option value="galvo">galvo: mirrors steer the beam</option>
        </SelectField>
        {quantity('bedWidthMm', 'Work area, width', kinds.length)}
        {quantity('bedDepthMm', 'Work area, depth', kinds.length)}
        <SelectField label="Air assist" {...register('airAssist')}>
          <option value="none">none</option>
          <option value="on-off">on or off</option>
          <option value="adjustable">adjustable</option>
        </SelectField>
        <CheckField label="Focuses by itself" {...register('automaticFocus')} />
      </fieldset>
      <fieldset className={page.group}>
        <legend>Zero and axes</legend>
        <SelectField label="Zero of its files" hint="where X0 Y0 lies" {...register('zero')}>
          {Object.entries(ZERO_PLACES).map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </SelectField>
        <SelectField label="X counts up to the" {...register('xPlus')}>
          <option value="right">right</option>
          <option value="left">left</option>
        </SelectField>
        <SelectField label="Y counts up" hint="seen from where you stand" {...register('yPlus')}>
          <option value="away">away from you</option>
          <option value="toward">toward you</option>
        </SelectField>
        <p className={page.soft}>
          If lettering burns mirrored or upside down, one of these is the other way round on your machine.
        </p>
      </fieldset>
      <fieldset className={page.group}>
        <legend>Source</legend>
        <SelectField
          label="Kind"
          {...register('sourceKind', {
            onChange: (event: { target: { value: SourceKind } }) => {
              setValue('wavelengthNm', USUAL_WAVELENGTH_NM[event.target.value]);
              setValue('powerCap', DEFAULT_POWER_CAP[event.target.value]);
              setValue('lowestFiringCommand', DEFAULT_LOWEST_FIRING[event.target.value]);
            },
          })}
        >
          {Object.entries(SOURCE_NAMES).map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </SelectField>
        {quantity('wavelengthNm', 'Wavelength', NANOMETRES)}
        {quantity('ratedPowerW', 'Rated power', WATTS)}
        {quantity('lowestFiringCommand', 'Lowest command that fires', kinds.power)}
        {quantity('powerCap', 'Power cap', kinds.power, 'usual for diodes: 80 %, to spare the source; yours to lift')}
        <label className={page.soft} htmlFor="power-table">
          Measured power, one pair a line (“20 % = 10.5 W”); empty: rated power times command
        </label>
        <textarea
          id="power-table"
          rows={5}
          value={table}
          onChange={(event) => setTable(event.target.value)}
          aria-invalid={message('powerTable') !== undefined}
        />
        {message('powerTable') && <Notice look="heat">{message('powerTable')}</Notice>}
      </fieldset>
      <fieldset className={page.group}>
        <legend>Motion</legend>
        {quantity('topSpeedXMmPerS', 'Top speed along X', kinds.speed)}
        {quantity('topSpeedYMmPerS', 'Top speed along Y', kinds.speed)}
        {now.galvo ? (
          <>
            {quantity('galvo.jumpSpeedMmPerS', 'Jump speed', kinds.speed)}
            {quantity('galvo.jumpDelayS', 'Rest after a jump', MILLISECONDS)}
            {quantity('galvo.markDelayS', 'Delays of one mark', MILLISECONDS, 'beam on, beam off and corners together')}
            <CheckField
              label="The source pulses"
              checked={now.galvo.frequencyKHz !== null}
              onChange={(event) =>
                setValue('galvo.frequencyKHz', event.target.checked ? USUAL_GALVO.frequencyKHz : null)
              }
            />
            {now.galvo.frequencyKHz && (
              <>
                {quantity('galvo.frequencyKHz.least', 'Lowest frequency', KILOHERTZ)}
                {quantity('galvo.frequencyKHz.most', 'Highest frequency', KILOHERTZ)}
              </>
            )}
          </>
        ) : (
          <>
            {quantity('accelerationXMmPerS2', 'Acceleration along X', ACCELERATION)}
            {quantity('accelerationYMmPerS2', 'Acceleration along Y', ACCELERATION)}
            <SelectField
              label="Power on ramps"
              hint="Not sure? “Held” is the careful answer."
              {...register('rampPower')}
            >
              <option value="constant">held: power stays what it is (M3)</option>
              <option value="follows-speed">lowered with speed: laser mode (M4)</option>
            </SelectField>
            <CheckField
              label="Adds run-up by itself"
              hint="then files have none: twice is too much"
              {...register('addsRunUp')}
            />
          </>
        )}
      </fieldset>
      <fieldset className={page.group}>
        <legend>Units you like</legend>
        <SelectField label="Length" {...register('likedUnits.length')}>
          <option value="mm">mm</option>
          <option value="in">in</option>
        </SelectField>
        <SelectField
          label="Speed"
          {...register('likedUnits.speed', {
            onChange: (event: { target: { value: string } }) => {
              if (event.target.value === 'own' && !now.likedUnits.ownSpeed)
                setOwn({ unit: '% speed', mmPerSPerUnit: now.topSpeedXMmPerS / 100 });
            },
          })}
        >
          <option value="mm/s">mm/s</option>
          <option value="mm/min">mm/min</option>
          <option value="own">the machine’s own scale</option>
        </SelectField>
        {now.likedUnits.speed === 'own' && (
          <OwnSpeedFields own={now.likedUnits.ownSpeed} setOwn={setOwn} error={message('likedUnits.ownSpeed')} />
        )}
        <SelectField label="Line interval" {...register('likedUnits.density')}>
          <option value="mm">interval in mm</option>
          <option value="dpi">DPI</option>
          <option value="lines/cm">lines per cm</option>
        </SelectField>
      </fieldset>
      {id === null && (
        <fieldset className={page.group}>
          <legend>First lens</legend>
          <LensFields
            lens={lens}
            onChange={setLens}
            kinds={kinds}
            source={now}
            error={(field) => fieldMessage(action.problem, `lens.${field}`)}
          />
        </fieldset>
      )}
      <div className={page.group}>
        <ProblemNotice problem={action.problem} />
        {saved && <Notice live>Saved. Cards already made keep the machine as it was.</Notice>}
        <div className={page.actions}>
          <Button look="main" type="submit" busy={action.busy}>
            {id === null ? 'Add this machine' : 'Save'}
          </Button>
          {id !== null && (
            <Button onClick={retire} busy={action.busy}>
              {retired ? 'Bring it back' : 'Retire'}
            </Button>
          )}
        </div>
      </div>
    </form>
  );
}
