import type { CornerName } from '../card/layout';
import type { Rect } from '../geometry/point';

/** Paper that a frame sheet is printed on, in mm, as it is held. */
export const SHEET_FORMATS = ['a5', 'letter'] as const;
export type SheetFormat = (typeof SHEET_FORMATS)[number];
export const FORMAT_NAMES: Readonly<Record<SheetFormat, string>> = { a5: 'A5', letter: 'Letter' };

/**
 * Printed greys, as shares of no ink: 0 is all ink, 1 is bare paper, the last. What light they really send back is the printer's affair, and is measured
 * once for each print.
 */
export const GREY_STEPS = [0, 0.12, 0.24, 0.36, 0.48, 0.6, 0.73, 0.86, 1] as const;

/** The four markers of every frame sheet: cards use none of them. */
export const SHEET_MARKER_IDS: Readonly<Record<CornerName, number>> = {
  'upper-left': 244,
  'upper-right': 245,
  'lower-right': 246,
  'lower-left': 247,
};

export interface SheetMarker {
  readonly corner: CornerName;
  readonly id: number;
  readonly x: number;
  readonly y: number;
  readonly sizeMm: number;
}

export type SheetSide = 'top' | 'right' | 'bottom' | 'left';

export interface GreyPatch {
  readonly side: SheetSide;
  /** Index in `GREY_STEPS`. */
  readonly step: number;
  readonly box: Rect;
}

/** What is printed, in mm from the frame's upper left corner: x right, y down. */
export interface FrameSheet {
  readonly format: SheetFormat;
  readonly paper: { readonly widthMm: number; readonly heightMm: number };
  /** Where the frame's upper left corner lies on the paper. */
  readonly onPaper: { readonly x: number; readonly y: number };
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where the card or piece is laid, or cut out to lie over it. */
  readonly window: Rect;
  readonly markers: readonly SheetMarker[];
  readonly patches: readonly GreyPatch[];
  /** A line of 100 mm on the paper, to check the print by: its left end, from the frame's upper left corner. */
  readonly rule: { readonly x: number; readonly y: number; readonly lengthMm: number };
}

/** Breadth of the frame around the window, and of the markers in its corners. */
const BAND_MM = 16;
const MARKER_MM = 11;
/** Blank paper around the frame's outer edge that markers keep. */
const RIM_MM = 1.5;
const PATCH_MM = 7;
const RULE_MM = 100;

const PAPERS: Readonly<
  Record<SheetFormat, { widthMm: number; heightMm: number; windowMm: readonly [number, number] }>
> = {
  a5: { widthMm: 210, heightMm: 148, windowMm: [92, 72] },
  letter: { widthMm: 279.4, heightMm: 215.9, windowMm: [150, 120] },
};

/**
 * Steps of each side, from left to right or from top to bottom. Two sides run in order, for the eye; the other two are shuffled so that no light
 * over the sheet looks like steps: between powers of the step to the fourth and of the place to the second the largest canonical correlation is
 * 0.30 (where all four run in order it is above 0.99). Best of 40 000 shuffles of one side, the other its complement.
 */
const ORDERS: Readonly<Record<SheetSide, readonly number[]>> = {
  top: [0, 1, 2, 3, 4, 5, 6, 7, 8],
  right: [4, 1, 2, 0, 6, 8, 7, 3, 5],
  bottom: [8, 7, 6, 5, 4, 3, 2, 1, 0],
  left: [4, 7, 6, 8, 2, 0, 1, 5, 3],
};

/** Evenly spaced boxes of one row of greys, along a side between two markers. */
function rowAlong(side: SheetSide, widthMm: number, heightMm: number): GreyPatch[] {
  const across = side === 'top' || side === 'bottom';
  const pitch = ((across ? widthMm : heightMm) - 2 * BAND_MM) / GREY_STEPS.length;
  const beside = RIM_MM + 1;
  const deep = side === 'top' || side === 'left' ? beside : (across ? heightMm : widthMm) - beside - PATCH_MM;
  return ORDERS[side].map((step, place) => {
    const along = BAND_MM + (place + 0.5) * pitch - PATCH_MM / 2;
    return {
      side,
      step,
      box: { x: across ? along : deep, y: across ? deep : along, width: PATCH_MM, height: PATCH_MM },
    };
  });
}

/**
 * The frame sheet for a paper: a window for the card or piece, four markers of its own in the corners, and a row of grey steps along each side.
 * Larger paper has a larger window. Its middle lies a little above the paper's, to leave room for the rule.
 */
export function frameSheet(format: SheetFormat): FrameSheet {
  const { widthMm: paperWidth, heightMm: paperHeight, windowMm } = PAPERS[format];
  const [widthMm, heightMm] = [windowMm[0] + 2 * BAND_MM, windowMm[1] + 2 * BAND_MM];
  const far = (size: number): number => size - RIM_MM - MARKER_MM;
  const places: readonly (readonly [CornerName, number, number])[] = [
    ['upper-left', RIM_MM, RIM_MM],
    ['upper-right', far(widthMm), RIM_MM],
    ['lower-right', far(widthMm), far(heightMm)],
    ['lower-left', RIM_MM, far(heightMm)],
  ];
  const onPaper = { x: (paperWidth - widthMm) / 2, y: (paperHeight - heightMm) / 2 - 8 };
  return {
    format,
    paper: { widthMm: paperWidth, heightMm: paperHeight },
    onPaper,
    widthMm,
    heightMm,
    window: { x: BAND_MM, y: BAND_MM, width: windowMm[0], height: windowMm[1] },
    markers: places.map(([corner, x, y]) => ({ corner, id: SHEET_MARKER_IDS[corner], x, y, sizeMm: MARKER_MM })),
    patches: (['top', 'right', 'bottom', 'left'] as const).flatMap((side) => rowAlong(side, widthMm, heightMm)),
    rule: { x: (widthMm - RULE_MM) / 2, y: heightMm + 7, lengthMm: RULE_MM },
  };
}

/** Stock around a card that shows in a sheet's window at the least. */
const AROUND_CARD_MM = 4;

/** The smallest sheet whose window a card fits into with some stock around it; the largest where none does. */
export function fittingSheet({
  widthMm,
  heightMm,
}: {
  readonly widthMm: number;
  readonly heightMm: number;
}): SheetFormat {
  const fits = SHEET_FORMATS.find((format) => {
    const { window } = frameSheet(format);
    return widthMm + 2 * AROUND_CARD_MM <= window.width && heightMm + 2 * AROUND_CARD_MM <= window.height;
  });
  return fits ?? SHEET_FORMATS.at(-1)!;
}
