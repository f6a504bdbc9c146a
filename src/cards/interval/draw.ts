import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes } from '../../core/card/row';
import { rectRing } from '../../core/card/shape';
import { RAMP, stripIntervals, type IntervalPlan } from './plan';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

export function drawIntervals(plan: IntervalPlan, on: Pairing): Drawn {
  const { stripWidthMm, stripHeightMm, gapMm, constants } = plan;
  const liked = on.machine.likedUnits;
  const intervals = stripIntervals(plan);
  const boxes = columnOfBoxes(intervals.length, stripWidthMm, stripHeightMm, gapMm);
  const stepMm = stripWidthMm / RAMP.length;
  const cells = intervals.map((intervalMm, index) => {
    // As the planner has its left edge: the larger end at the top.
    const box = boxes.at(-1 - index)!;
    const burns = RAMP.map((share, step) => ({
      shape: {
        do: 'sweep' as const,
        area: [rectRing({ ...box, x: round(box.x + step * stepMm), width: round(stepMm) })],
      },
      settings: {
        ...constants,
        intervalMm,
        powerFraction: Math.round(constants.powerFraction * share * 1e4) / 1e4,
      },
    }));
    return {
      box,
      levels: { interval: intervalMm },
      burns,
      risk: deliveredBy(burns.at(-1)!.settings, on).arealJPerMm2,
      expected: null,
      leftOut: false,
    };
  });
  return {
    widthMm: stripWidthMm,
    heightMm: boxes.at(-1)!.y + stripHeightMm,
    cells,
    before: [],
    after: [],
    labels: cells.map(({ levels, box }) => {
      const { text, means } = letterOf('interval', levels.interval, liked);
      return { text, means, edge: 'beside' as const, box };
    }),
    units: letterOf('interval', intervals[0]!, liked).unit.toUpperCase(),
    caption: `INTERVAL ${letterOf('interval', intervals[0]!, liked).unit.toUpperCase()} DOWN / WEAK TO STRONG ACROSS`,
    constants: constantsText(constants, liked),
    markers: 'four',
    air: constants.air,
  };
}
