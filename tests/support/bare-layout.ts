import { LAYOUT_VERSION, type Cell, type Layout } from '../../src/core/card/layout';
import type { Burn } from '../../src/core/card/shape';

/** A cell of a layout drawn by hand, with one burn. */
export const cellOf = (index: number, burn: Burn, rest: Partial<Cell> = {}): Cell => ({
  index,
  box: { x: 0, y: 0, width: 4, height: 4 },
  levels: {},
  burns: [burn],
  risk: 1,
  expected: null,
  leftOut: false,
  ...rest,
});

/** A card of 5 x 4 mm with these cells, burned as they come, and a frame without markers and words. */
export const layoutOf = (cells: readonly Cell[], rest: Partial<Layout> = {}): Layout => ({
  version: LAYOUT_VERSION,
  kind: 'grid',
  cardNumber: 1,
  code: 'CD001-4',
  widthMm: 5,
  heightMm: 4,
  frame: {
    markers: [],
    lettering: [],
    air: 'off',
    settings: {
      words: 'short',
      marker: { powerFraction: 0.1, speedMmPerS: 10, intervalMm: 0.1 },
      lettering: { powerFraction: 0.1, speedMmPerS: 10 },
    },
  },
  inner: { x: 0, y: 0, width: 5, height: 4 },
  before: [],
  after: [],
  cells,
  order: cells.filter(({ leftOut }) => !leftOut).map(({ index }) => index),
  together: [],
  adopted: false,
  ...rest,
});
