import { CHANNELS, type ChannelId } from '../core/card/channels';
import { deliveredBy } from '../core/card/energy';
import type { Layout } from '../core/card/layout';
import type { Machine } from '../core/machine/machine';
import { csvOf } from './csv';

const LEVELS = Object.keys(CHANNELS) as ChannelId[];

const COLUMNS = [
  'card',
  'cell',
  'burn',
  'does',
  'x_mm',
  'y_mm',
  'width_mm',
  'height_mm',
  ...LEVELS.map((id) => `level_${id}`),
  'power_percent',
  'speed_mm_per_s',
  'interval_mm',
  'passes',
  'focus_offset_mm',
  'air',
  'direction',
  'both_ways',
  'run_up_mm',
  'scan_offset_mm',
  'lengthen_mm',
  'line_angle_deg',
  'cross_hatch',
  'frequency_khz',
  'delivered_w',
  'areal_energy_j_per_mm2',
  'line_energy_j_per_mm',
  'burn_order',
  'left_out',
];

/**
 * The cells of a card as CSV, one row for each burn of a cell, in cell order; `burn_order` counts cells from 1 and is empty for those
 * left out; `run_up_mm` is empty where the machine's need decides.
 */
export function csvOfCells(layout: Layout, machine: Machine): string {
  const place = new Map(layout.order.map((index, order) => [index, order + 1]));
  return csvOf(
    COLUMNS,
    layout.cells.flatMap((cell) =>
      cell.burns.map(({ shape, settings }, burn) => {
        const { watts, lineJPerMm, arealJPerMm2 } = deliveredBy(settings, { machine });
        return {
          card: layout.code,
          cell: cell.index,
          burn,
          does: shape.do,
          x_mm: cell.box.x,
          y_mm: cell.box.y,
          width_mm: cell.box.width,
          height_mm: cell.box.height,
          ...Object.fromEntries(LEVELS.map((id) => [`level_${id}`, cell.levels[id] ?? ''])),
          power_percent: Math.round(settings.powerFraction * 1e5) / 1e3,
          speed_mm_per_s: settings.speedMmPerS,
          interval_mm: settings.intervalMm,
          passes: settings.passes,
          focus_offset_mm: settings.focusOffsetMm,
          air: settings.air,
          direction: settings.direction,
          both_ways: settings.bothWays,
          run_up_mm: settings.runUpMm ?? '',
          scan_offset_mm: settings.scanOffsetMm,
          lengthen_mm: settings.lengthenMm,
          line_angle_deg: settings.lineAngleDeg,
          cross_hatch: settings.crossHatch,
          frequency_khz: settings.frequencyKHz ?? '',
          delivered_w: watts,
          areal_energy_j_per_mm2: Number(arealJPerMm2.toPrecision(6)),
          line_energy_j_per_mm: Number(lineJPerMm.toPrecision(6)),
          burn_order: place.get(cell.index) ?? '',
          left_out: cell.leftOut,
        };
      }),
    ),
  );
}
