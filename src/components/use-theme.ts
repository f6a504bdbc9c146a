import { useSyncExternalStore } from 'react';

const themeNow = (): string => document.documentElement.dataset['theme'] ?? '';

function onChange(tell: () => void): () => void {
  const observer = new MutationObserver(tell);
  observer.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  return () => observer.disconnect();
}

/** The page's theme, for what is drawn with colours of its own: a canvas does not follow the page's by itself. Empty before the page is there. */
export const useTheme = (): string => useSyncExternalStore(onChange, themeNow, () => '');
