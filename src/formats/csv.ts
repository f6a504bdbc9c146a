import { stringify } from 'csv-stringify/sync';
import type { Layout } from '../core/card/layout';

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

const CELL_COLUMNS = [
  'card', 'cell', 'column', 'row', 'x_mm', 'y_mm', 'width_mm', 'height_mm', 'power_percent', 'speed_mm_per_s', 'interval_mm',
  'passes', 'focus_offset_mm', 'air', 'direction', 'both_ways', 'delivered_w', 'areal_energy_j_per_mm2',
  'line_energy_j_per_mm', 'burn_order', 'left_out',
] as const; // prettier-ignore

/** The cells of a card as CSV, one row each, in cell order; `burn_order` counts from 1 and is empty for cells left out. */
export function csvOfCells(layout: Layout): string {
  const place = new Map(layout.order.map((index, order) => [index, order + 1]));
  return csvOf(
    CELL_COLUMNS,
    layout.cells.map((cell) => ({
      card: layout.code,
      cell: cell.index,
      column: cell.column,
      row: cell.row,
      x_mm: cell.x,
      y_mm: cell.y,
      width_mm: cell.width,
      height_mm: cell.height,
      power_percent: Math.round(cell.settings.powerFraction * 1e5) / 1e3,
      speed_mm_per_s: cell.settings.speedMmPerS,
      interval_mm: cell.settings.intervalMm,
      passes: cell.settings.passes,
      focus_offset_mm: cell.settings.focusOffsetMm,
      air: cell.settings.air,
      direction: cell.settings.direction,
      both_ways: cell.settings.bothWays,
      delivered_w: cell.deliveredW,
      areal_energy_j_per_mm2: Number(cell.arealEnergyJPerMm2.toPrecision(6)),
      line_energy_j_per_mm: Number(cell.lineEnergyJPerMm.toPrecision(6)),
      burn_order: place.get(cell.index) ?? '',
      left_out: cell.leftOut,
    })),
  );
}
