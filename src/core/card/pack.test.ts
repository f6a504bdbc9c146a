import { describe, expect, it } from 'vitest';
import { rectsOverlap } from '../geometry/point';
import { firstPieceFor, packed, type Packed } from './pack';
import { CARD_CLEARANCE_MM } from './place';
import { points } from '../../../tests/support/points';

const size = (widthMm: number, heightMm: number) => ({ widthMm, heightMm });
const areas = (cards: readonly ReturnType<typeof size>[], { places }: Pick<Packed, 'places'>) =>
  places.map(({ x, y }, index) => ({ x, y, width: cards[index]!.widthMm, height: cards[index]!.heightMm }));
const apart = (all: ReturnType<typeof areas>): void =>
  all.forEach((a, i) =>
    all.slice(i + 1).forEach((b) => {
      const grown = { x: a.x - 1.99, y: a.y - 1.99, width: a.width + 3.98, height: a.height + 3.98 };
      expect(rectsOverlap(grown, b)).toBe(false);
    }),
  );

describe('cards beside each other', () => {
  it('lie side by side or one below the other, whichever a camera comes nearer to', () => {
    const flat = [size(60, 10), size(60, 10)];
    expect(packed(flat)).toEqual({
      places: points([0, 0], [0, 12]),
      widthMm: 60,
      heightMm: 22,
    });
    const tall = [size(20, 40), size(20, 40)];
    expect(packed(tall)).toEqual({
      places: points([0, 0], [22, 0]),
      widthMm: 42,
      heightMm: 40,
    });
    // Stacked they would be narrower, and a camera would have to stand back for their height.
    expect(packed([size(24, 20), size(24, 20)])).toMatchObject({ widthMm: 50, heightMm: 20 });
    expect(packed([size(31, 17)])).toEqual({ places: [{ x: 0, y: 0 }], widthMm: 31, heightMm: 17 });
    expect(() => packed([])).toThrow(RangeError);
  });
  it('keep clear of each other within the size that is told, and waste little, in the order they were given', () => {
    const cards = [
      size(32.6, 11.6),
      size(26.5, 28.4),
      size(42.4, 49),
      size(50.9, 43.4),
      size(40, 23.4),
      size(24, 19.5),
    ];
    const block = packed(cards);
    const all = areas(cards, block);
    apart(all);
    for (const { x, y, width, height } of all) {
      expect(Math.min(x, y)).toBeGreaterThanOrEqual(-1e-9);
      expect(x + width).toBeLessThanOrEqual(block.widthMm + 1e-9);
      expect(y + height).toBeLessThanOrEqual(block.heightMm + 1e-9);
    }
    const used = cards.reduce((sum, card) => sum + card.widthMm * card.heightMm, 0);
    expect(used / (block.widthMm * block.heightMm)).toBeGreaterThan(0.6);
  });
});

describe('a place for cards that are burned together', () => {
  const sheet = {
    sheetWidthMm: 100,
    sheetDepthMm: 60,
    outline: { shape: 'rectangle', radiusMm: 0 },
    blanks: null,
  } as const;
  const cards = [size(40, 20), size(40, 20)];

  it('is one where they lie beside each other, clear of what is taken', () => {
    const taken = [{ piece: 1, x: 0, y: 0, width: 100, height: 10 }];
    const found = firstPieceFor(sheet, taken, cards)!;
    expect(found.piece).toBe(1);
    expect(found.places[0]!.y).toBe(10 + CARD_CLEARANCE_MM);
    apart(areas(cards, found));
  });
  it('is apart where there is no room beside each other, on the next piece where there is none at all, and none where no blank is left', () => {
    // A strip of 42 mm is free at either side.
    const middle = [{ piece: 1, x: 44, y: 0, width: 12, height: 60 }];
    const tall = [size(40, 50), size(40, 50)];
    const found = firstPieceFor(sheet, middle, tall)!;
    expect(found).toMatchObject({
      piece: 1,
      places: points([2, 2], [58, 2]),
    });
    const full = [{ piece: 1, x: 0, y: 0, width: 100, height: 60 }];
    expect(firstPieceFor(sheet, full, cards)).toMatchObject({ piece: 2 });
    expect(firstPieceFor({ ...sheet, blanks: { count: 1 } }, full, cards)).toBeNull();
    expect(firstPieceFor(sheet, [], [size(90, 50), size(90, 50)])).toBeNull();
  });
});
