import { useFormContext, useWatch } from 'react-hook-form';
import type { StockInput } from '../../records/stock';
import { BANNED_MATERIALS } from '../../core/stock/banned';
import { bareFaceOf, FAMILIES } from '../../core/stock/families';
import { CheckField, SelectField, TextField } from '../../components/Field';
import page from '../../components/Page.module.css';
import { LIGHTNESS } from '../../components/quantity-kinds';
import { useStockMessages } from './stock-form';
import { StockQuantity } from './StockQuantity';

function FamilyOptions() {
  return (
    <>
      <optgroup label="May be burned">
        {FAMILIES.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </optgroup>
      <optgroup label="Never burned">
        {BANNED_MATERIALS.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </optgroup>
    </>
  );
}

/** What the stock is made of and how it looks bare. */
export function WhatPart() {
  const { register, setValue } = useFormContext<StockInput>();
  const message = useStockMessages();
  const familyId = useWatch<StockInput, 'family'>({ name: 'family' });
  const family = FAMILIES.find(({ id }) => id === familyId);
  /** A known type brings its face along; a name of the operator's own leaves what was set. */
  const chooseType = (type: string, ofFamily: string): void => {
    const of = FAMILIES.find(({ id }) => id === ofFamily);
    if (!of?.types.some(({ name }) => name === type)) return;
    const face = bareFaceOf({ family: ofFamily, type });
    setValue('colour', face.colour);
    setValue('bareLightness', face.lightness);
  };
  const chooseFamily = (next: string): void => {
    const chosen = FAMILIES.find(({ id }) => id === next);
    if (!chosen) return;
    setValue('type', chosen.types[0].name);
    chooseType(chosen.types[0].name, next);
  };
  return (
    <fieldset className={page.group}>
      <legend>What it is</legend>
      <TextField label="Name" {...register('name')} error={message('name')} maxLength={60} />
      <SelectField
        label="Family"
        {...register('family', {
          onChange: (event: { target: { value: string } }) => chooseFamily(event.target.value),
        })}
        error={message('family')}
      >
        <FamilyOptions />
      </SelectField>
      <TextField
        label="Type"
        {...register('type', {
          onChange: (event: { target: { value: string } }) => chooseType(event.target.value, familyId),
        })}
        list="types"
        error={message('type')}
      />
      <datalist id="types">
        {family?.types.map(({ name }) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <div className={page.pair}>
        <TextField label="Colour when bare" type="color" {...register('colour')} error={message('colour')} />
        <StockQuantity name="bareLightness" label="Lightness when bare" kind={LIGHTNESS} />
      </div>
      <TextField label="Coating, if any" {...register('coating')} error={message('coating')} />
      <SelectField label="Coating’s side" {...register('coatingSide')}>
        <option value="none">no coating</option>
        <option value="top">top</option>
        <option value="bottom">bottom</option>
        <option value="both">both</option>
      </SelectField>
      <CheckField label="Adhesive backing" {...register('adhesiveBacking')} />
    </fieldset>
  );
}
