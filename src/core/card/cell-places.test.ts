import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import { PLAIN_FILL } from '../../../tests/support/settings';
import type { Burn } from './shape';
import { cellPlaces } from './cell-places';

const burn: Burn = { shape: { do: 'sweep', area: [] }, settings: PLAIN_FILL };
const at = (index: number, x: number, y: number, leftOut = false) =>
  cellOf(index, burn, { box: { x, y, width: 4, height: 4 }, leftOut });
/** Six columns and four rows, numbered row by row; starts are as rounded as a plan's. */
const cells = Array.from({ length: 24 }, (_, k) => at(k, 5 * (k % 6) + 0.01 * (k % 3), 5 * Math.floor(k / 6)));
const where = (holds: (column: number, row: number) => boolean): string =>
  cellPlaces(
    { cells },
    cells.filter(({ index }) => holds((index % 6) + 1, Math.floor(index / 6) + 1)).map(({ index }) => index),
  );

describe('where cells lie', () => {
  it('is told by whole columns, by whole rows, or by both where neither is whole', () => {
    expect(where((column) => column >= 3 && column <= 5)).toBe('columns 3–5');
    expect(where((column) => column === 2)).toBe('column 2');
    expect(where((column) => column < 3 || column === 6)).toBe('columns 1 and 2, 6');
    expect(where((_, row) => row === 4)).toBe('row 4');
    expect(where((column, row) => column < 3 && row > 2)).toBe('columns 1 and 2 in rows 3 and 4');
    // Three of four are most of a column; two are not.
    expect(where((column, row) => column === 5 && row > 1)).toBe('column 5');
    expect(where((column, row) => column === 5 && row > 2)).toBe('column 5 in rows 3 and 4');
  });
  it('is how many where they lie in all rows and all columns, or which where they are few', () => {
    expect(where((column, row) => (column + row) % 2 === 0)).toBe('12 of 24 cells');
    expect(where((column, row) => column > 1 || row > 1)).toBe('23 of 24 cells');
    const corner = Array.from({ length: 4 }, (_, k) => at(k, 5 * (k % 2), 5 * Math.floor(k / 2)));
    expect(cellPlaces({ cells: corner }, [0, 3])).toBe('cells 1, 4');
  });
  it('is all of them, none, or one by its number', () => {
    expect(where(() => true)).toBe('all cells');
    expect(where(() => false)).toBe('');
    expect(where((column, row) => column === 2 && row === 3)).toBe('cell 14');
  });
  it('is the same in whatever order a card has its cells', () => {
    const third = cells.filter(({ index }) => index % 6 === 2).map(({ index }) => index);
    expect(cellPlaces({ cells: cells.toReversed() }, third)).toBe('column 3');
  });
  it('counts columns of burned cells only', () => {
    const some = cells.map((cell) => (cell.index % 6 === 0 ? { ...cell, leftOut: true } : cell));
    const second = cells.filter(({ index }) => index % 6 === 1).map(({ index }) => index);
    expect(cellPlaces({ cells: some }, [0, 6, ...second])).toBe('column 1');
  });
  it('is told by numbers on cards whose cells stand in one row, or in none', () => {
    const row = Array.from({ length: 6 }, (_, k) => at(k, 5 * k, 2));
    expect(cellPlaces({ cells: row }, [2, 3, 4])).toBe('cells 3–5');
    const scattered = [at(0, 0, 0), at(1, 7, 3), at(2, 2, 9), at(3, 15, 5)];
    expect(cellPlaces({ cells: scattered }, [3, 1])).toBe('cells 2, 4');
  });
});
