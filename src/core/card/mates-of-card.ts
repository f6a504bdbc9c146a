import { FITS, type Fit } from '../fit/fit-bounds';
import type { PairOfMates } from '../joint/mates';
import type { Seen } from './asks';
import type { Layout } from './layout';
import { MATE } from './usual-asks';

/** The cells of a card that the others go together with: its holes, or where it has none its parts. */
export const ownMates = ({ cells, mates }: Pick<Layout, 'cells' | 'mates'>): number[] =>
  cells.flatMap(({ index, levels }) => (mates && levels.side === mates.own ? [index] : []));

/** Every pair of a card with how much tighter it was drawn on every side, and what was said of it; none for a card without. */
export function pairsOfCard(
  layout: Pick<Layout, 'cells' | 'mates'>,
  { answers }: Pick<Seen, 'answers'>,
): PairOfMates[] {
  const said = new Map(
    answers.flatMap(({ field, cellIndex, repeat, value }) =>
      field === MATE.field && isFit(value) ? [[`${cellIndex} ${repeat}`, value] as const] : [],
    ),
  );
  return ownMates(layout).flatMap((cellIndex) =>
    layout.mates!.othersMm.map((otherMm, other) => ({
      cellIndex,
      other,
      tighterMm: Math.round((Number(layout.cells[cellIndex]!.levels.tighter) + otherMm) * 1e4) / 1e4,
      fit: said.get(`${cellIndex} ${other}`) ?? null,
    })),
  );
}

/** Which hole and which part of their ladders a pair of a card is, from 0. */
export function stepsOfPair(
  layout: Pick<Layout, 'cells' | 'mates'>,
  { cellIndex, other }: Pick<PairOfMates, 'cellIndex' | 'other'>,
): { readonly hole: number; readonly part: number } {
  const own = ownMates(layout).indexOf(cellIndex);
  return layout.mates?.own === 'hole' ? { hole: own, part: other } : { hole: other, part: own };
}

const isFit = (value: string | number): value is Fit => (FITS as readonly (string | number)[]).includes(value);
