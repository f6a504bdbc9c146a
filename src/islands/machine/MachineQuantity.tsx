import type { FieldPath } from 'react-hook-form';
import type { Machine } from '../../core/machine/machine';
import { FormQuantity } from '../../components/FormQuantity';
import type { QuantityKind } from '../../components/QuantityField';
import { useMachineMessages } from './machine-form';

/** A quantity of the machine, with what the server said of it. */
export function MachineQuantity(props: { name: FieldPath<Machine>; label: string; kind: QuantityKind; hint?: string }) {
  const message = useMachineMessages();
  return <FormQuantity<Machine> {...props} error={message(props.name)} />;
}
