import type { ColumnType } from 'kysely';

/** A value kept as JSON: read as what it is, written as text. */
export type JsonOf<T> = ColumnType<T, string, string>;

/** JSON that never changes once its row is there. */
export type FixedJson<T> = ColumnType<T, string, never>;

/** JSON that a row gets later, or has by the column's default. */
export type DefaultJson<T> = ColumnType<T, string | undefined, string>;

/** A moment that the database notes by itself. */
export type Noted = ColumnType<Date, never, never>;

/** A moment that is set later, and may be taken back. */
export type Later = ColumnType<Date | null, never, Date | null>;

/** A value that the database works out from others. */
export type WorkedOut<T> = ColumnType<T, never, never>;
