import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, EdgeLabel, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rectRing } from '../../core/card/shape';
import { gridFate, gridLevels, gridSettings } from './levels';
import type { GridPlan } from './plan';

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;

/** Draws a power x speed card: filled squares, power along the columns, the fastest row at the top. */
export function drawGrid(plan: GridPlan, pairing: Pairing): Drawn {
  const { powers, speeds } = gridLevels(plan);
  const liked = pairing.machine.likedUnits;
  const pitch = plan.cellMm + plan.gapMm;
  const box = (column: number, row: number) => ({
    x: round(column * pitch, 4),
    y: round(row * pitch, 4),
    width: plan.cellMm,
    height: plan.cellMm,
  });
  const cells = speeds.flatMap((speed, row) =>
    powers.map((power, column) => {
      const settings = gridSettings(plan, power, speed);
      const place = box(column, row);
      return {
        box: place,
        levels: { power, speed },
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(place)] }, settings }],
        risk: deliveredBy(settings, pairing).arealJPerMm2,
        ...gridFate(plan, settings, pairing),
      };
    }),
  );
  const above = powers.map((power, column): EdgeLabel => {
    const { text, means } = letterOf('power', power, liked);
    return { text, means, edge: 'above', box: box(column, 0) };
  });
  const beside = speeds.map((speed, row): EdgeLabel => {
    const { text, means } = letterOf('speed', speed, liked);
    return { text, means, edge: 'beside', box: box(0, row) };
  });
  return {
    widthMm: round(powers.length * pitch - plan.gapMm, 4),
    heightMm: round(speeds.length * pitch - plan.gapMm, 4),
    cells,
    before: [],
    after: [],
    labels: [...above, ...beside],
    units: `% / ${letterOf('speed', speeds[0]!, liked).unit.toUpperCase()}`,
    caption: `POWER % ACROSS / SPEED ${letterOf('speed', speeds[0]!, liked).unit.toUpperCase()} DOWN`,
    constants: constantsText(plan.constants, liked),
    markers: 'four',
    air: plan.constants.air,
    ...(plan.sweeps === 'rows' && {
      rows: speeds.map((_, row) => powers.map((__, column) => row * powers.length + column)),
    }),
  };
}
