import { checkConstants, checkPower, checkSpeed } from './check-settings';
import { within } from './axis';
import { cardCode } from './code';
import type { Drawn, Pairing, PlanProblem } from './contract';
import { LAYOUT_VERSION, type Cell, type FrameSettings, type Layout } from './layout';
import type { OldCard } from './old-card';
import { movedBurn } from './shape';

export const OLD_CARD_LIMITS = { least: 2, most: 20 } as const;

/** Every reason why an old card cannot be taken as told, one for each field. */
export function checkOldCard(old: OldCard, on: Pairing): PlanProblem[] {
  const problems: PlanProblem[] = [];
  if (old.across.channel === old.down.channel)
    problems.push({ field: 'down.channel', message: 'One edge is power and the other is speed.' });
  for (const edge of ['across', 'down'] as const) {
    const { channel, values } = old[edge];
    const field = `${edge}.values`;
    const { least, most } = OLD_CARD_LIMITS;
    if (values.length < least || values.length > most)
      problems.push({ field, message: `${least} to ${most} values along an edge.` });
    if (new Set(values).size < values.length) problems.push({ field, message: 'One value stands there twice.' });
    for (const value of values)
      problems.push(
        ...(channel === 'power'
          ? checkPower(field, value, on)
          : checkSpeed(field, value, old.constants.direction, on)
        ).slice(0, 1),
      );
  }
  return [
    ...problems,
    ...within('cellMm', old.cellMm, 1, 50, 'Cells are 1 to 50 mm wide.'),
    ...within('gapMm', old.gapMm, 0.3, 50, 'Gaps are 0.3 to 50 mm: the reading needs bare stock between cells.'),
    ...checkConstants(old.constants, on),
  ];
}

/** Bare stock around the cells that a photo is read with, at the most. */
const MARGIN_MM = 3;

/**
 * The layout of an old card: no markers, no lettering, nothing to burn before or after; bare stock as wide as a gap around its cells. A
 * photo is placed by the outer corners of its corner cells, which are those of `inner`.
 */
export function layOldCard(
  kind: string,
  drawn: Pick<Drawn, 'widthMm' | 'heightMm' | 'cells' | 'air'>,
  gapMm: number,
  settings: FrameSettings,
  cardNumber: number,
): Layout {
  const margin = Math.min(MARGIN_MM, gapMm);
  const cells = drawn.cells.map((cell, index): Cell => ({
    ...cell,
    index,
    box: { ...cell.box, x: cell.box.x + margin, y: cell.box.y + margin },
    burns: cell.burns.map((burn) => movedBurn(burn, margin, margin)),
  }));
  return {
    version: LAYOUT_VERSION,
    kind,
    cardNumber,
    code: cardCode(cardNumber),
    widthMm: drawn.widthMm + 2 * margin,
    heightMm: drawn.heightMm + 2 * margin,
    frame: { markers: [], lettering: [], settings, air: drawn.air },
    inner: { x: margin, y: margin, width: drawn.widthMm, height: drawn.heightMm },
    before: [],
    after: [],
    cells,
    order: cells.map((cell) => cell.index),
    together: [],
    adopted: true,
  };
}
