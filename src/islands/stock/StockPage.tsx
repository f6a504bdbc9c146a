import { useState } from 'react';
import { FormProvider, useForm, useWatch } from 'react-hook-form';
import type { StockInput, StockRecord } from '../../records/stock';
import type { Machine } from '../../core/machine/machine';
import { thicknessOf } from '../../core/stock/stock';
import { readThicknessReadings, thicknessReadingsText } from '../../core/stock/thickness-readings';
import { QuantityError } from '../../core/quantities/parse';
import page from '../../components/Page.module.css';
import { RecordActions, RetiredNotice } from '../../components/RecordActions';
import { fieldMessage } from '../../views/problem';
import { useRecord } from '../../views/use-record';
import { SafetyPart } from './SafetyPart';
import { SheetPart } from './SheetPart';
import { FRESH_STOCK, StockMessages } from './stock-form';
import { WhatPart } from './WhatPart';

function readOrSay(text: string): { readings: number[]; misread: string | null } {
  try {
    return { readings: readThicknessReadings(text), misread: null };
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
  const { id, retired, ...start } = stock ?? { ...FRESH_STOCK, id: null, retired: false };
  const form = useForm<StockInput>({ defaultValues: start });
  const now = useWatch({ control: form.control }) as StockInput;
  const [readingsText, setReadingsText] = useState(thicknessReadingsText(start.thicknessReadingsMm));
  const { readings, misread } = readOrSay(readingsText);
  const record = useRecord('/stock', id, retired);
  const draft = { ...now, thicknessReadingsMm: readings };
  const submit = form.handleSubmit((values) =>
    record.save({ ...values, thicknessReadingsMm: readings, acquiredOn: values.acquiredOn || null }),
  );
  return (
    <div className={page.page}>
      <h1>{stock ? stock.name : 'New stock'}</h1>
      {retired && <RetiredNotice />}
      <FormProvider {...form}>
        <StockMessages.Provider value={(field) => fieldMessage(record.action.problem, field)}>
          <form onSubmit={submit} className={page.columns} noValidate>
            <WhatPart />
            <SheetPart
              readings={readingsText}
              setReadings={setReadingsText}
              misread={misread}
              thickness={thicknessOf(draft)}
            />
            <section className={page.group} id="safety" aria-label="Safety">
              <SafetyPart stock={draft} machines={machines} />
              <RecordActions
                record={record}
                add="Add this stock"
                kept="Cards already made keep the stock as it was."
                blocked={misread !== null}
              />
            </section>
          </form>
        </StockMessages.Provider>
      </FormProvider>
    </div>
  );
}
