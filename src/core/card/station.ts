import type { Rect } from '../geometry/point';
import type { Layout, Station } from './layout';
import { movedBurn } from './shape';

/** Areas that a card takes, in card millimetres: all of it, or its stations and nothing between them. */
export const areasOf = ({
  widthMm,
  heightMm,
  stations,
}: Pick<Layout, 'widthMm' | 'heightMm' | 'stations'>): readonly Rect[] =>
  stations?.map(({ box }) => box) ?? [{ x: 0, y: 0, width: widthMm, height: heightMm }];

/** How many numbers a card has, from its own on: its markers carry one each. */
export const numbersOf = ({ stations }: Pick<Layout, 'stations'>): number => stations?.length ?? 1;

/**
 * One station as a card by itself: its own number, markers, lettering and cells, in millimetres from its own corner. Cells count from 0; the
 * station's `cells` says which ones of the whole card they are.
 */
export function layoutOfStation(layout: Layout, { box, cells: own, cardNumber }: Station): Layout {
  const moved = (rect: Rect): Rect => ({ ...rect, x: rect.x - box.x, y: rect.y - box.y });
  const inside = ({ x, y }: { readonly x: number; readonly y: number }): boolean =>
    x >= box.x - SLACK_MM &&
    x <= box.x + box.width + SLACK_MM &&
    y >= box.y - SLACK_MM &&
    y <= box.y + box.height + SLACK_MM;
  const cells = own.map((at, index) => {
    const cell = layout.cells[at]!;
    return {
      ...cell,
      index,
      box: moved(cell.box),
      burns: cell.burns.map((burn) => movedBurn(burn, -box.x, -box.y)),
    };
  });
  const boxes = cells.map((cell) => cell.box);
  const x = Math.min(...boxes.map((one) => one.x));
  const y = Math.min(...boxes.map((one) => one.y));
  const { stations, ...whole } = layout;
  return {
    ...whole,
    cardNumber,
    widthMm: box.width,
    heightMm: box.height,
    inner: {
      x,
      y,
      width: Math.max(...boxes.map((one) => one.x + one.width)) - x,
      height: Math.max(...boxes.map((one) => one.y + one.height)) - y,
    },
    frame: {
      ...layout.frame,
      markers: layout.frame.markers
        .filter(inside)
        .map((marker) => ({ ...marker, x: marker.x - box.x, y: marker.y - box.y })),
      lettering: layout.frame.lettering
        .filter(({ strokes }) => strokes.some((stroke) => stroke.some(inside)))
        .map((line) => ({
          ...line,
          strokes: line.strokes.map((stroke) => stroke.map((point) => ({ x: point.x - box.x, y: point.y - box.y }))),
        })),
    },
    before: [],
    after: [],
    cells,
    order: layout.order.filter((index) => own.includes(index)).map((index) => own.indexOf(index)),
    together: [],
  };
}

/** Places are rounded to a tenth of a micrometre. */
const SLACK_MM = 0.001;

/** Between stations that are gathered. */
const GATHERED_GAP_MM = 3;

/**
 * The same card with its stations beside each other, in the order they stand in on the bed, to be looked at: what lies between them is left out, and
 * places are no longer those of the bed. A card of one piece is returned as it is.
 */
export function gathered(layout: Layout): Layout {
  const { stations } = layout;
  if (!stations) return layout;
  const step = (side: 'width' | 'height'): number =>
    Math.max(...stations.map(({ box }) => box[side])) + GATHERED_GAP_MM;
  const rank = (axis: 'x' | 'y'): number[] => [...new Set(stations.map(({ box }) => box[axis]))].sort((a, b) => a - b);
  const [xs, ys] = [rank('x'), rank('y')];
  const moved = stations.map((station) => {
    const { box } = station;
    const to = { x: xs.indexOf(box.x) * step('width'), y: ys.indexOf(box.y) * step('height') };
    const [dx, dy] = [to.x - box.x, to.y - box.y];
    return { station: { ...station, box: { ...box, ...to } }, own: layoutOfStation(layout, station), to, dx, dy };
  });
  const at = (
    { x, y }: { readonly x: number; readonly y: number },
    by: { readonly x: number; readonly y: number },
  ) => ({
    x: x + by.x,
    y: y + by.y,
  });
  const cells = layout.cells.map((cell) => {
    const { dx, dy } = moved.find(({ station }) => station.cells.includes(cell.index))!;
    const by = { x: dx, y: dy };
    return {
      ...cell,
      box: { ...cell.box, ...at(cell.box, by) },
      burns: cell.burns.map((burn) => movedBurn(burn, dx, dy)),
    };
  });
  const widthMm = xs.length * step('width') - GATHERED_GAP_MM;
  const heightMm = ys.length * step('height') - GATHERED_GAP_MM;
  return {
    ...layout,
    widthMm,
    heightMm,
    inner: { x: 0, y: 0, width: widthMm, height: heightMm },
    frame: {
      ...layout.frame,
      markers: moved.flatMap(({ own, to }) => own.frame.markers.map((marker) => ({ ...marker, ...at(marker, to) }))),
      lettering: moved.flatMap(({ own, to }) =>
        own.frame.lettering.map((line) => ({
          ...line,
          strokes: line.strokes.map((stroke) => stroke.map((point) => at(point, to))),
        })),
      ),
    },
    cells,
    stations: moved.map(({ station }) => station),
  };
}
