import type { FieldPath } from 'react-hook-form';
import type { StockInput } from '../../records/stock';
import { FormQuantity } from '../../components/FormQuantity';
import type { QuantityKind } from '../../components/QuantityField';
import { useStockMessages } from './stock-form';

/** A quantity of the stock, with what the server said of it. */
export function StockQuantity(props: { name: FieldPath<StockInput>; label: string; kind: QuantityKind }) {
  const message = useStockMessages();
  return <FormQuantity<StockInput> {...props} error={message(props.name)} />;
}
