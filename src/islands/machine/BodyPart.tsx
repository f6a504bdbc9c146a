import { useFormContext } from 'react-hook-form';
import { USUAL_GALVO, ZERO_PLACES, type Machine } from '../../core/machine/machine';
import { CheckField, SelectField, TextField } from '../../components/Field';
import page from '../../components/Page.module.css';
import { useMachineMessages, useMachineNow } from './machine-form';
import { MachineQuantity } from './MachineQuantity';

/** Name, head, work area and what the machine does by itself. */
export function BodyPart() {
  const { register, setValue } = useFormContext<Machine>();
  const { kinds } = useMachineNow();
  const message = useMachineMessages();
  return (
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
      <MachineQuantity name="bedWidthMm" label="Work area, width" kind={kinds.length} />
      <MachineQuantity name="bedDepthMm" label="Work area, depth" kind={kinds.length} />
      <SelectField label="Air assist" {...register('airAssist')}>
        <option value="none">none</option>
        <option value="on-off">on or off</option>
        <option value="adjustable">adjustable</option>
      </SelectField>
      <CheckField label="Focuses by itself" {...register('automaticFocus')} />
    </fieldset>
  );
}

/** Where its files begin and which way its axes count. */
export function ZeroPart() {
  const { register } = useFormContext<Machine>();
  return (
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
  );
}
