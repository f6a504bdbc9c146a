import type { Cell } from '../core/card/layout';

/** What a gauge or a hand goes to: a box, and of a part of any outline that outline. */
export const cutBox = ({ box, wanted }: Cell) => ({
  ...box,
  ...(wanted && { shape: { outline: wanted.outline, on: wanted.on } }),
});
