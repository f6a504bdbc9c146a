import { isArea, regionOf } from '../core/card/shape';
import type { Step } from '../core/card/steps';
import type { Point } from '../core/geometry/point';
import { stepColour } from './step-colours';

const number = (value: number): string => {
  const text = value.toFixed(4).replace(/\.?0+$/, '');
  return text === '-0' || text === '' ? '0' : text;
};

/** Layer names of R12: capitals, digits, hyphens and underscores, 31 at the most. */
export const layerName = (name: string): string =>
  name
    .toUpperCase()
    .replace(/[^A-Z0-9-]+/g, '_')
    .slice(0, 31);

type Pair = readonly [code: number, value: string | number];

function polyline(points: readonly Point[], closed: boolean, layer: string, heightMm: number): Pair[] {
  return [
    [0, 'POLYLINE'],
    [8, layer],
    [66, 1],
    [10, '0'],
    [20, '0'],
    [30, '0'],
    [70, closed ? 1 : 0],
    ...points.flatMap(({ x, y }): Pair[] => [
      [0, 'VERTEX'],
      [8, layer],
      [10, number(x)],
      [20, number(heightMm - y)],
      [30, '0'],
    ]),
    [0, 'SEQEND'],
    [8, layer],
  ];
}

/**
 * Steps as a DXF drawing of release 12 (AC1009), in millimetres, y up, zero at the card's lower left corner: one layer for each step, in
 * its own colour, areas as closed polylines and followed lines as open ones. Deterministic.
 * Source of the format: the published DXF reference for release 12.
 */
export function dxfOfSteps(
  steps: readonly Step[],
  size: { readonly widthMm: number; readonly heightMm: number },
): string {
  const layers = steps.map((step, index) => ({ step, layer: layerName(step.name), colour: stepColour(index).index }));
  const pairs: Pair[] = [
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1009'],
    [9, '$EXTMIN'],
    [10, '0'],
    [20, '0'],
    [9, '$EXTMAX'],
    [10, number(size.widthMm)],
    [20, number(size.heightMm)],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'TABLES'],
    [0, 'TABLE'],
    [2, 'LTYPE'],
    [70, 1],
    [0, 'LTYPE'],
    [2, 'CONTINUOUS'],
    [70, 64],
    [3, 'Solid line'],
    [72, 65],
    [73, 0],
    [40, '0'],
    [0, 'ENDTAB'],
    [0, 'TABLE'],
    [2, 'LAYER'],
    [70, layers.length],
    ...layers.flatMap(({ layer, colour }): Pair[] => [
      [0, 'LAYER'],
      [2, layer],
      [70, 0],
      [62, colour],
      [6, 'CONTINUOUS'],
    ]),
    [0, 'ENDTAB'],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...layers.flatMap(({ step, layer }) =>
      step.shapes.flatMap((shape) =>
        regionOf(shape, step.settings).flatMap((line) => polyline(line, isArea(shape), layer, size.heightMm)),
      ),
    ),
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ];
  return pairs.map(([code, value]) => `${code}\r\n${value}\r\n`).join('');
}
