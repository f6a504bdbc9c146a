import { fromByteArray, toByteArray } from 'base64-js';

/** A picture in greys: a byte for each place, row by row from the upper left, as base64. What a grey means is said where it stands. */
export interface Greys {
  readonly columns: number;
  readonly rows: number;
  readonly data: string;
}

/** Places of a chosen picture at the most: more than a piece of stock takes. */
export const MOST_PLACES = 160_000;

/** Throws RangeError unless there is a byte for each place of a picture of whole columns and rows. */
export function packGreys(columns: number, rows: number, bytes: Uint8Array): Greys {
  if (
    !(Number.isInteger(columns) && Number.isInteger(rows) && columns > 0 && rows > 0 && bytes.length === columns * rows)
  )
    throw new RangeError(`invalid picture: ${bytes.length} greys for ${columns} by ${rows}`);
  return { columns, rows, data: fromByteArray(bytes) };
}

/** The bytes of a picture. Throws RangeError for data that are no base64, or not a byte for each place. */
export function unpackGreys({ columns, rows, data }: Greys): Uint8Array {
  let bytes: Uint8Array;
  try {
    bytes = toByteArray(data);
  } catch (cause) {
    throw new RangeError('invalid picture: its greys are no base64', { cause });
  }
  if (bytes.length !== columns * rows)
    throw new RangeError(`invalid picture: ${bytes.length} greys for ${columns} by ${rows}`);
  return bytes;
}
