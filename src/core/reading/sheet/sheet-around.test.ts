import { expect, it } from 'vitest';
import { sheetAround } from './sheet-around';

it('a sheet around a card has its greys where they lie in mm of the card, and its light where a place of that is in the photo', () => {
  // Ten pixels for each mm, the card's corner at 200, 100.
  const toPhoto = [10, 0, 200, 0, 10, 100, 0, 0, 1] as const;
  const grey = { x: 150, y: 400, added: 0.01, grey: 0.04, sigmaShare: 0.008, bentShare: 0.02 };
  const told = sheetAround({ added: [grey], paperLightAt: ({ x, y }) => [x, y, x + y] }, toPhoto);
  expect(told.greys).toEqual([{ ...grey, x: expect.closeTo(-5, 9), y: expect.closeTo(30, 9) }]);
  expect(told.paperLight(3, 7)).toEqual([230, 170, 400]);
});
