import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rowOfBoxes } from '../../core/card/row';
import type { Point, Rect } from '../../core/geometry/point';
import { settingsAt, type CutCheckPlan } from './plan';

/** Chords of a disc: they leave the circle by a thousandth of its radius. */
const CHORDS = 72;

function circleIn({ x, y, width }: Rect): Point[] {
  const r = width / 2;
  return Array.from({ length: CHORDS }, (_, k) => {
    const angle = (2 * Math.PI * k) / CHORDS;
    return { x: x + r + r * Math.cos(angle), y: y + r + r * Math.sin(angle) };
  });
}

/** Discs side by side, the weakest cut on the left. */
export function drawDiscs(plan: CutCheckPlan, on: Pairing): Drawn {
  const { shares, sizeMm, gapMm, cut } = plan;
  const liked = on.machine.likedUnits;
  const boxes = rowOfBoxes(shares.length, sizeMm, sizeMm, gapMm);
  const cells = boxes.map((box, index) => {
    const settings = settingsAt(plan, shares[index]!);
    const outline = circleIn(box);
    return {
      box,
      levels: { speed: settings.speedMmPerS },
      burns: [{ shape: { do: 'follow' as const, lines: [[...outline, outline[0]!]] }, settings }],
      risk: deliveredBy(settings, on).lineJPerMm,
      expected: null,
      leftOut: false,
      wanted: { outline, on: { x: box.x + sizeMm / 2, y: box.y + sizeMm / 2 } },
    };
  });
  const unit = letterOf('speed', cut.speedMmPerS, liked).unit.toUpperCase();
  return {
    widthMm: boxes.at(-1)!.x + sizeMm,
    heightMm: sizeMm,
    cells,
    before: [],
    after: [],
    labels: cells.map(({ box, levels }) => {
      const { text, means } = letterOf('speed', levels.speed, liked);
      return { text, means, edge: 'above' as const, box };
    }),
    units: unit,
    caption: `CUT CHECK, SPEED ${unit}`,
    constants: constantsText(
      { powerFraction: cut.powerFraction, passes: cut.passes, focusOffsetMm: cut.focusOffsetMm, air: cut.air },
      liked,
    ),
    markers: 'none',
    air: cut.air,
  };
}
