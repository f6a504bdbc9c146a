import { formatLength, plainNumber } from '../quantities/format';
import { thicknessOf } from '../stock/stock';
import type { CardIdentity, Drawn, Pairing } from './contract';
import { cardCode } from './code';
import {
  CORNER_NAMES,
  LAYOUT_VERSION,
  type Cell,
  type FrameSettings,
  type Layout,
  type Lettering,
  type MarkerPlace,
} from './layout';
import { fittingHeightMm, letter } from './lettering';
import { markerIdsOfCard } from './markers';
import { burnOrder } from './order';
import { movedBurn } from './shape';

const MARKER_MM = 6;
/** Bare stock around each marker: less than a module and the marker's edge is lost. */
const QUIET_MM = 1;
const LETTER_MM = 1.3;
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
function marginsOf(drawn: Drawn): Margins {
  const all = MARKER_MM + QUIET_MM;
  if (drawn.markers === 'four') return { left: all, top: all, right: all, bottom: all };
  const above = drawn.labels.some((label) => label.edge === 'above') ? LETTER_MM + QUIET_MM + 0.4 : 0.6;
  const beside = drawn.labels.some((label) => label.edge === 'beside') ? all : 1;
  return { left: beside, top: 3.2 + above, right: 1, bottom: 5.2 };
}

function layLabels({ labels }: Drawn, dx: number, dy: number): Lettering[] {
  const above = labels.filter((label) => label.edge === 'above');
  const beside = labels.filter((label) => label.edge === 'beside');
  const aboveHeight = Math.min(
    ...above.map(({ text, box }) => fittingHeightMm(text, box.width * 0.96, LETTER_MM)),
    LETTER_MM,
  );
  const besideHeight = Math.min(
    ...beside.map(({ text, box }) => Math.min(box.height * 0.5, fittingHeightMm(text, MARKER_MM - 0.4, LETTER_MM))),
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
            x: MARKER_MM,
            y: dy + box.y + (box.height - besideHeight) / 2,
            heightMm: besideHeight,
            anchor: 'end' as const,
          };
    return { role: 'axis', text: means, strokes: letter(text, place) };
  });
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
  const margin = marginsOf(drawn);
  const innerWidth = Math.max(drawn.widthMm, LEAST_INNER_MM);
  const dx = margin.left + (innerWidth - drawn.widthMm) / 2;
  const dy = margin.top;
  const width = round(innerWidth + margin.left + margin.right);
  const height = round(drawn.heightMm + margin.top + margin.bottom);
  const code = cardCode(cardNumber);
  const ids = markerIdsOfCard(cardNumber);
  const markers = CORNER_NAMES.map((corner, index): MarkerPlace => ({
    corner,
    id: ids[index]!,
    x: corner.endsWith('right') ? round(width - MARKER_MM) : 0,
    y: corner.startsWith('lower') ? round(height - MARKER_MM) : 0,
    sizeMm: MARKER_MM,
  }));
  const between = drawn.markers === 'four' ? width - 2 * (MARKER_MM + QUIET_MM) : width - 2;
  const line = (role: Lettering['role'], text: string, y: number, most: number): Lettering => ({
    role,
    text,
    strokes: letter(text, { x: width / 2, y, heightMm: fittingHeightMm(text, between, most), anchor: 'middle' }),
  });
  const lower = drawn.markers === 'four' ? height - MARKER_MM + 1.2 : height - 4.4;
  const cells = drawn.cells.map((cell, index): Cell => ({
    ...cell,
    index,
    box: { ...cell.box, x: round(cell.box.x + dx), y: round(cell.box.y + dy) },
    burns: cell.burns.map((burn) => movedBurn(burn, dx, dy)),
  }));
  return {
    version: LAYOUT_VERSION,
    kind,
    cardNumber,
    code,
    widthMm: width,
    heightMm: height,
    frame: {
      markers: drawn.markers === 'four' ? markers : [],
      lettering: [
        line('header', headerText(pairing), 0.2, LETTER_MM),
        line('constants', drawn.constants, 2.1, 1.1),
        ...layLabels(drawn, dx, dy),
        line('axis', drawn.caption, height - 1.3, 1),
        line('code', code, lower, 2),
      ],
      settings,
      air: drawn.air,
    },
    inner: { x: round(dx), y: round(dy), width: drawn.widthMm, height: drawn.heightMm },
    before: drawn.before.map((burn) => movedBurn(burn, dx, dy)),
    after: drawn.after.map((burn) => movedBurn(burn, dx, dy)),
    cells,
    order: orderOf(cells, pairing),
  };
}

/** Cells as they burn: by risk, and where a hand sets the focus, one focus after another. */
export function orderOf(cells: readonly Cell[], { machine }: Pick<Pairing, 'machine'>): number[] {
  return burnOrder(
    cells
      .filter((cell) => !cell.leftOut && cell.burns.length > 0)
      .map(({ index, box, risk, burns }) => ({
        index,
        box,
        risk,
        ...(machine.automaticFocus ? {} : { group: String(burns[0]!.settings.focusOffsetMm) }),
      })),
  );
}
