import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rowOfBoxes } from '../../core/card/row';
import { rectRing } from '../../core/card/shape';
import { formatPower } from '../../core/quantities/format';
import { patchPowers, type SheetCheckPlan } from './plan';

/** One row of patches that differ by nothing but power. */
export function drawSheetCheck(plan: SheetCheckPlan, on: Pairing): Drawn {
  const { patchMm, gapMm, constants } = plan;
  const powers = patchPowers(plan, on.machine.powerCap);
  const boxes = rowOfBoxes(powers.length, patchMm, patchMm, gapMm);
  return {
    widthMm: Math.round((powers.length * (patchMm + gapMm) - gapMm) * 1e4) / 1e4,
    heightMm: patchMm,
    cells: powers.map((powerFraction, place) => {
      const settings = { ...constants, powerFraction };
      return {
        box: boxes[place]!,
        levels: { power: powerFraction },
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(boxes[place]!)] }, settings }],
        risk: deliveredBy(settings, on).arealJPerMm2,
        expected: null,
        leftOut: false,
      };
    }),
    before: [],
    after: [],
    labels: [],
    units: `CHECK ${formatPower(constants.powerFraction)}`,
    caption: `AROUND ${formatPower(constants.powerFraction)}`,
    constants: constantsText(constants, on.machine.likedUnits),
    markers: 'four',
    air: constants.air,
  };
}
