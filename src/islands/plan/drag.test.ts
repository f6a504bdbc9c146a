import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { cardKind } from '../../cards/registry';
import { AXIS_COUNTS } from '../../core/card/axis';
import { layCard } from '../../core/card/lay';
import { draggedCount, draggedPlace } from './drag';

const sheet = { sheetWidthMm: 300, sheetDepthMm: 200 };
const card = { widthMm: 50, heightMm: 40 };
const at = (xMm: number, yMm: number, dxMm: number, dyMm: number) =>
  draggedPlace({ xMm, yMm }, { dxMm, dyMm }, card, sheet);

describe('a dragged card', () => {
  it('goes in steps of half a millimetre', () => {
    expect(at(10, 20, 3.3, -4.6)).toEqual({ xMm: 13.5, yMm: 15.5 });
  });
  it('stays on the sheet', () => {
    expect(at(10, 20, -40, -40)).toEqual({ xMm: 0, yMm: 0 });
    expect(at(10, 20, 400, 400)).toEqual({ xMm: 250, yMm: 160 });
  });
  it('lies at the corner of a sheet that it is larger than', () => {
    expect(draggedPlace({ xMm: 0, yMm: 0 }, { dxMm: 9, dyMm: 9 }, { widthMm: 400, heightMm: 10 }, sheet)).toEqual({
      xMm: 0,
      yMm: 9,
    });
  });
});

describe('a dragged edge', () => {
  const pairing = demoPairing('marl', 'alder');
  const { plan } = cardKind('grid').propose({ pairing, facts: [] });
  const layout = layCard(cardKind('grid'), plan, pairing, { cardNumber: 1 });
  const [first, second] = layout.cells;
  const pitchMm = second!.box.x - first!.box.x;
  it('asks for one column more for each that its way is long', () => {
    expect(draggedCount(layout, 'columns', 7, 2 * pitchMm, 20)).toBe(9);
    expect(draggedCount(layout, 'columns', 7, -1.4 * pitchMm, 20)).toBe(6);
    expect(draggedCount(layout, 'rows', 6, pitchMm, 20)).toBe(7);
  });
  it('asks for no more than the kind takes, and for no fewer than an axis has', () => {
    expect(draggedCount(layout, 'columns', 7, 50 * pitchMm, 20)).toBe(20);
    expect(draggedCount(layout, 'columns', 7, -50 * pitchMm, 20)).toBe(AXIS_COUNTS.least);
  });
  it('takes a single row’s whole height for its step', () => {
    const row = { ...layout, cells: layout.cells.filter(({ box }) => box.y === first!.box.y) };
    expect(draggedCount(row, 'rows', 1, layout.heightMm, 20)).toBe(2);
  });
});
