import { wordOf, type Seen } from '../../core/card/asks';
import type { Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Layout } from '../../core/card/layout';
import { OUTCOME } from '../../core/card/usual-asks';
import { formatArealEnergy, plainNumber } from '../../core/quantities/format';

/** The mildest cell that fell out of the sheet, or burned through: what it got, over its area and along its lines. */
export interface Fallen {
  readonly cellIndex: number;
  readonly arealJPerMm2: number;
  readonly lineJPerMm: number;
  readonly intervalMm: number;
}

/** Of the cells that were called burned through, the one with the least energy over its area; null where none was. */
export function fallenOf(layout: Layout, seen: Seen, pairing: Pairing): Fallen | null {
  const fallen = layout.cells
    .filter(({ index }) => wordOf(seen, OUTCOME.field, index) === 'burned-through')
    .map((cell): Fallen => {
      const { settings } = mainBurn(cell);
      const { arealJPerMm2, lineJPerMm } = deliveredBy(settings, pairing);
      return { cellIndex: cell.index, arealJPerMm2, lineJPerMm, intervalMm: settings.intervalMm };
    });
  return fallen.reduce<Fallen | null>(
    (least, one) => (least && least.arealJPerMm2 <= one.arealJPerMm2 ? least : one),
    null,
  );
}

/** Cells that fell out bound what may be engraved; and they tell the cut side where cutting begins. */
export const fallenWords = ({ arealJPerMm2, lineJPerMm }: Fallen): string =>
  `Burned through from ${formatArealEnergy(arealJPerMm2)} on: engrave with less. A cut may begin at about ${plainNumber(lineJPerMm, 2)} J/mm.`;
