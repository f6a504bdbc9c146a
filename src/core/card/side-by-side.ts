import type { Point } from '../geometry/point';
import type { Layout } from './layout';
import { movedCell, movedMarks } from './station';
import { movedBurn } from './shape';

/** A card and where its upper left corner lies, on the sheet or on the bed. */
export interface PlacedLayout {
  readonly layout: Layout;
  readonly at: Point;
}

/**
 * Cards that lie beside each other as one, to be burned from one file: its corner is the upper left one of all, in `at`; frames come first, then the
 * cells of one card after the other, each in its own order. It is for the machine and the eye: what reads a card goes by the card itself.
 * Throws RangeError for no cards, for frames that are burned by other settings, and for cards that stand in stations or on a tilted board.
 */
export function sideBySide(cards: readonly PlacedLayout[]): { readonly layout: Layout; readonly at: Point } {
  const [first] = cards;
  if (!first) throw new RangeError('invalid cards: there are none');
  const settings = JSON.stringify(first.layout.frame.settings);
  for (const { layout } of cards) {
    if (layout.stations || layout.tilt) throw new RangeError(`invalid card ${layout.code}: it is burned by itself`);
    if (JSON.stringify(layout.frame.settings) !== settings)
      throw new RangeError(`invalid card ${layout.code}: its frame is burned by other settings`);
  }
  const at = { x: Math.min(...cards.map((card) => card.at.x)), y: Math.min(...cards.map((card) => card.at.y)) };
  let before = 0;
  const parts = cards.map(({ layout, at: own }) => {
    const [dx, dy] = [own.x - at.x, own.y - at.y];
    const from = before;
    before += layout.cells.length;
    return {
      marks: movedMarks(layout.frame, dx, dy),
      cells: layout.cells.map((cell) => ({ ...movedCell(cell, dx, dy), index: cell.index + from })),
      order: layout.order.map((index) => index + from),
      together: layout.together.map((group) => group.map((index) => index + from)),
      before: layout.before.map((burn) => movedBurn(burn, dx, dy)),
      after: layout.after.map((burn) => movedBurn(burn, dx, dy)),
      right: dx + layout.widthMm,
      bottom: dy + layout.heightMm,
    };
  });
  const widthMm = Math.max(...parts.map(({ right }) => right));
  const heightMm = Math.max(...parts.map(({ bottom }) => bottom));
  const layout: Layout = {
    ...first.layout,
    code: cards.map((card) => card.layout.code).join(', '),
    widthMm,
    heightMm,
    inner: { x: 0, y: 0, width: widthMm, height: heightMm },
    frame: {
      ...first.layout.frame,
      markers: parts.flatMap(({ marks }) => marks.markers),
      lettering: parts.flatMap(({ marks }) => marks.lettering),
    },
    before: parts.flatMap((part) => part.before),
    after: parts.flatMap((part) => part.after),
    cells: parts.flatMap((part) => part.cells),
    order: parts.flatMap((part) => part.order),
    together: parts.flatMap((part) => part.together),
  };
  return { layout, at };
}
