import { createContext, useContext } from 'react';
import type { StockInput } from '../../records/stock';
import { FAMILIES } from '../../core/stock/families';
import { RECTANGLE } from '../../core/stock/outline';
import { DEFAULT_LIKED_UNITS } from '../../core/quantities/format';
import { quantityKinds } from '../../components/quantity-kinds';

const FIRST = FAMILIES[0];

export const FRESH_STOCK: StockInput = {
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

/** Stock belongs to no machine: its lengths are typed as one likes and shown in mm. */
export const STOCK_KINDS = quantityKinds(DEFAULT_LIKED_UNITS);

/** What the server said of a field of the stock, if anything. */
export const StockMessages = createContext<(field: string) => string | undefined>(() => undefined);
export const useStockMessages = () => useContext(StockMessages);
