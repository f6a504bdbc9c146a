import { useId, type InputHTMLAttributes, type ReactNode, type SelectHTMLAttributes } from 'react';
import styles from './Field.module.css';

interface Shared {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly error?: string | undefined;
  readonly compact?: boolean;
}

/** Label, control, hint and error, tied together for screen readers. */
function Frame({ label, hint, error, compact, id, children }: Shared & { id: string; children: ReactNode }) {
  return (
    <div className={`${styles.field} ${compact ? styles.compact : ''}`}>
      <label htmlFor={id}>{label}</label>
      {children}
      {hint && !error && (
        <p className={styles.hint} id={`${id}-hint`}>
          {hint}
        </p>
      )}
      {error && (
        <p className={styles.error} id={`${id}-error`} role="alert">
          {error}
        </p>
      )}
    </div>
  );
}

const described = (id: string, hint: ReactNode, error: string | undefined) =>
  error
    ? { 'aria-invalid': true as const, 'aria-describedby': `${id}-error` }
    : hint
      ? { 'aria-describedby': `${id}-hint` }
      : {};

export function TextField({ label, hint, error, compact, ...rest }: Shared & InputHTMLAttributes<HTMLInputElement>) {
  const own = useId();
  const id = rest.id ?? own;
  return (
    <Frame {...{ label, hint, error, compact, id }}>
      <input className={styles.control} autoComplete="off" {...rest} id={id} {...described(id, hint, error)} />
    </Frame>
  );
}

export function SelectField({
  label,
  hint,
  error,
  compact,
  children,
  ...rest
}: Shared & SelectHTMLAttributes<HTMLSelectElement>) {
  const own = useId();
  const id = rest.id ?? own;
  return (
    <Frame {...{ label, hint, error, compact, id }}>
      <select className={styles.control} {...rest} id={id} {...described(id, hint, error)}>
        {children}
      </select>
    </Frame>
  );
}

export function CheckField({
  label,
  hint,
  ...rest
}: { label: ReactNode; hint?: ReactNode } & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className={styles.check}>
      <input type="checkbox" {...rest} />
      <span>
        {label}
        {hint && <span className={styles.hint}> {hint}</span>}
      </span>
    </label>
  );
}
