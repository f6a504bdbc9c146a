import { useEffect, useState } from 'react';
import { QuantityError } from '../core/quantities/parse';
import { TextField } from './Field';

export interface QuantityKind {
  readonly parse: (text: string) => number;
  readonly format: (value: number) => string;
}

interface Props {
  readonly label: string;
  /** Canonical value; null when nothing usable was typed. */
  readonly value: number | null;
  readonly kind: QuantityKind;
  readonly onChange: (value: number | null) => void;
  readonly error?: string | undefined;
  readonly hint?: string | undefined;
  readonly compact?: boolean;
  readonly optional?: boolean;
  readonly id?: string;
}

/** A number typed freely, with or without unit ("1/8 in", "600 mm/min"); on leaving the field it shows the canonical value. */
export function QuantityField({ label, value, kind, onChange, error, hint, compact, optional, id }: Props) {
  const [text, setText] = useState(() => (value === null ? '' : kind.format(value)));
  const [editing, setEditing] = useState(false);
  const [misread, setMisread] = useState<string | undefined>();
  useEffect(() => {
    if (!editing && value !== null) setText(kind.format(value));
    // Formatting follows the value and the liked units only while nobody types.
  }, [value, editing, kind]);

  const read = (typed: string): number | null => {
    if (typed.trim() === '' && optional) {
      setMisread(undefined);
      return null;
    }
    try {
      const parsed = kind.parse(typed);
      setMisread(undefined);
      return parsed;
    } catch (problem) {
      if (!(problem instanceof QuantityError)) throw problem;
      setMisread(problem.message.charAt(0).toUpperCase() + problem.message.slice(1));
      return null;
    }
  };
  const shownAs =
    value !== null && editing && kind.format(value) !== text.trim() ? `= ${kind.format(value)}` : undefined;
  return (
    <TextField
      {...(id ? { id } : {})}
      label={label}
      compact={compact ?? false}
      value={text}
      inputMode="text"
      error={misread ?? error}
      hint={shownAs ?? hint}
      onFocus={() => setEditing(true)}
      onBlur={() => setEditing(false)}
      onChange={(event) => {
        setText(event.target.value);
        onChange(read(event.target.value));
      }}
    />
  );
}
