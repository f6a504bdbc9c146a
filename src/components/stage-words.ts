import type { CardStage } from '../core/book/ladder';

/** How far a card has come. */
export const STAGE_WORDS: Readonly<Record<CardStage, string>> = {
  planned: 'planned, not burned',
  burning: 'burning now',
  burned: 'burned, not looked at',
  photographed: 'photo not read',
  seen: 'looked at',
};
