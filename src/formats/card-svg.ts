import type { Cell, Layout } from '../core/card/layout';
import { markerRegion } from '../core/card/path';
import { isArea, linesOf, type Burn } from '../core/card/shape';
import { escapeXml, pathData, xmlNumber } from './xml';

const data = (values: Readonly<Record<string, unknown>>): string =>
  Object.entries(values)
    .map(([name, value]) => ` data-${name}="${escapeXml(String(value))}"`)
    .join('');

/** One burn: filled where it is swept, drawn where it is followed, with its settings as data. */
function burnPath({ shape, settings }: Burn, leftOut: boolean): string {
  const fields = Object.fromEntries(
    Object.entries(settings).map(([name, value]) => [
      name.replace(/[A-Z]/g, (capital) => `-${capital.toLowerCase()}`),
      value ?? 'auto',
    ]),
  );
  const look = isArea(shape)
    ? `fill="${leftOut ? 'none' : '#888'}" fill-rule="evenodd" stroke="${leftOut ? '#888' : 'none'}" stroke-width="0.05"`
    : 'fill="none" stroke="#000" stroke-width="0.1"';
  // Dots stand in the drawing as the box they cover: there are thousands of them.
  const dots =
    shape.do === 'dots'
      ? { grey: shape.grey, screen: shape.screen }
      : shape.do === 'picture'
        ? {
            mode: shape.mode,
            columns: shape.wanted.columns,
            rows: shape.wanted.rows,
            'floor-fraction': shape.floorFraction,
          }
        : {};
  return `<path d="${pathData(linesOf(shape), isArea(shape))}" ${look}${data({ do: shape.do, ...dots, ...fields })}/>`;
}

function cellGroup(cell: Cell): string {
  const levels = Object.entries(cell.levels).map(([channel, level]) => [`level-${channel}`, level]);
  const fields = { index: cell.index, ...Object.fromEntries(levels), 'left-out': cell.leftOut };
  const burns = cell.burns.map((burn) => burnPath(burn, cell.leftOut)).join('');
  return `  <g id="cell-${cell.index}" class="cell"${data(fields)}><title>cell ${cell.index}</title>${burns}</g>`;
}

/**
 * A card as SVG 1.1 at true size: one user unit is a millimetre, one group for each cell with what it stands for and its burns'
 * settings as data attributes, one for each marker (burned modules filled) and line of lettering (strokes). Deterministic.
 */
export function svgOfCard(layout: Layout): string {
  const { widthMm, heightMm, frame } = layout;
  const markers = frame.markers.map(
    (marker) =>
      `  <g id="${['marker', marker.corner, ...(marker.station ? [marker.station] : [])].join('-')}" class="marker" data-marker-id="${marker.id}"><path d="${pathData(markerRegion(marker), true)}" fill="#000"/></g>`,
  );
  const lettering = frame.lettering.map(
    (line, index) =>
      `  <g id="lettering-${index}" class="lettering" data-role="${line.role}" data-text="${escapeXml(line.text)}"><path d="${pathData(line.strokes, false)}" fill="none" stroke="#000" stroke-width="0.12" stroke-linecap="round" stroke-linejoin="round"/></g>`,
  );
  const shared = [...layout.before, ...layout.after].map(
    (burn, index) => `  <g id="common-${index}" class="common">${burnPath(burn, false)}</g>`,
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${xmlNumber(widthMm)}mm" height="${xmlNumber(heightMm)}mm" viewBox="0 0 ${xmlNumber(widthMm)} ${xmlNumber(heightMm)}" data-card="${escapeXml(layout.code)}">`,
    `  <title>Card ${escapeXml(layout.code)}</title>`,
    ...layout.cells.map(cellGroup),
    ...shared,
    ...markers,
    ...lettering,
    '</svg>',
    '',
  ].join('\n');
}
