import { layOldCard } from '../../core/card/adopt';
import type { OldAxis, OldCard } from '../../core/card/old-card';
import { deliveredBy } from '../../core/card/energy';
import type { Pairing } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import type { Layout } from '../../core/card/layout';
import { rectRing } from '../../core/card/shape';
import { UNSAID_SETUP } from '../../core/card/work-setup';
import type { GridAxis } from './axes';
import { GRID_VERSION, type GridPlan } from './plan';

const round = (value: number): number => Math.round(value * 1e4) / 1e4;

const axisOf = ({ channel, values }: OldAxis): GridAxis => ({
  channel,
  from: Math.min(...values),
  to: Math.max(...values),
  count: values.length,
  spacing: 'even',
});

/** An old power x speed card as a card of ours: a cell for each pair of values, as told. Expects one that was checked. */
export function adoptGrid(old: OldCard, on: Pairing, cardNumber: number): { plan: GridPlan; layout: Layout } {
  const { across, down, cellMm, gapMm, constants } = old;
  const pitch = cellMm + gapMm;
  const frame = proposeFrame(on).settings;
  const cells = down.values.flatMap((low, row) =>
    across.values.map((side, column) => {
      const levels = { [across.channel]: side, [down.channel]: low } as { power: number; speed: number };
      const box = { x: round(column * pitch), y: round(row * pitch), width: cellMm, height: cellMm };
      const settings = { ...constants, powerFraction: levels.power, speedMmPerS: levels.speed };
      return {
        box,
        levels,
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(box)] }, settings }],
        risk: deliveredBy(settings, on).arealJPerMm2,
        expected: null,
        leftOut: false,
      };
    }),
  );
  const drawn = {
    widthMm: round(across.values.length * pitch - gapMm),
    heightMm: round(down.values.length * pitch - gapMm),
    cells,
    air: constants.air,
  };
  const middle = ({ values }: OldAxis): number => Math.sqrt(Math.min(...values) * Math.max(...values));
  const [power, speed] = across.channel === 'power' ? [across, down] : [down, across];
  return {
    plan: {
      version: GRID_VERSION,
      across: axisOf(across),
      down: axisOf(down),
      repeats: 1,
      placing: 'ordered',
      cellMm,
      gapMm,
      constants: { ...constants, powerFraction: middle(power), speedMmPerS: middle(speed) },
      frame,
      setup: UNSAID_SETUP,
      leaveOutFailing: false,
      sweeps: 'cells',
    },
    layout: layOldCard('grid', drawn, gapMm, frame, cardNumber),
  };
}
