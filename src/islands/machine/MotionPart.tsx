import { useFormContext } from 'react-hook-form';
import { USUAL_GALVO, type Machine } from '../../core/machine/machine';
import { CheckField, SelectField } from '../../components/Field';
import page from '../../components/Page.module.css';
import { ACCELERATION, KILOHERTZ, MILLISECONDS } from '../../components/quantity-kinds';
import { useMachineNow } from './machine-form';
import { MachineQuantity } from './MachineQuantity';

function GalvoFields({ galvo }: { galvo: NonNullable<Machine['galvo']> }) {
  const { setValue } = useFormContext<Machine>();
  const { kinds } = useMachineNow();
  return (
    <>
      <MachineQuantity name="galvo.jumpSpeedMmPerS" label="Jump speed" kind={kinds.speed} />
      <MachineQuantity name="galvo.jumpDelayS" label="Rest after a jump" kind={MILLISECONDS} />
      <MachineQuantity
        name="galvo.markDelayS"
        label="Delays of one mark"
        kind={MILLISECONDS}
        hint="beam on, beam off and corners together"
      />
      <CheckField
        label="The source pulses"
        checked={galvo.frequencyKHz !== null}
        onChange={(event) => setValue('galvo.frequencyKHz', event.target.checked ? USUAL_GALVO.frequencyKHz : null)}
      />
      {galvo.frequencyKHz && (
        <>
          <MachineQuantity name="galvo.frequencyKHz.least" label="Lowest frequency" kind={KILOHERTZ} />
          <MachineQuantity name="galvo.frequencyKHz.most" label="Highest frequency" kind={KILOHERTZ} />
        </>
      )}
    </>
  );
}

function GantryFields() {
  const { register } = useFormContext<Machine>();
  return (
    <>
      <MachineQuantity name="accelerationXMmPerS2" label="Acceleration along X" kind={ACCELERATION} />
      <MachineQuantity name="accelerationYMmPerS2" label="Acceleration along Y" kind={ACCELERATION} />
      <SelectField label="Power on ramps" hint="Not sure? “Held” is the careful answer." {...register('rampPower')}>
        <option value="constant">held: power stays what it is (M3)</option>
        <option value="follows-speed">lowered with speed: laser mode (M4)</option>
      </SelectField>
      <CheckField
        label="Adds run-up by itself"
        hint="then files have none: twice is too much"
        {...register('addsRunUp')}
      />
    </>
  );
}

/** How the head or the beam moves. */
export function MotionPart() {
  const { now, kinds } = useMachineNow();
  return (
    <fieldset className={page.group}>
      <legend>Motion</legend>
      <MachineQuantity name="topSpeedXMmPerS" label="Top speed along X" kind={kinds.speed} />
      <MachineQuantity name="topSpeedYMmPerS" label="Top speed along Y" kind={kinds.speed} />
      {now.galvo ? <GalvoFields galvo={now.galvo} /> : <GantryFields />}
    </fieldset>
  );
}
