import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import { rectRing } from '../../core/card/shape';
import { stepPowers, wedgeTops, type CeilingPlan } from './plan';

/** The wedge with the greatest top lies at the top; each darkens to the right. */
export function drawWedges(plan: CeilingPlan, on: Pairing): Drawn {
  const { steps, patchMm, gapMm, constants } = plan;
  const liked = on.machine.likedUnits;
  const tops = wedgeTops(plan);
  const columns = rowOfBoxes(steps, patchMm, patchMm, gapMm);
  const rows = columnOfBoxes(tops.length, patchMm, patchMm, gapMm).reverse();
  const cells = tops.flatMap((top, row) =>
    stepPowers(plan, top).map((powerFraction, step) => {
      const box = { ...columns[step]!, y: rows[row]!.y };
      const settings = { ...constants, powerFraction };
      return {
        box,
        levels: { power: powerFraction, top },
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(box)] }, settings }],
        risk: deliveredBy(settings, on).arealJPerMm2,
        expected: null,
        leftOut: false,
      };
    }),
  );
  const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;
  return {
    widthMm: round(steps * (patchMm + gapMm) - gapMm),
    heightMm: round(tops.length * (patchMm + gapMm) - gapMm),
    cells,
    before: [],
    after: [],
    labels: tops.map((top, row) => {
      const { text, means } = letterOf('power', top, liked);
      return { text, means, edge: 'beside' as const, box: cells[row * steps]!.box };
    }),
    units: '%',
    caption: 'WEDGES UP TO POWER % DOWN',
    constants: constantsText(constants, liked),
    markers: 'four',
    air: constants.air,
  };
}
