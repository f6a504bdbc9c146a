import { axisValues } from '../../core/card/axis';
import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import type { Cell } from '../../core/card/layout';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import { rectRing } from '../../core/card/shape';
import type { Rect } from '../../core/geometry/point';
import type { ThresholdPlan } from './plan';

/** Places that a search has at the most, in rows of this many. */
export const SEARCH_PLACES = 20;
const SEARCH_COLUMNS = 10;

/** One patch at a power. Nothing is expected of it: whether it marks is the question. */
export function patch(plan: ThresholdPlan, power: number, box: Rect, on: Pairing): Omit<Cell, 'index'> {
  const powerFraction = Math.round(power * 1e4) / 1e4;
  const settings = { ...plan.constants, powerFraction };
  return {
    box,
    levels: { power: powerFraction },
    burns: [{ shape: { do: 'sweep', area: [rectRing(box)] }, settings }],
    risk: deliveredBy(settings, on).arealJPerMm2,
    expected: null,
    leftOut: false,
  };
}

/** The place of a search's `index`th patch in the card's own millimetres, inside `inner`. */
export function searchBox({ patchMm, gapMm }: ThresholdPlan, index: number, inner: Rect): Rect {
  const pitch = patchMm + gapMm;
  return {
    x: inner.x + (index % SEARCH_COLUMNS) * pitch,
    y: inner.y + Math.floor(index / SEARCH_COLUMNS) * pitch,
    width: patchMm,
    height: patchMm,
  };
}

export function drawThreshold(plan: ThresholdPlan, on: Pairing): Drawn {
  const { patchMm, gapMm, constants } = plan;
  const shared = {
    before: [],
    after: [],
    constants: constantsText(constants, on.machine.likedUnits),
    air: constants.air,
  } as const;
  if (plan.way === 'search') {
    const rows = SEARCH_PLACES / SEARCH_COLUMNS;
    return {
      ...shared,
      widthMm: SEARCH_COLUMNS * (patchMm + gapMm) - gapMm,
      heightMm: rows * (patchMm + gapMm) - gapMm,
      cells: [],
      labels: [],
      caption: 'MINIMUM POWER, ONE BY ONE',
      units: '%',
      markers: 'none',
    };
  }
  const powers = axisValues(plan.power);
  const boxes = rowOfBoxes(powers.length, patchMm, patchMm, gapMm);
  const rows = columnOfBoxes(plan.repeats, patchMm, patchMm, gapMm);
  const cells = rows.flatMap(({ y }) => powers.map((power, index) => patch(plan, power, { ...boxes[index]!, y }, on)));
  return {
    ...shared,
    widthMm: boxes.at(-1)!.x + patchMm,
    heightMm: rows.at(-1)!.y + patchMm,
    cells,
    labels: cells.slice(0, powers.length).map(({ levels, box }) => {
      const { text, means } = letterOf('power', levels.power as number, on.machine.likedUnits);
      return { text, means, edge: 'above' as const, box };
    }),
    caption: 'MINIMUM POWER %',
    units: '%',
    markers: 'four',
  };
}
