import { isArea, regionOf } from '../core/card/shape';
import type { Step } from '../core/card/steps';
import { pathData, escapeXml, xmlNumber } from './xml';
import { stepColour } from './step-colours';

/**
 * Steps as SVG 1.1 at true size, one user unit a millimetre: one named group for each step, in burn order, in a plain colour of its own;
 * areas are filled with it, followed lines drawn in it. Deterministic.
 */
export function svgOfSteps(
  steps: readonly Step[],
  { code, widthMm, heightMm }: { readonly code: string; readonly widthMm: number; readonly heightMm: number },
): string {
  const groups = steps.map((step, index) => {
    const { hex } = stepColour(index);
    const paths = step.shapes
      .map((shape) => `<path d="${pathData(regionOf(shape, step.settings), isArea(shape))}"/>`)
      .join('');
    const look =
      step.does !== 'follow'
        ? `fill="${hex}" fill-rule="evenodd" stroke="none"`
        : `fill="none" stroke="${hex}" stroke-width="0.1"`;
    const id = `step-${String(step.number).padStart(2, '0')}`;
    return `  <g id="${id}" ${look}><title>${escapeXml(step.name)}</title>${paths}</g>`;
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${xmlNumber(widthMm)}mm" height="${xmlNumber(heightMm)}mm" viewBox="0 0 ${xmlNumber(widthMm)} ${xmlNumber(heightMm)}">`,
    `  <title>Card ${escapeXml(code)}, one group for each setting</title>`,
    ...groups,
    '</svg>',
    '',
  ].join('\n');
}
