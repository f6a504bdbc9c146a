import type { Cell, Layout } from '../core/card/layout';
import { MARKER_MODULES, markerModules } from '../core/card/markers';
import { formatArealEnergy } from '../core/quantities/format';

const number = (value: number): string => value.toFixed(3).replace(/\.?0+$/, '') || '0';
const escapeXml = (text: string): string => text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);

function cellGroup(cell: Cell): string {
  const { settings } = cell;
  const data = {
    index: cell.index,
    column: cell.column,
    row: cell.row,
    'power-fraction': settings.powerFraction,
    'speed-mm-per-s': settings.speedMmPerS,
    'interval-mm': settings.intervalMm,
    passes: settings.passes,
    'focus-offset-mm': settings.focusOffsetMm,
    air: settings.air,
    direction: settings.direction,
    'both-ways': settings.bothWays,
    'areal-energy-j-per-mm2': Number(cell.arealEnergyJPerMm2.toPrecision(6)),
    'left-out': cell.leftOut,
  };
  const attributes = Object.entries(data)
    .map(([name, value]) => ` data-${name}="${escapeXml(String(value))}"`)
    .join('');
  const fill = cell.leftOut ? 'none' : '#888';
  const title = `cell ${cell.index}: ${number(settings.powerFraction * 100)} %, ${number(settings.speedMmPerS)} mm/s, ${formatArealEnergy(cell.arealEnergyJPerMm2)}`;
  return `  <g id="cell-${cell.index}" class="cell"${attributes}><title>${escapeXml(title)}</title><rect x="${number(cell.x)}" y="${number(cell.y)}" width="${number(cell.width)}" height="${number(cell.height)}" fill="${fill}" stroke="${cell.leftOut ? '#888' : 'none'}" stroke-width="0.05"/></g>`;
}

/**
 * A card as SVG 1.1 at true size: one user unit is a millimetre, one group for each cell with its settings as data
 * attributes, one for each marker (burned modules filled) and line of lettering (strokes). Deterministic.
 */
export function svgOfCard(layout: Layout): string {
  const { widthMm, heightMm } = layout;
  const markers = layout.markers.map((marker) => {
    const module = marker.sizeMm / MARKER_MODULES;
    const path = markerModules(marker.id)
      .map((burned, index) =>
        burned
          ? `M${number(marker.x + (index % MARKER_MODULES) * module)} ${number(marker.y + Math.floor(index / MARKER_MODULES) * module)}h${number(module)}v${number(module)}h${number(-module)}z`
          : '',
      )
      .join('');
    return `  <g id="marker-${marker.corner}" class="marker" data-marker-id="${marker.id}"><path d="${path}" fill="#000"/></g>`;
  });
  const lettering = layout.lettering.map((line, index) => {
    const path = line.strokes
      .map((stroke) =>
        stroke.map((point, place) => `${place === 0 ? 'M' : 'L'}${number(point.x)} ${number(point.y)}`).join(''),
      )
      .join('');
    return `  <g id="lettering-${index}" class="lettering" data-role="${line.role}" data-text="${escapeXml(line.text)}"><path d="${path}" fill="none" stroke="#000" stroke-width="0.12" stroke-linecap="round" stroke-linejoin="round"/></g>`;
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(widthMm)}mm" height="${number(heightMm)}mm" viewBox="0 0 ${number(widthMm)} ${number(heightMm)}" data-card="${escapeXml(layout.code)}">`,
    `  <title>Card ${escapeXml(layout.code)}</title>`,
    ...layout.cells.map(cellGroup),
    ...markers,
    ...lettering,
    '</svg>',
    '',
  ].join('\n');
}
