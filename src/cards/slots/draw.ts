import { axisValues } from '../../core/card/axis';
import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { letterOf } from '../../core/card/channels';
import { deliveredBy } from '../../core/card/energy';
import { rectOutline } from '../../core/card/shape';
import { formatLength } from '../../core/quantities/format';
import { drawnWidthMm, type SlotsPlan } from './plan';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Slots side by side, their widths along X, the tightest on the left. */
export function drawSlots(plan: SlotsPlan, on: Pairing): Drawn {
  const { cut, lengthMm, gapMm, thicknessMm, coatMm } = plan;
  const liked = on.machine.likedUnits;
  const clearances = axisValues(plan.clearance).map(round);
  // Half a wall on either side: outer slots must not break out, and their numbers have room.
  let x = gapMm / 2;
  const boxes = clearances.map((clearanceMm) => {
    const box = { x: round(x), y: 0, width: drawnWidthMm(plan, clearanceMm), height: lengthMm };
    x += box.width + gapMm;
    return box;
  });
  const unit = letterOf('clearance', clearances.at(-1)!, liked).unit.toUpperCase();
  const sheet = formatLength(thicknessMm + coatMm, liked, 3).toUpperCase();
  return {
    widthMm: round(x - gapMm / 2),
    heightMm: lengthMm,
    cells: boxes.map((box, index) => ({
      box,
      levels: { clearance: clearances[index]!, size: box.width },
      burns: [{ shape: { do: 'follow' as const, lines: [rectOutline(box)] }, settings: cut }],
      risk: deliveredBy(cut, on).lineJPerMm,
      expected: null,
      leftOut: false,
    })),
    before: [],
    after: [],
    labels: boxes.map((box, index) => {
      const { text, means } = letterOf('clearance', clearances[index]!, liked);
      // A slot is narrower than its number, which may reach over half of the walls beside it.
      const over = { ...box, x: box.x - gapMm / 2, width: box.width + gapMm };
      return { text, means, edge: 'above' as const, box: over };
    }),
    // The comb is kept: a sheet that fits a slot is as thick as that one says.
    lettersAll: true,
    units: `${unit} PAST ${sheet}`,
    caption: `SLOTS DRAWN WIDER THAN ${sheet} BY ${unit}`,
    constants: cutText(cut, liked),
    markers: 'none',
    air: cut.air,
  };
}
