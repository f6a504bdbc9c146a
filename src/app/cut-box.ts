import { cardKind } from '../cards/registry';
import type { Cell } from '../core/card/layout';
import { asksForHoles } from '../core/card/usual-asks';
import type { CardRecord } from '../records/card';

/** What a gauge or a hand goes to: a box, and of a part of any outline that outline. */
export const cutBox = ({ box, wanted }: Cell) => ({
  ...box,
  ...(wanted && { shape: { outline: wanted.outline, on: wanted.on } }),
});

/** What is tapped out of a sheet before it lies on a light table: every part of a card whose holes are looked at there. */
export const tappedOut = ({ kind, layout }: CardRecord) =>
  asksForHoles(cardKind(kind).asks) ? layout.cells.map(cutBox) : [];
