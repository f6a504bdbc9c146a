import type { Fate } from '../core/card/layout';

export const FATE_WORDS: Readonly<Record<Fate, string>> = {
  'no-mark': 'bound to leave no mark',
  overburn: 'bound to spoil the sheet',
  'does-not-fire': 'below the firing command',
  'too-fast': 'faster than the head',
};
