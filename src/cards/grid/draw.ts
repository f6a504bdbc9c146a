import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, EdgeLabel, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rectRing } from '../../core/card/shape';
import type { BurnSettings } from '../../core/card/settings';
import type { LikedUnits } from '../../core/quantities/format';
import { fieldOf, type GridAxis } from './axes';
import { edgeLevels, gridBoxes, gridFate, gridLevels } from './levels';
import type { GridPlan } from './plan';

const round = (value: number): number => Math.round(value * 1e4) / 1e4;

/** What an axis is called on the card: "SPEED MM/S", "PASSES". */
function axisWords({ channel, from }: GridAxis, liked: LikedUnits): { readonly name: string; readonly unit: string } {
  const { unit } = letterOf(channel, from, liked);
  return { name: channel.toUpperCase(), unit: channel === 'air' ? '' : unit.toUpperCase() };
}

/** Draws a card of two settings: filled squares, the first along the columns, the second down the rows with its high end at the top. */
export function drawGrid(plan: GridPlan, pairing: Pairing): Drawn {
  const { across, down, repeats } = plan;
  const liked = pairing.machine.likedUnits;
  const boxes = gridBoxes(plan);
  const cells = gridLevels(plan).flatMap(({ settings, levels }, level) =>
    boxes[level]!.map((box) => ({
      box,
      levels,
      burns: [{ shape: { do: 'sweep' as const, area: [rectRing(box)] }, settings }],
      risk: deliveredBy(settings, pairing).arealJPerMm2,
      ...gridFate(plan, settings, pairing),
    })),
  );
  const { columns, rows } = edgeLevels(plan);
  const label = (axis: GridAxis, value: number, edge: EdgeLabel['edge'], box: EdgeLabel['box']): EdgeLabel => {
    const { text, means } = letterOf(axis.channel, value, liked);
    return { text, means, edge, box };
  };
  const labels =
    plan.placing === 'scattered'
      ? []
      : [
          ...columns.map((value, column) => label(across, value, 'above', boxes[column]![0]!)),
          ...Array.from({ length: repeats }, (_, repeat) =>
            rows.map((value, row) => label(down, value, 'beside', boxes[row * columns.length]![repeat]!)),
          ).flat(),
        ];
  const [side, low] = [axisWords(across, liked), axisWords(down, liked)];
  const same: Partial<BurnSettings> = { ...plan.constants };
  for (const axis of [across, down]) delete (same as Record<string, unknown>)[fieldOf(axis)];
  const pitch = plan.cellMm + plan.gapMm;
  const named = ({ name, unit }: typeof side): string => `${name} ${unit}`.trim();
  return {
    widthMm: round(columns.length * pitch - plan.gapMm),
    heightMm: round(rows.length * repeats * pitch - plan.gapMm),
    cells,
    before: [],
    after: [],
    labels,
    units: plan.placing === 'scattered' ? 'SCATTERED' : [side, low].map(({ name, unit }) => unit || name).join(' / '),
    caption: `${named(side)} ${plan.placing === 'scattered' ? '/' : 'ACROSS /'} ${named(low)} ${plan.placing === 'scattered' ? 'SCATTERED' : 'DOWN'}`,
    constants: constantsText(same, liked),
    markers: 'four',
    air: plan.constants.air,
    ...(plan.sweeps === 'rows' && {
      rows: Array.from({ length: rows.length * repeats }, (_, line) => {
        const [row, repeat] = [line % rows.length, Math.floor(line / rows.length)];
        return columns.map((_unused, column) => (row * columns.length + column) * repeats + repeat);
      }),
    }),
  };
}
