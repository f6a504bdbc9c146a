import { axisValues } from '../../core/card/axis';
import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import type { BurnSettings } from '../../core/card/settings';
import { rectOutline } from '../../core/card/shape';
import { squareSettings, rowLevels, type CutPlan } from './plan';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Squares in columns of one speed, the slowest on the left, and in rows of one power or of as many passes, the most at the top. */
export function drawSquares(plan: CutPlan, on: Pairing): Drawn {
  const { sizeMm, gapMm, cut, rows } = plan;
  const liked = on.machine.likedUnits;
  const speeds = axisValues(plan.speed);
  const levels = rowLevels(plan);
  const across = rowOfBoxes(speeds.length, sizeMm, sizeMm, gapMm);
  const down = columnOfBoxes(levels.length, sizeMm, sizeMm, gapMm);
  const cells = levels.flatMap((level, row) =>
    speeds.map((speed, column) => {
      const box = { ...across[column]!, y: down[row]!.y };
      const settings = squareSettings(plan, speed, level);
      return {
        box,
        levels: { [rows.channel]: level, speed },
        burns: [{ shape: { do: 'follow' as const, lines: [rectOutline(box)] }, settings }],
        risk: deliveredBy(settings, on).lineJPerMm,
        expected: null,
        leftOut: false,
      };
    }),
  );
  const speedUnit = letterOf('speed', speeds[0]!, liked).unit.toUpperCase();
  const rowName = rows.channel === 'power' ? 'POWER %' : 'PASSES';
  const same: Partial<BurnSettings> = {
    ...(rows.channel === 'power' ? { passes: cut.passes } : { powerFraction: cut.powerFraction }),
    focusOffsetMm: cut.focusOffsetMm,
    air: cut.air,
  };
  return {
    widthMm: round(across.at(-1)!.x + sizeMm),
    heightMm: round(down.at(-1)!.y + sizeMm),
    cells,
    before: [],
    after: [],
    labels: [
      ...speeds.map((speed, column) => {
        const { text, means } = letterOf('speed', speed, liked);
        return { text, means, edge: 'above' as const, box: cells[column]!.box };
      }),
      ...levels.map((level, row) => {
        const { text, means } = letterOf(rows.channel, level, liked);
        return { text, means, edge: 'beside' as const, box: cells[row * speeds.length]!.box };
      }),
    ],
    units: `${speedUnit} / ${rows.channel === 'power' ? '%' : 'PASSES'}`,
    caption: `CUT, SPEED ${speedUnit} ACROSS / ${rowName} DOWN`,
    constants: constantsText(same, liked),
    markers: 'none',
    air: cut.air,
  };
}
