import type { Difference, VersionView } from './book-views';
import {
  formatInterval,
  formatLength,
  formatPower,
  formatSpeed,
  plainNumber,
  type LikedUnits,
} from '../core/quantities/format';
import type { BurnSettings } from '../core/card/settings';

type Value = string | number | boolean;

const FIELDS: Readonly<
  Record<keyof BurnSettings, readonly [name: string, words: (value: Value, liked: LikedUnits) => string]>
> = {
  powerFraction: ['Power', (value) => formatPower(Number(value))],
  speedMmPerS: ['Speed', (value, liked) => formatSpeed(Number(value), liked)],
  intervalMm: ['Line interval', (value, liked) => formatInterval(Number(value), liked)],
  passes: ['Passes', String],
  focusOffsetMm: ['Focus offset', (value, liked) => formatLength(Number(value), liked)],
  air: ['Air', String],
  direction: ['Lines run', (value) => (value === 'horizontal' ? 'left and right' : 'to and fro')],
  bothWays: ['Burns', (value) => (value ? 'both ways' : 'one way')],
};

/** A version's numbers in words, in the units the operator likes. */
export function settingRows(version: VersionView, liked: LikedUnits): [label: string, value: string][] {
  const { settings, lightness, lightnessSigma, confidence } = version;
  const rows = (Object.keys(FIELDS) as (keyof BurnSettings)[]).map((field): [string, string] => {
    const [name, words] = FIELDS[field];
    return [name, words(settings[field], liked)];
  });
  rows.push([
    'Lightness',
    lightness === null
      ? 'not read: kept by eye'
      : `L* ${plainNumber(lightness, 3)} ± ${plainNumber(2 * (lightnessSigma ?? 0), 2)} (95 %)`,
  ]);
  if (confidence !== null) rows.push(['Confidence', `${plainNumber(confidence * 100, 3)} %`]);
  return rows;
}

export function differenceWords({ field, before, after }: Difference, liked: LikedUnits): string {
  const [name, words] = FIELDS[field];
  return `${name}: ${words(before, liked)} → ${words(after, liked)}`;
}
