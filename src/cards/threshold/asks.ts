import type { Ask } from '../../core/card/asks';

export const MARK_FIELD = 'mark';

export const THRESHOLD_ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  {
    field: MARK_FIELD,
    by: 'eye',
    of: 'cell',
    question: 'Does it leave any mark?',
    options: [
      { id: 'marked', key: 'm', name: 'a mark' },
      { id: 'nothing', key: 'n', name: 'nothing' },
    ],
  },
];
