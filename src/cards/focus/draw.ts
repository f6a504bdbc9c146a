import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rowOfBoxes } from '../../core/card/row';
import { rectRing } from '../../core/card/shape';
import { fallOf, patchOffsets, type FocusPlan } from './plan';

export function drawFocus(plan: FocusPlan, on: Pairing): Drawn {
  const { patchMm, gapMm, constants } = plan;
  const liked = on.machine.likedUnits;
  const offsets = patchOffsets(plan);
  const tilted = plan.way === 'tilt';
  const boxes = rowOfBoxes(offsets.length, patchMm, patchMm, gapMm);
  const cells = offsets.map((focusOffsetMm, index) => {
    const box = boxes[index]!;
    // Over a tilted board the head stays where it was set.
    const settings = { ...constants, focusOffsetMm: tilted ? 0 : focusOffsetMm };
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
    caption: `FOCUS ${liked.length.toUpperCase()}, ${tilted ? 'LEFT END UP' : '+ RAISED'}`,
    constants: constantsText(constants, liked),
    markers: 'four',
    air: constants.air,
    ...(tilted && {
      tilt: {
        fallMmPerMm: fallOf(plan),
        levelAtMm: patchMm / 2 - plan.focus.from / fallOf(plan),
        spacerMm: plan.spacerMm,
      },
      // One long burn: each line goes over all offsets, which a stop at each never does so alike.
      ...(constants.direction === 'horizontal' &&
        on.machine.head !== 'galvo' && { rows: [cells.map((_, index) => index)] }),
    }),
  };
}
