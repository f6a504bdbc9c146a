import { PLAIN_EXTRAS, type BurnSettings } from '../../src/core/card/settings';

/** A plain fill whose numbers can be followed by hand. */
export const PLAIN_FILL: BurnSettings = {
  powerFraction: 0.2,
  speedMmPerS: 100,
  intervalMm: 0.1,
  passes: 1,
  focusOffsetMm: 0,
  air: 'off',
  direction: 'horizontal',
  bothWays: true,
  ...PLAIN_EXTRAS,
};
