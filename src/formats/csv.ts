import { stringify } from 'csv-stringify/sync';

/** Text that a spreadsheet would take for a formula is given a leading apostrophe. */
const inert = (value: unknown): unknown =>
  typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;

/** Rows as CSV after RFC 4180: comma, CR LF, quotes doubled, a header line. Columns are the keys of `columns`, in order. */
export function csvOf(columns: readonly string[], rows: readonly Readonly<Record<string, unknown>>[]): string {
  return stringify(
    rows.map((row) => columns.map((column) => inert(row[column] ?? ''))),
    {
      header: true,
      columns: columns.map((key) => ({ key, header: key })),
      record_delimiter: 'windows',
      cast: { boolean: String },
    },
  );
}
