import { useId } from 'react';
import { TextField } from './Field';

const USUAL = ['weak', 'medium', 'strong'];

/** Which shade of a process a setting is kept as: several stand side by side in the book. */
export function ShadeField({
  shade,
  onShade,
  known,
}: {
  shade: string;
  onShade: (shade: string) => void;
  known: readonly string[];
}) {
  const list = useId();
  return (
    <>
      <TextField
        label="Shade"
        list={list}
        value={shade}
        maxLength={40}
        hint="weak, medium, strong or a name of yours; empty for the usual one. Each stays current beside the others."
        onChange={(event) => onShade(event.target.value)}
      />
      <datalist id={list}>
        {[...new Set([...USUAL, ...known])].map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  );
}
