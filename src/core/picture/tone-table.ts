/** Entries of a table: one for each value of a picture of eight bits. */
export const TABLE_SIZE = 256;

/** What a table burns for a grey of 0 to 1, by straight lines between its entries. Throws RangeError for a table of another size. */
export function lookedUp(table: readonly number[], grey: number): number {
  if (table.length !== TABLE_SIZE) throw new RangeError(`invalid tone table: ${table.length} entries`);
  const place = Math.min(1, Math.max(0, grey)) * (TABLE_SIZE - 1);
  const below = Math.min(TABLE_SIZE - 2, Math.floor(place));
  return table[below]! + (table[below + 1]! - table[below]!) * (place - below);
}
