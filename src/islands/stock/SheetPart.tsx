import { useFormContext, useWatch } from 'react-hook-form';
import type { StockInput } from '../../records/stock';
import { OUTLINES } from '../../core/stock/outline';
import type { Thickness } from '../../core/stock/stock';
import { plainNumber } from '../../core/quantities/format';
import { CheckField, SelectField, TextField } from '../../components/Field';
import page from '../../components/Page.module.css';
import { COUNT } from '../../components/quantity-kinds';
import { STOCK_KINDS, useStockMessages } from './stock-form';
import { StockQuantity } from './StockQuantity';

function thicknessHint({ origin, meanMm, spreadMm, readings }: Thickness): string {
  if (origin !== 'measured') return 'the label often lies: measure in three places';
  const of = spreadMm === null ? 'one reading' : `spread ${plainNumber(spreadMm, 2)} mm of ${readings}`;
  return `${plainNumber(meanMm, 4)} mm, ${of}`;
}

/** The sheet or the blanks: thickness as labelled and measured, size, outline, batch. */
export function SheetPart({
  readings,
  setReadings,
  misread,
  thickness,
}: {
  /** Thickness readings as typed. */
  readings: string;
  setReadings: (text: string) => void;
  misread: string | null;
  thickness: Thickness;
}) {
  const { register, setValue } = useFormContext<StockInput>();
  const message = useStockMessages();
  const [blanks, shape] = useWatch<StockInput, ['blanks', 'outline.shape']>({ name: ['blanks', 'outline.shape'] });
  return (
    <fieldset className={page.group}>
      <legend>The sheet</legend>
      <StockQuantity name="nominalThicknessMm" label="Thickness by the label" kind={STOCK_KINDS.length} />
      <TextField
        label="Thickness measured, several places"
        value={readings}
        placeholder="3.08; 3.12; 0.122 in"
        onChange={(event) => setReadings(event.target.value)}
        error={misread ?? message('thicknessReadingsMm')}
        hint={thicknessHint(thickness)}
      />
      <SelectField label="Grain runs" {...register('grain')}>
        <option value="none">no grain</option>
        <option value="along-width">along the width</option>
        <option value="along-depth">along the depth</option>
      </SelectField>
      <CheckField
        label="Counted blanks, not sheets"
        hint="coasters, tags, tiles: each card lies on one of them"
        checked={blanks !== null}
        onChange={(event) => setValue('blanks', event.target.checked ? { count: 10 } : null)}
      />
      {blanks && <StockQuantity name="blanks.count" label="How many" kind={COUNT} />}
      <SelectField label="Outline" {...register('outline.shape')}>
        {Object.entries(OUTLINES).map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </SelectField>
      {shape === 'rounded' && (
        <StockQuantity name="outline.radiusMm" label="Radius of its corners" kind={STOCK_KINDS.length} />
      )}
      <div className={page.pair}>
        <StockQuantity name="sheetWidthMm" label={blanks ? 'Blank, width' : 'Sheet width'} kind={STOCK_KINDS.length} />
        <StockQuantity name="sheetDepthMm" label={blanks ? 'Blank, depth' : 'Sheet depth'} kind={STOCK_KINDS.length} />
      </div>
      <TextField
        label="Supplier’s batch"
        {...register('batch')}
        error={message('batch')}
        hint="a new batch makes old findings stale"
      />
      <TextField label="Since" type="date" {...register('acquiredOn')} error={message('acquiredOn')} />
    </fieldset>
  );
}
