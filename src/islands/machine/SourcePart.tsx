import { useFormContext } from 'react-hook-form';
import {
  DEFAULT_LOWEST_FIRING,
  DEFAULT_POWER_CAP,
  SOURCE_NAMES,
  type Machine,
  type SourceKind,
} from '../../core/machine/machine';
import { SelectField } from '../../components/Field';
import { Notice } from '../../components/Notice';
import page from '../../components/Page.module.css';
import { NANOMETRES, WATTS } from '../../components/quantity-kinds';
import { useMachineMessages, useMachineNow } from './machine-form';
import { MachineQuantity } from './MachineQuantity';

const USUAL_WAVELENGTH_NM: Readonly<Record<SourceKind, number>> = {
  'blue-diode': 450,
  'co2-glass': 10600,
  'co2-rf': 10600,
  fibre: 1064,
  uv: 355,
};

/** The source: kind, power, what fires, and the power measured, as typed. */
export function SourcePart({ table, setTable }: { table: string; setTable: (text: string) => void }) {
  const { register, setValue } = useFormContext<Machine>();
  const { kinds } = useMachineNow();
  const message = useMachineMessages();
  return (
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
      <MachineQuantity name="wavelengthNm" label="Wavelength" kind={NANOMETRES} />
      <MachineQuantity name="ratedPowerW" label="Rated power" kind={WATTS} />
      <MachineQuantity name="lowestFiringCommand" label="Lowest command that fires" kind={kinds.power} />
      <MachineQuantity
        name="powerCap"
        label="Power cap"
        kind={kinds.power}
        hint="usual for diodes: 80 %, to spare the source; yours to lift"
      />
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
  );
}
