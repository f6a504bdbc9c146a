import type { BurnSettings, LineDirection } from '../card/settings';
import type { Fit, KeptBounds } from '../fit/fit-bounds';
import type { PowerPoint } from '../machine/machine';
import type { DotLaw } from '../motion/dot-length';
import type { LagLaw } from '../motion/lag';
import type { Pace } from '../motion/pace';
import type { Look } from '../stats/two-looks';
import type { LeastThatHolds } from './least-that-holds';

/** What each fact's value is, in canonical units. */
export interface FactValues {
  /** A setting to engrave with, and how light it came out where a photo told. */
  readonly engrave: {
    readonly settings: BurnSettings;
    readonly lightness: number | null;
    readonly lightnessSigma: number | null;
    readonly confidence: number | null;
  };
  readonly floor: { readonly powerFraction: number };
  /** With the power from which edges darken, where that was seen; facts that were kept before it was looked at have none. */
  readonly ceiling: { readonly powerFraction: number; readonly edgesFraction?: number | null };
  /** Two settings that differ by one constant, or one on stock made ready in two ways: which came out darker, L* of B less A, the largest difference that is not excluded, and how many more cells a second look wants. */
  readonly compared: {
    readonly a: string;
    readonly b: string;
    readonly sides: { readonly a: BurnSettings; readonly b: BurnSettings };
    readonly looks: readonly (Look & { readonly code: string })[];
    readonly darker: 'a' | 'b' | null;
    readonly difference: number | null;
    readonly largest: number | null;
    readonly more: number;
  };
  /** Width of a single line at a power, by the direction it runs in; with the beam across it and the power from which its middle is half as dark as it can be, where they were told. */
  readonly line: {
    readonly widthMm: number;
    readonly powerFraction: number;
    readonly direction: LineDirection;
    readonly spotMm: number | null;
    readonly thresholdFraction: number | null;
  };
  /** The coarsest that looks even, and the next one that did not; facts that were kept before that was recorded have none. */
  readonly interval: { readonly intervalMm: number; readonly upToMm?: number | null };
  /** What to burn for each of 256 greys, between two powers, in the picture mode that the conditions name; how many L* black lies from bare stock, and whether a corrected wedge was burned. */
  readonly tone: {
    readonly floorFraction: number;
    readonly topFraction: number;
    readonly table: readonly number[];
    readonly strongest: number;
    readonly proven: boolean;
  };
  /** A setting for pictures: what black is burned with, and next to nothing where power follows grey, through a tone table or without; how far, L* rms, a picture came out off what was wanted, and how far its black lies from bare stock. */
  readonly photo: {
    readonly settings: BurnSettings;
    readonly floorFraction: number;
    readonly table: readonly number[] | null;
    readonly offL: number;
    readonly strongest: number;
  };
  /** What a drawing burned with a setting showed: the least that holds of capitals' height, hairlines' and points' width, and the most that did not; null where nothing of the kind was told. */
  readonly showpiece: {
    readonly settings: BurnSettings;
    readonly letteringMm: LeastThatHolds | null;
    readonly hairlineMm: LeastThatHolds | null;
    readonly pointMm: LeastThatHolds | null;
  };
  /** `flat` when no offset was better than another: stay at 0. */
  readonly focus: { readonly focusOffsetMm: number; readonly flat: boolean };
  /** Where lines are sharpest, and so far to either side they are nearly as sharp; null where only an eye told. */
  readonly waist: { readonly offsetMm: number; readonly depthMm: number | null };
  /** Of lines along one axis, which the conditions name. */
  readonly lag: LagLaw;
  /** Of dots along one axis, which the conditions name. */
  readonly dotLength: DotLaw;
  /** On each side, along one axis; the speed it was found at, since it grows with its square. */
  readonly runUp: { readonly runUpMm: number; readonly speedMmPerS: number };
  /** Of the sheet over the bed, about its middle: how much too high each corner of what was tested lies, what the middle is off the set focus, how deep focus is, and by how many L* marks get stronger from left to right and from rear to front where nothing but the beam explains it. */
  readonly bed: {
    readonly widthMm: number;
    readonly depthMm: number;
    readonly corners: Readonly<Record<BedCorner, number>>;
    readonly middleMm: number;
    readonly focusDepthMm: number | null;
    readonly verdict: BedVerdict;
    readonly strongerToRight: number | null;
    readonly strongerToFront: number | null;
  };
  /** The least energy of a fill that went through the sheet, over its area and along its lines, and how far apart these lay. */
  readonly burnedThrough: {
    readonly arealJPerMm2: number;
    readonly lineJPerMm: number;
    readonly intervalMm: number;
  };
  /** A setting to cut with: the share of parts with such an outline that drop, all doubt included; the thicknesses it is good for; J/mm for each mm of thickness at which sound stock just comes through, and that this setting lays down; the colour of the edge, null where nobody said. */
  readonly cut: {
    readonly settings: BurnSettings;
    readonly certainty: number;
    readonly outlineMm: number;
    readonly thicknessMm: { readonly from: number; readonly to: number };
    readonly comesThrough: number;
    readonly laidDown: number;
    readonly edge: CutEdge | null;
  };
  /** Where the focus stands for the straightest edge: on the face, in the middle of the sheet, or lower with each pass, the first of them so far below the face; by how much parts come out wider below than above, null where nobody measured. */
  readonly cutFocus: {
    readonly way: 'top' | 'middle' | 'stepped';
    readonly focusOffsetMm: number;
    readonly taperMm: number | null;
  };
  /** The fewest passes that dropped sharp shapes whole, all of them, where each count of passes had the same energy; how many that were. */
  readonly passes: { readonly settings: BurnSettings; readonly dropped: number };
  /** Full width, along each axis: null where that axis was not measured. */
  readonly kerf: { readonly xMm: number | null; readonly yMm: number | null };
  /** How much wider than the sheet a slot is drawn where each fit begins; how that scatters from slot to slot; the kerf that was made up for. */
  readonly fit: KeptBounds & { readonly thicknessMm: number };
  /** Where each fit of a hole and a part that were both cut begins, by how much wider the hole is drawn than the part, and the kerfs that were made up for; full widths. */
  readonly mating: KeptBounds & { readonly holeKerfMm: number; readonly partKerfMm: number };
  /** A line that tears or folds, which the conditions name: perforated by dashes and skips, or scored with a share of a cut's energy; or dashes scored like stitches, which have all three. */
  readonly score: {
    readonly settings: BurnSettings;
    readonly dashMm: number | null;
    readonly skipMm: number | null;
    readonly share: number | null;
  };
  /** Strength of the stock against the twisting of a hinge's links, by what samples of a pattern, which the conditions name, were bent round: modulus over breaking stress as a median, and its spread in the logarithm. */
  readonly hinge: { readonly strength: number; readonly logSpread: number; readonly samples: number };
  /** A drawing that was cut, which the conditions name: with what, by which kerf and school, how far its sizes came out off the wanted ones, rms, and within what they were expected to (95 %), and how it went into its slot; null where nobody tried. */
  readonly part: {
    readonly settings: BurnSettings;
    readonly kerf: { readonly xMm: number; readonly yMm: number };
    readonly offMm: number;
    readonly expectedMm: number;
    readonly goes: Fit | null;
    /** How much wider than the sheet the slot was drawn that it was pushed into; null where there was none. */
    readonly slotMm: number | null;
  };
  readonly thickness: { readonly meanMm: number; readonly readings: number };
  /** The least command at which the source fires. */
  readonly firing: { readonly command: number };
  readonly spot: { readonly xMm: number; readonly yMm: number };
  readonly watts: { readonly points: readonly PowerPoint[] };
  readonly pace: Pace;
}

/** The colour of a cut's edge. */
export type CutEdge = 'pale' | 'brown' | 'black';

export const BED_CORNERS = ['rear left', 'rear right', 'front right', 'front left'] as const;
export type BedCorner = (typeof BED_CORNERS)[number];

/** What heights over the bed look like: even, a plane, or neither. */
export type BedVerdict = 'level' | 'tilted' | 'bent';

export type FactName = keyof FactValues;
