import { useFormContext } from 'react-hook-form';
import type { Machine } from '../../core/machine/machine';
import type { OwnSpeed } from '../../core/quantities/format';
import { SelectField } from '../../components/Field';
import page from '../../components/Page.module.css';
import { QuantityField } from '../../components/QuantityField';
import { numberWith } from '../../components/quantity-kinds';
import { useMachineMessages, useMachineNow } from './machine-form';

/** The machine's own scale of speed: what its numbers mean. */
function OwnSpeedFields({ own }: { own: OwnSpeed }) {
  const { setValue } = useFormContext<Machine>();
  const message = useMachineMessages();
  const set = (next: OwnSpeed): void => setValue('likedUnits.ownSpeed', next);
  const perCent = own.unit === '% speed';
  return (
    <>
      <SelectField
        label="It states speed in"
        value={own.unit}
        onChange={(event) => {
          const unit = event.target.value as OwnSpeed['unit'];
          set({ unit, mmPerSPerUnit: unit === 'dots/s' ? 25.4 / 500 : 4 });
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
          value !== null && value > 0 && set({ ...own, mmPerSPerUnit: perCent ? value / 100 : 25.4 / value })
        }
        error={message('likedUnits.ownSpeed')}
        hint={
          perCent ? 'measure it: a long line, a stopwatch, the slope of both' : 'its own dot pitch, not the picture’s'
        }
      />
    </>
  );
}

/** The units in which the operator of this machine thinks. */
export function UnitsPart() {
  const { register, setValue } = useFormContext<Machine>();
  const { now } = useMachineNow();
  return (
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
              setValue('likedUnits.ownSpeed', { unit: '% speed', mmPerSPerUnit: now.topSpeedXMmPerS / 100 });
          },
        })}
      >
        <option value="mm/s">mm/s</option>
        <option value="mm/min">mm/min</option>
        <option value="own">the machine’s own scale</option>
      </SelectField>
      {now.likedUnits.speed === 'own' && now.likedUnits.ownSpeed && <OwnSpeedFields own={now.likedUnits.ownSpeed} />}
      <SelectField label="Line interval" {...register('likedUnits.density')}>
        <option value="mm">interval in mm</option>
        <option value="dpi">DPI</option>
        <option value="lines/cm">lines per cm</option>
      </SelectField>
    </fieldset>
  );
}
