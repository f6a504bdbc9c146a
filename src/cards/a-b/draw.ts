import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rowOfBoxes } from '../../core/card/row';
import type { BurnSettings } from '../../core/card/settings';
import { rectRing } from '../../core/card/shape';
import { sidesOf, type ABPlan } from './plan';

const CAPTIONS: Readonly<Record<ABPlan['what'], string>> = {
  air: 'AIR',
  direction: 'LINES X / Y',
  bothWays: 'ONE / BOTH WAYS',
  passes: 'PASSES',
  intervalMm: 'INTERVAL',
  focusOffsetMm: 'FOCUS',
  lineAngleDeg: 'LINES TURNED',
  crossHatch: 'CROSSED',
  frequencyKHz: 'PULSES',
  prepared: 'MADE READY',
  cleaned: 'CLEANED',
};

const common = ({ what, constants }: ABPlan, on: Pairing) => ({
  before: [],
  after: [],
  units: 'A B',
  caption: `A AGAINST B ${CAPTIONS[what]}`,
  constants: constantsText(constants, on.machine.likedUnits),
  markers: 'four' as const,
  air: constants.air,
});

/** What the cells of a card stand for that are looked at before and after they are cleaned. */
export const BEFORE_AND_AFTER = 'before and after cleaning';

/** One row of patches, all alike: each is looked at twice. */
function drawTwice({ pairs, patchMm, gapMm }: ABPlan, on: Pairing, settings: BurnSettings) {
  const cells = rowOfBoxes(pairs, patchMm, patchMm, gapMm).map((box) => ({
    box,
    levels: { either: BEFORE_AND_AFTER },
    burns: [{ shape: { do: 'sweep' as const, area: [rectRing(box)] }, settings }],
    risk: deliveredBy(settings, on).arealJPerMm2,
    expected: null,
    leftOut: false,
  }));
  return {
    widthMm: Math.round((pairs * (patchMm + gapMm) - gapMm) * 1e4) / 1e4,
    heightMm: patchMm,
    cells,
    labels: [],
  };
}

/**
 * Two rows of patches, A above B and B above A by turns, so that light which falls off along either way favours neither; stock that is made ready in two
 * ways has A above B throughout, since tape and coats come in strips.
 */
export function drawAB(plan: ABPlan, on: Pairing): Drawn {
  const { what, pairs, patchMm, gapMm } = plan;
  const { a, b } = sidesOf(plan, on.machine.likedUnits);
  const columns = rowOfBoxes(pairs, patchMm, patchMm, gapMm);
  if (what === 'cleaned') return { ...common(plan, on), ...drawTwice(plan, on, a.settings) };
  const aAbove = (column: number): boolean => what === 'prepared' || column % 2 === 0;
  const cells = [0, 1].flatMap((row) =>
    columns.map((box, column) => {
      const isA = aAbove(column) === (row === 0);
      const { settings, words } = isA ? a : b;
      const at = { ...box, y: row === 0 ? 0 : patchMm + gapMm };
      return {
        box: at,
        levels: { either: `${isA ? 'A' : 'B'}: ${words}` },
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(at)] }, settings }],
        risk: deliveredBy(settings, on).arealJPerMm2,
        expected: null,
        leftOut: false,
      };
    }),
  );
  const labels =
    what === 'prepared'
      ? [0, pairs].map((index, row) => ({
          text: row === 0 ? 'A' : 'B',
          means: row === 0 ? a.words : b.words,
          edge: 'beside' as const,
          box: cells[index]!.box,
        }))
      : columns.map((box, column) => ({
          text: aAbove(column) ? 'A' : 'B',
          means: aAbove(column) ? 'A above B' : 'B above A',
          edge: 'above' as const,
          box,
        }));
  return {
    ...common(plan, on),
    widthMm: Math.round((pairs * (patchMm + gapMm) - gapMm) * 1e4) / 1e4,
    heightMm: Math.round((2 * patchMm + gapMm) * 1e4) / 1e4,
    cells,
    labels,
  };
}
