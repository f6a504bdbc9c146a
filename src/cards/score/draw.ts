import { axisValues } from '../../core/card/axis';
import { letterOf } from '../../core/card/channels';
import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import type { Burn } from '../../core/card/shape';
import type { Point, Rect } from '../../core/geometry/point';
import { dashesAlong } from '../../core/joint/perforation';
import { scoreSettings, scoreShares, stitchesOf, stitchSettings, type ScorePlan } from './plan';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** The three sides of a flap that are cut: down, along and up again. */
const sidesOf = ({ x, y, width, height }: Rect): Point[] => [
  { x, y },
  { x, y: round(y + height) },
  { x: round(x + width), y: round(y + height) },
  { x: round(x + width), y },
];

/** Flaps in rows of one dash and columns of one skip; below them a row of scored ones, the least on the left, and one of stitches. Each line comes before what frees its flap. */
export function drawFlaps(plan: ScorePlan, on: Pairing): Drawn {
  const { flapWidthMm, flapHeightMm, gapMm, cut } = plan;
  const liked = on.machine.likedUnits;
  // The high end at the top, as the planner has its left edge.
  const dashes = axisValues(plan.dash).map(round).reverse();
  const skips = axisValues(plan.skip).map(round);
  const shares = scoreShares(plan);
  const across = rowOfBoxes(skips.length, flapWidthMm, flapHeightMm, gapMm);
  const down = columnOfBoxes(dashes.length + 2, flapWidthMm, flapHeightMm, gapMm);
  const flap = (row: number, column: number, line: Burn, levels: Drawn['cells'][number]['levels']) => {
    const box = { ...across[column]!, y: down[row]!.y };
    return {
      box,
      levels,
      burns: [line, { shape: { do: 'follow' as const, lines: [sidesOf(box)] }, settings: cut }],
      risk: deliveredBy(cut, on).lineJPerMm,
      expected: null,
      leftOut: false,
    };
  };
  const along = (row: number, column: number, stretches: readonly (readonly [number, number])[]): Burn['shape'] => {
    const [x, y] = [across[column]!.x, down[row]!.y];
    return { do: 'follow', lines: stretches.map(([from, to]) => [from, to].map((at) => ({ x: round(x + at), y }))) };
  };
  const perforated = dashes.flatMap((dashMm, row) =>
    skips.map((skipMm, column) =>
      flap(
        row,
        column,
        { shape: along(row, column, dashesAlong(flapWidthMm, { dashMm, skipMm })), settings: cut },
        { dash: dashMm, skip: skipMm },
      ),
    ),
  );
  const scored = shares.map((share, column) =>
    flap(
      dashes.length,
      column,
      { shape: along(dashes.length, column, [[0, flapWidthMm]]), settings: scoreSettings(plan, share) },
      { score: share },
    ),
  );
  const shallowest = stitchSettings(plan, on.machine);
  const stitched = stitchesOf(plan).map(({ dashMm, skipMm }, column) => {
    const box = { ...across[column]!, y: down[dashes.length + 1]!.y };
    const y = round(box.y + flapHeightMm / 2);
    const lines = dashesAlong(flapWidthMm, { dashMm, skipMm }).map((ends) =>
      ends.map((at) => ({ x: round(box.x + at), y })),
    );
    return {
      box,
      levels: { side: 'stitch', stitch: dashMm, score: Math.min(...shares) },
      burns: [{ shape: { do: 'follow' as const, lines }, settings: shallowest }],
      risk: deliveredBy(shallowest, on).lineJPerMm,
      expected: null,
      leftOut: false,
    };
  });
  const cells = [...perforated, ...scored, ...stitched];
  const unit = letterOf('dash', dashes[0]!, liked).unit.toUpperCase();
  return {
    widthMm: round(across.at(-1)!.x + flapWidthMm),
    heightMm: round(down.at(-1)!.y + flapHeightMm),
    cells,
    before: [],
    after: [],
    labels: [
      ...skips.map((skip, column) => {
        const { text, means } = letterOf('skip', skip, liked);
        return { text, means, edge: 'above' as const, box: cells[column]!.box };
      }),
      ...dashes.map((dash, row) => {
        const { text, means } = letterOf('dash', dash, liked);
        return { text, means, edge: 'beside' as const, box: cells[row * skips.length]!.box };
      }),
    ],
    lettersAll: true,
    units: `${unit} / SCORED / STITCHES`,
    caption: `SKIP ${unit} ACROSS / DASH ${unit} DOWN / THEN A ROW SCORED, AND ONE OF STITCHES`,
    constants: cutText(cut, liked),
    markers: 'none',
    air: cut.air,
  };
}
