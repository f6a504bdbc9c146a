import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { PLAIN_EXTRAS, type BurnSettings } from '../../core/card/settings';
import { coverageOfBurn, type Burn } from '../../core/card/shape';
import type { Rect } from '../../core/geometry/point';
import { partsOf, type Part, type ShowpiecePlan } from './plan';

export const settingsOf = ({ constants }: Pick<ShowpiecePlan, 'constants'>): BurnSettings => ({
  ...constants,
  lineAngleDeg: PLAIN_EXTRAS.lineAngleDeg,
  crossHatch: PLAIN_EXTRAS.crossHatch,
});

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** The drawing on the left; lettering beside it from large to small, and a row each of hairlines and points below that. */
export function placeParts(plan: ShowpiecePlan): { readonly part: Part; readonly box: Rect }[] {
  const { gapMm, constants } = plan;
  const parts = partsOf(plan);
  const sizeOf = ({ drawn }: Part): { width: number; height: number } => ({
    width: round(drawn.columns * constants.intervalMm),
    height: round(drawn.rows * constants.intervalMm),
  });
  const left = round(sizeOf(parts[0]!).width + gapMm);
  let top = 0;
  const placed = [{ part: parts[0]!, box: { x: 0, y: 0, ...sizeOf(parts[0]!) } }];
  const below = (row: readonly Part[]): void => {
    let x = left;
    for (const part of row) {
      placed.push({ part, box: { x, y: top, ...sizeOf(part) } });
      x = round(x + sizeOf(part).width + gapMm);
    }
    top = round(top + Math.max(0, ...row.map((part) => sizeOf(part).height)) + gapMm);
  };
  for (const part of parts.filter((one) => one.part === 'lettering')) below([part]);
  for (const name of ['hairline', 'point'] as const) below(parts.filter(({ part }) => part === name));
  return placed;
}

/** What a showpiece draws: each part a cell of its own, all with one setting. */
export function drawShowpiece(plan: ShowpiecePlan, on: Pairing): Drawn {
  const settings = settingsOf(plan);
  const placed = placeParts(plan);
  const cells = placed.map(({ part: { part, sizeMm, drawn }, box }) => {
    const burn: Burn = {
      shape: { do: 'picture', box, wanted: drawn, table: null, mode: 'power', floorFraction: settings.powerFraction },
      settings,
    };
    return {
      box,
      levels: { part, ...(sizeMm === null ? {} : { size: sizeMm }) },
      burns: [burn],
      risk: deliveredBy(settings, on).arealJPerMm2 * coverageOfBurn(burn),
      expected: null,
      leftOut: false,
    };
  });
  return {
    widthMm: round(Math.max(...placed.map(({ box }) => box.x + box.width))),
    heightMm: round(Math.max(...placed.map(({ box }) => box.y + box.height))),
    cells,
    before: [],
    after: [],
    labels: [],
    units: 'SHOWPIECE',
    caption: 'SHOWPIECE',
    constants: constantsText(plan.constants, on.machine.likedUnits),
    markers: 'four',
    air: settings.air,
  };
}
