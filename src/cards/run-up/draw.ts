import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import { PLAIN_EXTRAS, type BurnSettings } from '../../core/card/settings';
import { rectRing } from '../../core/card/shape';
import { barRunUps, type RunUpPlan } from './plan';

const GAP_MM = 1;

/** Settings of the bars of one run-up. */
export const barSettings = ({ constants }: RunUpPlan, runUpMm: number): BurnSettings => ({
  ...constants,
  runUpMm,
  lineAngleDeg: PLAIN_EXTRAS.lineAngleDeg,
  crossHatch: PLAIN_EXTRAS.crossHatch,
});

/** Bars along X lie under one another, the longest run-up at the top; those along Y beside each other. Repeats of one run-up are far apart. */
export function drawBars(plan: RunUpPlan, on: Pairing): Drawn {
  const { repeats, lengthMm, barMm, constants } = plan;
  const liked = on.machine.likedUnits;
  const runUps = barRunUps(plan);
  const lies = constants.direction === 'horizontal';
  const count = runUps.length * repeats;
  const boxes = lies ? columnOfBoxes(count, lengthMm, barMm, GAP_MM) : rowOfBoxes(count, barMm, lengthMm, GAP_MM);
  const cells = runUps.flatMap((runUpMm, place) =>
    Array.from({ length: repeats }, (_, repeat) => {
      const row = repeat * runUps.length + place;
      const box = lies ? boxes.at(-1 - row)! : boxes[row]!;
      const settings = barSettings(plan, runUpMm);
      return {
        box,
        levels: { runUp: runUpMm },
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(box)] }, settings }],
        // A head that is still slow when it begins burns its ends more.
        risk: deliveredBy(settings, on).arealJPerMm2 / (1 + runUpMm),
        expected: null,
        leftOut: false,
      };
    }),
  );
  const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;
  const across = round(count * (barMm + GAP_MM) - GAP_MM);
  const unit = letterOf('runUp', runUps.at(-1)!, liked).unit.toUpperCase();
  return {
    widthMm: lies ? lengthMm : across,
    heightMm: lies ? across : lengthMm,
    cells,
    before: [],
    after: [],
    labels: cells.map(({ box, levels }) => {
      const { text, means } = letterOf('runUp', levels.runUp, liked);
      return { text, means, edge: lies ? ('beside' as const) : ('above' as const), box };
    }),
    units: unit,
    caption: `RUN-UP ${unit} ${lies ? 'DOWN' : 'ACROSS'}`,
    constants: constantsText(constants, liked),
    markers: 'four',
    air: constants.air,
  };
}
