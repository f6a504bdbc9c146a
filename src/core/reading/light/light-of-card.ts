import { hasMarkers, type Layout } from '../../card/layout';
import type { Rectified } from '../rectify';
import { addedAtMarkers, addedByMarkers } from './added-by-markers';
import { addedLight, withoutAdded, type AddedLight } from './added-light';
import type { SheetAround } from './added-over-sheet';
import { broadOver } from './broad-reflection';
import { bareTiles } from './bare-tiles';
import { clearOfCells } from './clear-of-cells';
import { evened } from './evened';
import { isLightOfLamps } from './light-of-lamps';
import { fitLight, type LightOnBare } from './light-on-bare';
import { markerDarkness } from './marker-darkness';

/** How far the colour of a cell bleeds over its edge in a stored photo. */
const COLOUR_BLEED_MM = 0.15;
/** Bare stock of which more is clipped tells the light on itself by its darker part alone. */
const CLIPPED_BARE = 0.02;
/** Where more of bare stock is clipped and too little is left, it is not hidden but blown out. */
const BLOWN_OUT = 0.5;

/** What is known of a photo's light before bare stock is looked at. */
export interface KnownLight {
  readonly stockLinear: readonly [number, number, number];
  /** What a sheet around the card tells; null without one. */
  readonly sheet: SheetAround | null;
  /** How sure undone tones leave the ratio of two lights; null for tones as they were stored. */
  readonly sigmaOfRatio: ((light: number, other: number) => number) | null;
}

/** The light on a card, and its straightened photo without what was added to it. */
export interface LightOfCard {
  readonly rectified: Rectified;
  readonly field: LightOnBare;
  /** Light that was added and taken out; null where none was found. */
  readonly taken: AddedLight | null;
  /** How sure it is that no more was added, as a share of what white stock would send. */
  addedSigma(xMm: number, yMm: number): number;
  /** Whether the light is told by a sheet around the card, and not by bare stock, part of which is blown out. */
  readonly isTold: boolean;
  /** How the photo's own light at a place of the card is to be changed as the straightened card's was: evened, and without what was added. */
  levelling(xMm: number, yMm: number): Levelling;
}

/** By channel, red first: light is taken times a gain, and less what was added to that. Noise may leave less than none: it is for means of many pixels. */
export interface Levelling {
  readonly gain: readonly [number, number, number];
  readonly added: readonly [number, number, number];
}

/** Light that is left as it is. */
export const AS_IT_IS: Levelling = { gain: [1, 1, 1], added: [0, 0, 0] };

/**
 * Tells the light on a straightened card: by the paper of a sheet around it where bare stock is blown out, else by bare stock; reflections by
 * that sheet's greys, then by the colour of bare stock, and where that tells none, by the card's markers. Why not, where too little bare stock is left to tell it.
 */
export function lightOfCard(
  image: Rectified,
  layout: Layout,
  { stockLinear, sheet, sigmaOfRatio }: KnownLight,
): LightOfCard | 'overexposed' | 'no-bare-stock' {
  const bare = bareTiles(image, layout, COLOUR_BLEED_MM);
  const paper = sheet && bare.clippedShare > CLIPPED_BARE ? sheet.paperLight : null;
  const level = paper ? evened(image, paper) : image;
  const bySheet = sheet && broadOver(bare.tiles, layout, stockLinear, sheet, paper !== null);
  const broad = bySheet === 'lamp' ? null : bySheet;
  const cleared = broad ? withoutAdded(level, broad) : level;
  const { tiles } = paper || broad ? bareTiles(cleared, layout, COLOUR_BLEED_MM) : bare;
  // What paper tells to be a lamp's reflection is no bend of the tones that looks like one.
  const colourSigma = bySheet === 'lamp' ? undefined : (sigmaOfRatio ?? undefined);
  const byColour = addedLight(tiles, stockLinear, layout.widthMm, layout.heightMm, colourSigma);
  const found = byColour && byColour.range > 0 ? byColour : null;
  const markers = markerDarkness(cleared, tiles, layout);
  const coloured = found && !isLightOfLamps(found, addedAtMarkers(markers, stockLinear)) ? found : null;
  // What colour cannot tell, on grey stock or where it is little, the markers may.
  const byMarkers = coloured ? null : addedByMarkers(markers, tiles, stockLinear, byColour?.unseenRange);
  const own = coloured ?? (byMarkers && byMarkers.range > 0 ? byMarkers : null);
  const rectified = own ? withoutAdded(cleared, own) : cleared;
  const field = fitLight(rectified, layout, hasMarkers(layout) ? 0 : clearOfCells(layout), paper !== null);
  if (!field) return bare.clippedShare > BLOWN_OUT ? 'overexposed' : 'no-bare-stock';
  const middle = paper?.(layout.widthMm / 2, layout.heightMm / 2);
  const taken = [broad, own].filter((part) => part !== null);
  return {
    rectified,
    field,
    taken: taken.length > 0 ? together(taken) : null,
    // What was found to be the lamps' own colour says nothing of added light.
    addedSigma: (x, y) =>
      Math.hypot(
        (found && !coloured ? null : byColour)?.sigmaAt(x, y) ?? 0,
        byMarkers?.sigmaAt(x, y) ?? 0,
        broad?.sigmaAt(x, y) ?? 0,
      ),
    isTold: paper !== null,
    levelling: (x, y) => {
      if (!paper && taken.length === 0) return AS_IT_IS;
      const here = paper?.(x, y);
      const added: [number, number, number] = [0, 0, 0];
      for (const { at, white } of taken) {
        const share = at(x, y);
        for (const channel of [0, 1, 2] as const) added[channel] += share * white[channel];
      }
      return {
        gain: here ? [middle![0] / here[0], middle![1] / here[1], middle![2] / here[2]] : AS_IT_IS.gain,
        added,
      };
    },
  };
}

/** Light that was added by several at once. */
function together(parts: readonly AddedLight[]): AddedLight {
  return {
    at: (x, y) => parts.reduce((sum, part) => sum + part.at(x, y), 0),
    sigmaAt: (x, y) => Math.hypot(...parts.map((part) => part.sigmaAt(x, y))),
    range: Math.max(...parts.map(({ range }) => range)),
    white: parts[0]!.white,
  };
}
