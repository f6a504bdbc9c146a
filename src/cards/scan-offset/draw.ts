import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes } from '../../core/card/row';
import { PLAIN_EXTRAS, type BurnSettings } from '../../core/card/settings';
import { rectRing, type Region } from '../../core/card/shape';
import type { Rect } from '../../core/geometry/point';
import { commandFor, leastCommand } from '../../core/machine/command';
import { deliveredPowerW } from '../../core/machine/machine';
import { pairSpeeds, type ScanOffsetPlan } from './plan';

/** Bare stock between pairs that follow each other, beside what is looked at. */
export const GAP_MM = 1;

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Energy of weaker pairs over that of the others: how much longer a deeper mark is, is told by both. */
const WEAKER = 5 / 6;

/** Of the pairs of a speed, the second and third of each four: in both, one has its bars the other way round. */
const isWeaker = (repeat: number): boolean => repeat % 4 === 1 || repeat % 4 === 2;

/** Settings of a pair: power follows speed, so that each line gets the same energy, down to what fires; weaker pairs get a sixth less. */
export function pairSettings(
  { constants, speed }: ScanOffsetPlan,
  speedMmPerS: number,
  repeat: number,
  { machine }: Pairing,
): BurnSettings {
  const share = (speedMmPerS / speed.to) * (isWeaker(repeat) ? WEAKER : 1);
  const watts = deliveredPowerW(machine, constants.powerFraction) * share;
  const enough = Math.round(commandFor(machine, watts) * 1e4) / 1e4;
  return {
    ...linesOnce(constants),
    powerFraction: Math.min(constants.powerFraction, Math.max(leastCommand(machine), enough)),
    speedMmPerS,
  };
}

/** Settings whose lines are burned once, there and back and all alike. */
export const linesOnce = (constants: ScanOffsetPlan['constants']): Omit<BurnSettings, 'speedMmPerS'> => ({
  ...constants,
  passes: 1,
  bothWays: true,
  lineAngleDeg: PLAIN_EXTRAS.lineAngleDeg,
  crossHatch: PLAIN_EXTRAS.crossHatch,
});

/** Lines of a pair: as many there as back. */
export const linesOfPair = ({ barMm, constants }: ScanOffsetPlan): number =>
  2 * Math.max(1, Math.round(barMm / constants.intervalMm / 2));

/** A cell in its pair's own directions: along the sweeps and across them. */
const pairSize = (plan: ScanOffsetPlan): { along: number; across: number } => ({
  along: round(2 * plan.pitchMm),
  across: round(linesOfPair(plan) * plan.constants.intervalMm),
});

/** Size of a pair's cell on the card. */
export function cellSize(plan: ScanOffsetPlan): { widthMm: number; heightMm: number } {
  const { along, across } = pairSize(plan);
  return plan.constants.direction === 'horizontal'
    ? { widthMm: along, heightMm: across }
    : { widthMm: across, heightMm: along };
}

/** One fill whose first, third … line is lit in one bar and whose other lines are lit in the other: the head goes both ways as in any fill. */
function barsIn(box: Rect, plan: ScanOffsetPlan, swapped: boolean): Region {
  const { pitchMm, barWidthMm, constants } = plan;
  const { intervalMm, direction } = constants;
  return Array.from({ length: linesOfPair(plan) }, (_, line) => {
    const isFirstBar = (line % 2 === 0) !== swapped;
    const along = round((isFirstBar ? 0.5 : 1.5) * pitchMm - barWidthMm / 2);
    const across = round(line * intervalMm);
    return rectRing(
      direction === 'horizontal'
        ? { x: round(box.x + along), y: round(box.y + across), width: barWidthMm, height: intervalMm }
        : { x: round(box.x + across), y: round(box.y + along), width: intervalMm, height: barWidthMm },
    );
  });
}

/** A row for each speed, the fastest at the top; pairs of one speed beside each other, crossed in one sweep where they lie along it. */
export function drawPairs(plan: ScanOffsetPlan, on: Pairing): Drawn {
  const { repeats, constants } = plan;
  const liked = on.machine.likedUnits;
  const speeds = pairSpeeds(plan);
  const { widthMm, heightMm } = cellSize(plan);
  const rows = columnOfBoxes(speeds.length, widthMm, heightMm, GAP_MM).reverse();
  const cells = speeds.flatMap((speedMmPerS, row) => {
    return Array.from({ length: repeats }, (_, repeat) => {
      const settings = pairSettings(plan, speedMmPerS, repeat, on);
      const box = { ...rows[row]!, x: round(repeat * (widthMm + GAP_MM)) };
      return {
        box,
        levels: { speed: speedMmPerS },
        burns: [{ shape: { do: 'sweep' as const, area: barsIn(box, plan, repeat % 2 === 1) }, settings }],
        risk: deliveredBy(settings, on).arealJPerMm2,
        expected: null,
        leftOut: false,
      };
    });
  });
  const unit = letterOf('speed', speeds[0]!, liked).unit.toUpperCase();
  const { powerFraction: _follows, ...same } = constants;
  return {
    widthMm: round(repeats * (widthMm + GAP_MM) - GAP_MM),
    heightMm: round(speeds.length * (heightMm + GAP_MM) - GAP_MM),
    cells,
    before: [],
    after: [],
    labels: speeds.map((speedMmPerS, row) => {
      const { text, means } = letterOf('speed', speedMmPerS, liked);
      return { text, means, edge: 'beside' as const, box: cells[row * repeats]!.box };
    }),
    units: unit,
    caption: `SCAN OFFSET, SPEED ${unit} DOWN`,
    constants: constantsText(same, liked),
    markers: 'four',
    air: constants.air,
    ...(constants.direction === 'horizontal' &&
      on.machine.head !== 'galvo' && {
        rows: speeds.map((_, row) => Array.from({ length: repeats }, (__, repeat) => row * repeats + repeat)),
      }),
  };
}
