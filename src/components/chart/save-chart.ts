import { createElement } from 'react';
import { flushSync } from 'react-dom';
import { createRoot } from 'react-dom/client';
import { ChartPicture } from './ChartPicture';
import { rowsOfPlot, type Plot } from './plot';

/** "L* of patches over power" -> "l-of-patches-over-power" */
const fileName = (label: string): string =>
  label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'chart';

/** Hands a text to the browser as a file. */
function hand(text: string, type: string, name: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** Saves a chart as a picture that stands by itself (SVG 1.1). */
export function saveAsSvg(plot: Plot): void {
  const place = document.createElement('div');
  const root = createRoot(place);
  flushSync(() => root.render(createElement(ChartPicture, { plot })));
  const picture = new XMLSerializer().serializeToString(place.firstElementChild!);
  root.unmount();
  hand(`<?xml version="1.0" encoding="UTF-8"?>\n${picture}\n`, 'image/svg+xml', `${fileName(plot.label)}.svg`);
}

/** Saves a chart's data as CSV (RFC 4180); what writes it is fetched when it is needed. */
export async function saveAsCsv(plot: Plot): Promise<void> {
  const { stringify } = await import('csv-stringify/browser/esm/sync');
  hand(stringify(rowsOfPlot(plot), { record_delimiter: 'windows' }), 'text/csv', `${fileName(plot.label)}.csv`);
}
