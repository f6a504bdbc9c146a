import { axisValues } from '../../core/card/axis';
import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rowOfBoxes } from '../../core/card/row';
import { rectRing } from '../../core/card/shape';
import type { FocusPlan } from './plan';

export function drawFocus(plan: FocusPlan, on: Pairing): Drawn {
  const { patchMm, gapMm, constants } = plan;
  const liked = on.machine.likedUnits;
  const offsets = axisValues(plan.focus).map((mm) => Math.round(mm * 1000) / 1000 + 0);
  const boxes = rowOfBoxes(offsets.length, patchMm, patchMm, gapMm);
  const cells = offsets.map((focusOffsetMm, index) => {
    const box = boxes[index]!;
    const settings = { ...constants, focusOffsetMm };
    return {
      box,
      levels: { focus: focusOffsetMm },
      burns: [{ shape: { do: 'sweep' as const, area: [rectRing(box)] }, settings }],
      risk: deliveredBy(settings, on).arealJPerMm2,
      expected: null,
      leftOut: false,
    };
  });
  return {
    widthMm: boxes.at(-1)!.x + patchMm,
    heightMm: patchMm,
    cells,
    before: [],
    after: [],
    labels: cells.map(({ levels, box }) => {
      const { text, means } = letterOf('focus', levels.focus, liked);
      return { text, means, edge: 'above' as const, box };
    }),
    units: `FOCUS ${liked.length.toUpperCase()}`,
    caption: `FOCUS ${liked.length.toUpperCase()}, + RAISED`,
    constants: constantsText(constants, liked),
    markers: 'four',
    air: constants.air,
  };
}
