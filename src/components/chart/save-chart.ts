import { createElement } from 'react';
import { flushSync } from 'react-dom';
import { createRoot } from 'react-dom/client';
import { ChartPicture } from './ChartPicture';
import { rowsOfPlot, type Plot } from './plot';
import { saveDrawing, saveRows } from './save-text';

/** Saves a chart as a picture that stands by itself (SVG 1.1). */
export function saveAsSvg(plot: Plot): void {
  const place = document.createElement('div');
  const root = createRoot(place);
  flushSync(() => root.render(createElement(ChartPicture, { plot })));
  saveDrawing(place.firstElementChild!, plot.label);
  root.unmount();
}

/** Saves a chart's data as CSV (RFC 4180). */
export const saveAsCsv = (plot: Plot): Promise<void> => saveRows(rowsOfPlot(plot), plot.label);
