import type { Answer } from '../../src/core/card/asks';

/** What somebody says of a cell, or of the whole card, once. */
export const said = (field: string, cellIndex: number | null, value: Answer['value'], repeat = 0): Answer => ({
  field,
  cellIndex,
  repeat,
  value,
});
