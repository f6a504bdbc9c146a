import { plainNumber } from '../quantities/format';
import { signed } from './channels';
import type { BurnSettings } from './settings';

/** What is the same in every cell, for the second line of a card's lettering; what varies is left out by not being given. */
export function constantsText(constants: Partial<BurnSettings>): string {
  const { powerFraction, speedMmPerS, intervalMm, passes, focusOffsetMm, air, direction, bothWays } = constants;
  const parts = [
    powerFraction === undefined ? '' : `${plainNumber(Math.round(powerFraction * 1000) / 10)}%`,
    speedMmPerS === undefined ? '' : `${plainNumber(speedMmPerS)}MM/S`,
    intervalMm === undefined ? '' : `INT ${plainNumber(intervalMm)}`,
    passes === undefined ? '' : `N${passes}`,
    focusOffsetMm === undefined ? '' : `F${signed(focusOffsetMm)}`,
    air === undefined ? '' : `AIR ${air}`,
    direction === undefined ? '' : direction === 'horizontal' ? 'X' : 'Y',
    bothWays === undefined ? '' : bothWays ? 'BOTH WAYS' : 'ONE WAY',
  ];
  return parts.filter(Boolean).join(' ');
}
