import { useState } from 'react';
import styles from './ThemeSwitch.module.css';

/** Light for the shop, dim for a dark booth. Remembered in a cookie, so that the server draws the right one at once. */
export function ThemeSwitch({ theme }: { theme: 'light' | 'dim' }) {
  const [now, setNow] = useState(theme);
  const other = now === 'dim' ? 'light' : 'dim';
  const change = (): void => {
    document.documentElement.dataset['theme'] = other;
    document.cookie = `theme=${other}; path=/; max-age=31536000; samesite=lax`;
    setNow(other);
  };
  return (
    <button type="button" className={styles.switch} onClick={change}>
      {other === 'dim' ? 'Dim the lights' : 'Lights up'}
    </button>
  );
}
