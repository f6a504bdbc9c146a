import type { Point } from '../core/geometry/point';

/** What SVG and HTML files here share. */
export const xmlNumber = (value: number): string =>
  value
    .toFixed(3)
    .replace(/\.?0+$/, '')
    .replace(/^-0$/, '0');

export const escapeXml = (text: string): string =>
  text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);

/** Path data of polylines, closed or open. */
export const pathData = (lines: readonly (readonly Point[])[], close: boolean): string =>
  lines
    .map(
      (line) =>
        line.map((point, place) => `${place === 0 ? 'M' : 'L'}${xmlNumber(point.x)} ${xmlNumber(point.y)}`).join('') +
        (close ? 'z' : ''),
    )
    .join('');
