import type { ButtonHTMLAttributes, ReactNode } from 'react';
import styles from './Button.module.css';

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: 'main' | 'plain' | 'heat';
  readonly busy?: boolean;
  /** The key that does the same, shown on the button. */
  readonly shortcut?: string;
  readonly children: ReactNode;
}

export function Button({ look = 'plain', busy = false, shortcut, children, disabled, className, ...rest }: Props) {
  return (
    <button
      type="button"
      {...rest}
      className={[styles.button, styles[look], className].filter(Boolean).join(' ')}
      disabled={disabled || busy}
      aria-busy={busy}
    >
      {children}
      {shortcut && <kbd className={styles.key}>{shortcut}</kbd>}
    </button>
  );
}

export function LinkButton({
  look = 'plain',
  href,
  children,
  download,
}: {
  look?: 'main' | 'plain';
  href: string;
  children: ReactNode;
  download?: boolean;
}) {
  return (
    <a className={`${styles.button} ${styles[look]}`} href={href} {...(download ? { download: '' } : {})}>
      {children}
    </a>
  );
}
