import { formatInterval, formatPower, formatSpeed, type LikedUnits } from '../quantities/format';
import { letterOf } from './channels';
import type { BurnSettings } from './settings';

/** Millimetres go without saying; other units are named. */
const intervalWords = (intervalMm: number, liked: LikedUnits): string =>
  formatInterval(intervalMm, liked).replace(' mm', '').toUpperCase();

/** What is the same in every cell, for the second line of a card's lettering; what varies is left out by not being given. */
export function constantsText(constants: Partial<BurnSettings>, liked: LikedUnits): string {
  const { powerFraction, speedMmPerS, intervalMm, passes, focusOffsetMm, air, direction, bothWays } = constants;
  const parts = [
    powerFraction === undefined ? '' : formatPower(powerFraction).replace(' ', ''),
    speedMmPerS === undefined ? '' : formatSpeed(speedMmPerS, liked).replace(' ', '').toUpperCase(),
    intervalMm === undefined ? '' : `INT ${intervalWords(intervalMm, liked)}`,
    passes === undefined ? '' : `N${passes}`,
    focusOffsetMm === undefined ? '' : `FOCUS ${letterOf('focus', focusOffsetMm, liked).text}`,
    air === undefined ? '' : `AIR ${air}`,
    direction === undefined ? '' : direction === 'horizontal' ? 'X' : 'Y',
    bothWays === undefined ? '' : bothWays ? 'BOTH WAYS' : 'ONE WAY',
  ];
  return parts.filter(Boolean).join(' ');
}

/** The same of a cut that all cells share. */
export const cutText = (
  { powerFraction, speedMmPerS, passes, focusOffsetMm, air }: BurnSettings,
  liked: LikedUnits,
): string => constantsText({ powerFraction, speedMmPerS, passes, focusOffsetMm, air }, liked);
