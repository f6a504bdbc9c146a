import type { Rect } from '../geometry/point';
import type { Cell, Frame, Layout, Station } from './layout';
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

type Marks = Pick<Frame, 'markers' | 'lettering'>;

/** Markers and lettering of a frame, moved. */
export const movedMarks = ({ markers, lettering }: Marks, dx: number, dy: number): Marks => ({
  markers: markers.map((marker) => ({ ...marker, x: marker.x + dx, y: marker.y + dy })),
  lettering: lettering.map((line) => ({
    ...line,
    strokes: line.strokes.map((stroke) => stroke.map(({ x, y }) => ({ x: x + dx, y: y + dy }))),
  })),
});

/** A cell with all that it burns, moved. */
export const movedCell = <Moved extends Omit<Cell, 'index'>>(cell: Moved, dx: number, dy: number): Moved => ({
  ...cell,
  box: { ...cell.box, x: cell.box.x + dx, y: cell.box.y + dy },
  burns: cell.burns.map((burn) => movedBurn(burn, dx, dy)),
  ...(cell.wanted && {
    wanted: {
      ...cell.wanted,
      outline: cell.wanted.outline.map(({ x, y }) => ({ x: x + dx, y: y + dy })),
      on: { x: cell.wanted.on.x + dx, y: cell.wanted.on.y + dy },
    },
  }),
});

/**
 * One station as a card by itself: its own number, markers, lettering and cells, in millimetres from its own corner. Cells count from 0; the
 * station's `cells` says which ones of the whole card they are.
 */
export function layoutOfStation(layout: Layout, { box, cells: own, cardNumber }: Station): Layout {
  const inside = ({ x, y }: { readonly x: number; readonly y: number }): boolean =>
    x >= box.x - SLACK_MM &&
    x <= box.x + box.width + SLACK_MM &&
    y >= box.y - SLACK_MM &&
    y <= box.y + box.height + SLACK_MM;
  const cells = own.map((at, index) => ({ ...movedCell(layout.cells[at]!, -box.x, -box.y), index }));
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
      ...movedMarks(
        {
          markers: layout.frame.markers.filter(inside),
          lettering: layout.frame.lettering.filter(({ strokes }) => strokes.some((stroke) => stroke.some(inside))),
        },
        -box.x,
        -box.y,
      ),
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
    const { frame } = layoutOfStation(layout, station);
    return {
      station: { ...station, box: { ...box, ...to } },
      marks: movedMarks(frame, to.x, to.y),
      by: { x: to.x - box.x, y: to.y - box.y },
    };
  });
  const cells = layout.cells.map((cell) => {
    const { by } = moved.find(({ station }) => station.cells.includes(cell.index))!;
    return movedCell(cell, by.x, by.y);
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
      markers: moved.flatMap(({ marks }) => marks.markers),
      lettering: moved.flatMap(({ marks }) => marks.lettering),
    },
    cells,
    stations: moved.map(({ station }) => station),
  };
}
