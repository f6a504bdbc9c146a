import { eyeAsk, type Ask } from '../../core/card/asks';

export const MARK_FIELD = 'mark';

export const THRESHOLD_ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  eyeAsk(MARK_FIELD, 'Does it leave any mark?', [
    ['marked', 'm', 'a mark'],
    ['nothing', 'n', 'nothing'],
  ]),
];
