import { formatLength, plainNumber } from '../quantities/format';
import { thicknessOf } from '../stock/stock';
import type { CardIdentity, Drawn, DrawnStation, EdgeLabel, Pairing } from './contract';
import { cardCode } from './code';
import {
  CORNER_NAMES,
  LAYOUT_VERSION,
  MARKER_SIZES_MM,
  type Cell,
  type FrameSettings,
  type Layout,
  type Lettering,
  type MarkerPlace,
  type Station,
} from './layout';
import { fittingHeightMm, letter } from './lettering';
import { markerIdsOfCard } from './markers';
import { burnOrder } from './order';
import type { Rect } from '../geometry/point';
import { movedBurn } from './shape';
import { movedCell, movedMarks } from './station';

/** Bare stock around each marker: less than a module and the marker's edge is lost. */
const QUIET_MM = 1;
const LETTER_MM = 0.9;
/** Smaller letters are not read without a glass. */
const LEAST_LETTER_MM = 0.9;
/** The header needs room for its text even over few cells. */
const LEAST_INNER_MM = 16;

const round = (value: number): number => Math.round(value * 1e4) / 1e4;

/** The line that names machine and stock. */
function headerText({ machine, stock }: Pairing): string {
  const thickness = formatLength(Math.round(thicknessOf(stock).meanMm * 100) / 100, machine.likedUnits, 3);
  return `${machine.name} ${plainNumber(machine.ratedPowerW)}W ${stock.name} ${thickness.replace(' ', '').toUpperCase()}`;
}

interface Margins {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** With markers all sides have their room; without, only what lettering needs. */
function marginsOf(drawn: Drawn, words: FrameSettings['words'], markerMm: number | null): Margins {
  const widest = Math.max(0, ...drawn.labels.filter(({ edge }) => edge === 'beside').map(({ text }) => text.length));
  const beside = widest * LEAST_LETTER_MM + QUIET_MM + 0.2;
  if (markerMm !== null) {
    const all = markerMm + QUIET_MM;
    return { left: Math.max(all, beside), top: all, right: all, bottom: all };
  }
  const above = drawn.labels.some((label) => label.edge === 'above') ? LETTER_MM + QUIET_MM + 0.4 : 0.6;
  return { left: widest > 0 ? beside : 1, top: (words === 'full' ? 3.2 : 0.4) + above, right: 1, bottom: 5.2 };
}

/**
 * The labels that are burned: all of them, or the first and the last at each edge, which tell the card's ends and its way up. What stands between
 * is on the screen, and a head takes a tenth of a second for each sign.
 */
function labelsToLetter({ labels, lettersAll }: Drawn, words: FrameSettings['words']): readonly EdgeLabel[] {
  if (words === 'full' || lettersAll) return labels;
  return (['above', 'beside'] as const).flatMap((edge) => {
    const own = labels.filter((label) => label.edge === edge);
    const last = own.length - 1;
    return own.filter((_, index) => index === 0 || index === last);
  });
}

function layLabels(labels: readonly EdgeLabel[], dx: number, dy: number): Lettering[] {
  const above = labels.filter((label) => label.edge === 'above');
  const beside = labels.filter((label) => label.edge === 'beside');
  const aboveHeight = Math.min(
    ...above.map(({ text, box }) => fittingHeightMm(text, box.width * 0.96, LETTER_MM)),
    LETTER_MM,
  );
  const room = dx - QUIET_MM - 0.2;
  const besideHeight = Math.min(
    ...beside.map(({ text, box }) => Math.min(box.height * 0.5, fittingHeightMm(text, room, LETTER_MM))),
    LETTER_MM,
  );
  return labels.map(({ text, means, edge, box }): Lettering => {
    const place =
      edge === 'above'
        ? {
            x: dx + box.x + box.width / 2,
            y: dy + box.y - QUIET_MM - aboveHeight,
            heightMm: aboveHeight,
            anchor: 'middle' as const,
          }
        : {
            x: dx - QUIET_MM,
            y: dy + box.y + (box.height - besideHeight) / 2,
            heightMm: besideHeight,
            anchor: 'end' as const,
          };
    return { role: 'axis', text: means, strokes: letter(text, place) };
  });
}

const markerSideMm = (innerWidthMm: number, innerHeightMm: number): number =>
  MARKER_SIZES_MM.find(
    ({ upToMm, sideMm }) => Math.max(innerWidthMm, innerHeightMm) + 2 * (sideMm + QUIET_MM) <= upToMm,
  )!.sideMm;

/** How large a frame with markers makes what is drawn; labels beside it may make it wider. */
export function framedSize({ width, height }: Pick<Rect, 'width' | 'height'>): { width: number; height: number } {
  const inner = Math.max(width, LEAST_INNER_MM);
  const around = 2 * (markerSideMm(inner, height) + QUIET_MM);
  return { width: round(inner + around), height: round(height + around) };
}

/**
 * Puts the frame that every card has around what a kind drew: corner markers that carry the card's number (or none), header, what is
 * constant, edge lettering, caption, code, and the burn order. Least area for what was drawn; positions in card millimetres from the
 * upper left corner. Throws RangeError for a card number the markers cannot carry.
 */
export function frame(
  kind: string,
  drawn: Drawn,
  settings: FrameSettings,
  { cardNumber }: CardIdentity,
  pairing: Pairing,
): Layout {
  const code = cardCode(cardNumber);
  return drawn.stations
    ? frameStations(kind, drawn, drawn.stations, settings, { cardNumber }, pairing)
    : frameAround(kind, drawn, settings, { cardNumber, code }, pairing);
}

/** One frame around all that was drawn, which says a code. */
function frameAround(
  kind: string,
  drawn: Drawn,
  settings: FrameSettings,
  { cardNumber, code }: CardIdentity & { readonly code: string },
  pairing: Pairing,
): Layout {
  const hasMarkers = drawn.markers === 'four' && settings.markers !== 'on-sheet';
  const innerWidth = Math.max(drawn.widthMm, LEAST_INNER_MM);
  const markerMm = markerSideMm(innerWidth, drawn.heightMm);
  const margin = marginsOf(drawn, settings.words, hasMarkers ? markerMm : null);
  const dx = margin.left + (innerWidth - drawn.widthMm) / 2;
  const dy = margin.top;
  const width = round(innerWidth + margin.left + margin.right);
  const height = round(drawn.heightMm + margin.top + margin.bottom);
  const ids = markerIdsOfCard(cardNumber);
  const markers = CORNER_NAMES.map((corner, index): MarkerPlace => ({
    corner,
    id: ids[index]!,
    x: corner.endsWith('right') ? round(width - markerMm) : 0,
    y: corner.startsWith('lower') ? round(height - markerMm) : 0,
    sizeMm: markerMm,
  }));
  const between = hasMarkers ? width - 2 * (markerMm + QUIET_MM) : width - 2;
  const line = (role: Lettering['role'], text: string, y: number, most: number): Lettering => ({
    role,
    text,
    strokes: letter(text, { x: width / 2, y, heightMm: fittingHeightMm(text, between, most), anchor: 'middle' }),
  });
  const lower = hasMarkers ? height - markerMm - QUIET_MM + 0.9 : height - 4.4;
  const cells = drawn.cells.map((cell, index): Cell => ({
    ...movedCell(cell, dx, dy),
    index,
    box: { ...cell.box, x: round(cell.box.x + dx), y: round(cell.box.y + dy) },
  }));
  return {
    version: LAYOUT_VERSION,
    kind,
    cardNumber,
    code,
    widthMm: width,
    heightMm: height,
    frame: {
      markers: hasMarkers ? markers : [],
      lettering: [
        ...(settings.words === 'full'
          ? [line('header', headerText(pairing), 0.2, LETTER_MM), line('constants', drawn.constants, 2.1, 1.1)]
          : []),
        ...layLabels(labelsToLetter(drawn, settings.words), dx, dy),
        line('axis', settings.words === 'full' ? drawn.caption : drawn.units, height - 1.3, 0.9),
        line('code', code, lower, 1),
      ],
      settings,
      air: drawn.air,
    },
    inner: { x: round(dx), y: round(dy), width: drawn.widthMm, height: drawn.heightMm },
    before: drawn.before.map((burn) => movedBurn(burn, dx, dy)),
    after: drawn.after.map((burn) => movedBurn(burn, dx, dy)),
    cells,
    ...burnPlan(cells, drawn, pairing),
    adopted: false,
    ...(drawn.mates && { mates: drawn.mates }),
    ...(drawn.tilt && { tilt: { ...drawn.tilt, levelAtMm: round(drawn.tilt.levelAtMm + dx) } }),
  };
}

/**
 * A frame around each station, with the card's code and the station's name, and with markers that carry the card's number and the ones after it. The
 * card is as large as all of them; what lies between them stays free.
 */
function frameStations(
  kind: string,
  drawn: Drawn,
  drawnStations: readonly DrawnStation[],
  settings: FrameSettings,
  { cardNumber }: CardIdentity,
  pairing: Pairing,
): Layout {
  const code = cardCode(cardNumber);
  const framed = drawnStations.map(({ name, box, cells }, index) => {
    const own: Drawn = {
      ...drawn,
      widthMm: box.width,
      heightMm: box.height,
      cells: cells.map((cell) => movedCell(drawn.cells[cell]!, -box.x, -box.y)),
      labels: drawn.labels
        .filter((label) => cells.some((cell) => drawn.cells[cell]!.box === label.box))
        .map((label) => ({ ...label, box: { ...label.box, x: label.box.x - box.x, y: label.box.y - box.y } })),
      before: [],
      after: [],
    };
    const number = cardNumber + index;
    return {
      name,
      cells,
      layout: frameAround(kind, own, settings, { cardNumber: number, code: `${code} ${name}` }, pairing),
      at: box,
    };
  });
  const left = Math.min(...framed.map(({ layout, at }) => at.x - layout.inner.x));
  const top = Math.min(...framed.map(({ layout, at }) => at.y - layout.inner.y));
  const stations = framed.map(({ name, cells, layout, at }, index): Station => ({
    name,
    cells,
    cardNumber: cardNumber + index,
    box: {
      x: round(at.x - layout.inner.x - left),
      y: round(at.y - layout.inner.y - top),
      width: layout.widthMm,
      height: layout.heightMm,
    },
  }));
  const whole = boxAround(stations.map(({ box }) => box));
  const parts = framed.map(({ layout, name }, index) => {
    const { markers, lettering } = movedMarks(layout.frame, stations[index]!.box.x, stations[index]!.box.y);
    return {
      markers: markers.map((marker) => ({ ...marker, station: name, x: round(marker.x), y: round(marker.y) })),
      lettering,
    };
  });
  const cells = drawn.cells.map((cell, index): Cell => ({
    ...cell,
    index,
    box: { ...cell.box, x: round(cell.box.x - left), y: round(cell.box.y - top) },
    burns: cell.burns.map((burn) => movedBurn(burn, -left, -top)),
  }));
  return {
    version: LAYOUT_VERSION,
    kind,
    cardNumber,
    code,
    widthMm: whole.width,
    heightMm: whole.height,
    frame: {
      markers: parts.flatMap(({ markers }) => markers),
      lettering: parts.flatMap(({ lettering }) => lettering),
      settings,
      air: drawn.air,
    },
    inner: { x: round(-left), y: round(-top), width: drawn.widthMm, height: drawn.heightMm },
    before: drawn.before.map((burn) => movedBurn(burn, -left, -top)),
    after: drawn.after.map((burn) => movedBurn(burn, -left, -top)),
    cells,
    ...burnPlan(cells, drawn, pairing),
    adopted: false,
    stations,
  };
}

/** Cells as they burn: by risk, and where a hand sets the focus, one focus after another. */
export function orderOf(cells: readonly Cell[], { machine }: Pick<Pairing, 'machine'>): number[] {
  return burnOrder(
    cells.filter(isBurned).map(({ index, box, risk, burns }) => ({
      index,
      box,
      risk,
      // The frame is burned at the set focus: what is burned there too needs no stop.
      ...(machine.automaticFocus
        ? {}
        : {
            group: String(burns[0]!.settings.focusOffsetMm),
            isReady: burns[0]!.settings.focusOffsetMm === 0,
          }),
    })),
  );
}

const isBurned = (cell: Cell): boolean => !cell.leftOut && cell.burns.length > 0;

/**
 * Order of a card's cells, and which of them are crossed in one sweep. Rows that are crossed at once go by their riskiest cell, that one
 * last, and no row directly after its neighbour; the cells of a row are neighbours all the same, which is what is asked for.
 */
function burnPlan(cells: readonly Cell[], { rows, order }: Drawn, on: Pairing): Pick<Layout, 'order' | 'together'> {
  if (order !== undefined) return { order: order.filter((index) => isBurned(cells[index]!)), together: [] };
  if (rows === undefined) return { order: orderOf(cells, on), together: [] };
  const burned = rows.map((row) => row.filter((index) => isBurned(cells[index]!))).filter((row) => row.length > 0);
  const asOne = burned.map((row, index) => {
    const members = row.map((member) => cells[member]!);
    return {
      index,
      box: boxAround(members.map(({ box }) => box)),
      risk: Math.max(...members.map(({ risk }) => risk)),
    };
  });
  const inTurn = burnOrder(asOne).map((index) => burned[index]!);
  return { order: inTurn.flat(), together: inTurn.filter((row) => row.length > 1) };
}

function boxAround(boxes: readonly Rect[]): Rect {
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  const right = Math.max(...boxes.map((box) => box.x + box.width));
  const bottom = Math.max(...boxes.map((box) => box.y + box.height));
  return { x, y, width: right - x, height: bottom - y };
}
