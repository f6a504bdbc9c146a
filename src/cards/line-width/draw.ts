import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import { PLAIN_EXTRAS, type BurnSettings } from '../../core/card/settings';
import { rectRing } from '../../core/card/shape';
import type { Rect } from '../../core/geometry/point';
import { linePowers, type LineWidthPlan } from './plan';

/** Bare stock between the ends of lines that follow each other. */
export const BETWEEN_ENDS_MM = 1.5;
/** Part of the pitch that is left between the cells. */
const GAP_SHARE = 0.25;

/** Fills beside the lines, so solid that a photo's own blur can be told by their edges: how wide across the lines, and how dense. */
export const SOLID = { acrossMm: 3, gapMm: 1.5, denser: 0.5 } as const;

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Settings of one line: one sweep. */
export const lineSettings = ({ constants }: LineWidthPlan, powerFraction: number): BurnSettings => ({
  ...constants,
  powerFraction,
  lineAngleDeg: PLAIN_EXTRAS.lineAngleDeg,
  crossHatch: PLAIN_EXTRAS.crossHatch,
});

/** The fills beside them: as strong as the middle of the powers, and denser than lines usually are. */
export function solidSettings(plan: LineWidthPlan): BurnSettings {
  const { from, to } = plan.power;
  const settings = lineSettings(plan, Math.round(Math.sqrt(from * to) * 1e4) / 1e4);
  return { ...settings, intervalMm: Math.round(settings.intervalMm * SOLID.denser * 1e4) / 1e4 };
}

/** The area of one sweep along the middle of a cell, an interval high. */
function sweepIn({ x, y, width, height }: Rect, { intervalMm, direction }: BurnSettings): Rect {
  return direction === 'horizontal'
    ? { x, y: round(y + (height - intervalMm) / 2), width, height: intervalMm }
    : { x: round(x + (width - intervalMm) / 2), y, width: intervalMm, height };
}

/** Lines along X lie under one another, those along Y beside each other; what is repeated follows in the lines' own direction. */
export function drawLines(plan: LineWidthPlan, on: Pairing): Drawn {
  const { repeats, lineMm, pitchMm, constants } = plan;
  const liked = on.machine.likedUnits;
  const powers = linePowers(plan);
  const across = round(pitchMm * (1 - GAP_SHARE));
  const gap = round(pitchMm - across);
  const lies = constants.direction === 'horizontal';
  const rows = lies
    ? columnOfBoxes(powers.length, lineMm, across, gap)
    : rowOfBoxes(powers.length, across, lineMm, gap);
  const step = lineMm + BETWEEN_ENDS_MM;
  const start = SOLID.acrossMm + SOLID.gapMm;
  const solid = solidSettings(plan);
  const before = Array.from({ length: repeats }, (_, repeat) => {
    const at = round(repeat * step);
    const area = lies
      ? { x: at, y: 0, width: lineMm, height: SOLID.acrossMm }
      : { x: 0, y: at, width: SOLID.acrossMm, height: lineMm };
    return { shape: { do: 'sweep' as const, area: [rectRing(area)] }, settings: solid };
  });
  const cells = powers.flatMap((powerFraction, place) =>
    Array.from({ length: repeats }, (_, repeat) => {
      // As the planner has its left edge: the larger end at the top. Beside each other, from the left.
      const first = lies ? rows.at(-1 - place)! : rows[place]!;
      const box = lies
        ? { ...first, x: round(repeat * step), y: round(start + first.y) }
        : { ...first, x: round(start + first.x), y: round(repeat * step) };
      const settings = lineSettings(plan, powerFraction);
      return {
        box,
        levels: { power: powerFraction },
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(sweepIn(box, settings))] }, settings }],
        risk: deliveredBy(settings, on).arealJPerMm2,
        expected: null,
        leftOut: false,
      };
    }),
  );
  const along = repeats * step - BETWEEN_ENDS_MM;
  const high = start + powers.length * pitchMm - gap;
  return {
    widthMm: round(lies ? along : high),
    heightMm: round(lies ? high : along),
    cells,
    before,
    after: [],
    labels: powers.map((powerFraction, place) => {
      const { text, means } = letterOf('power', powerFraction, liked);
      return { text, means, edge: lies ? ('beside' as const) : ('above' as const), box: cells[place * repeats]!.box };
    }),
    units: '%',
    caption: `SINGLE LINES, POWER % ${lies ? 'DOWN' : 'ACROSS'}`,
    constants: constantsText({ ...constants, ...PLAIN_EXTRAS }, liked),
    markers: 'four',
    air: constants.air,
  };
}
