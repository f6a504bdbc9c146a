import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { lineLaw, widthBy, type LineLaw } from '../../core/fit/line-width';
import { deliveredPowerW } from '../../core/machine/machine';
import { commandFor } from '../../core/machine/command';
import { formatLength, formatPower } from '../../core/quantities/format';
import { widthAtLevel, type LineSeen } from '../../core/reading/lines/single-line';

export const LINE_FIELD = 'line';

export const LINE_WIDTH_ASKS: readonly Ask[] = [
  { field: 'width', by: 'photo', measure: 'lines' },
  eyeAsk(LINE_FIELD, 'Does the line stand there?', [
    ['whole', 'w', 'whole'],
    ['broken', 'b', 'broken'],
    ['nothing', 'n', 'nothing'],
  ]),
];

/** A line whose width a photo tells. */
export interface LineWidth {
  readonly cellIndex: number;
  readonly powerFraction: number;
  /** Between the places where half of its own darkness is reached. */
  readonly widthMm: number;
  readonly sigmaMm: number;
  readonly raggedMm: number;
}

export interface LineWidthFinding extends BaseFinding {
  readonly lines: readonly LineWidth[];
  /** Beam and threshold by the widths at one level of darkness; null where they tell no law. */
  readonly law:
    | (Omit<LineLaw, 'thresholdW' | 'thresholdLowW' | 'thresholdHighW'> & {
        readonly thresholdFraction: number;
        readonly thresholdLow: number;
        readonly thresholdHigh: number;
      })
    | null;
  /** Width at the strongest power of which a line was told, all lines of it together. */
  readonly strongest: {
    readonly powerFraction: number;
    readonly widthMm: number;
    readonly sigmaMm: number;
    readonly cellIndex: number;
  } | null;
}

/** Widths are compared at this share of what the darkest line takes: there a photo's blur moves an edge least. */
const LEVEL_SHARE = 0.5;
/** Lines that hardly reach it are narrower by the photo's blur than they are. */
const CLEAR_OF_LEVEL = 1.25;
/** Marks follow energy, and watts the command, to no better than this: on the bench, whose marks take a little more than energy, the beam comes out so much too wide. */
const LAW_HOLDS_TO = 0.08;
/** No photo tells a width better than this: the card is placed, and the photo's blur known, to no less. */
const LEAST_SIGMA_MM = 0.002;
const TOO_FAR =
  'The photo is too coarse for single lines: 40 pixels to a millimetre are needed. Take it from closer by, the card filling the picture, or crop nothing.';

/**
 * How wide single lines are by a photo, and what their widths over power say of the beam: where it is sharp, and from which power on it marks. Lines
 * that the operator called broken are left out, and those called nothing. What is missing is said where no width is told; widths without a law are an answer.
 */
export function findLineWidth(layout: Layout, seen: Seen, { pairing }: Known): LineWidthFinding {
  const { machine } = pairing;
  const liked = machine.likedUnits;
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const told = layout.order.flatMap((cellIndex) => {
    const line = readings.get(cellIndex)?.line;
    const word = wordOf(seen, LINE_FIELD, cellIndex);
    if (!line || line.widthMm === null || word === 'broken' || word === 'nothing') return [];
    return [{ cellIndex, powerFraction: mainBurn(layout.cells[cellIndex]!).settings.powerFraction, line }];
  });
  const lines = told
    .map(({ cellIndex, powerFraction, line }): LineWidth => ({
      cellIndex,
      powerFraction,
      widthMm: line.widthMm!,
      sigmaMm: Math.max(LEAST_SIGMA_MM, line.widthSigmaMm!),
      raggedMm: line.raggedMm!,
    }))
    .sort((a, b) => a.powerFraction - b.powerFraction || a.cellIndex - b.cellIndex);
  const none = { lines, law: null, strongest: null, says: '' };
  if (seen.readings.length === 0)
    return { ...none, missing: ['No photo of this card was read yet: it tells how wide the lines are.'] };
  if (lines.length === 0)
    return {
      ...none,
      missing: [
        [...readings.values()].some(({ line }) => line && line.widthMm === null) ||
        [...readings.values()].every(({ line }) => !line)
          ? `${TOO_FAR} Or no line stands clear of bare stock: burn stronger ones.`
          : 'Every line that the photo tells was called broken or nothing: burn stronger ones.',
      ],
    };
  const top = lines.at(-1)!.powerFraction;
  const alike = lines.filter(({ powerFraction }) => powerFraction === top);
  const total = alike.reduce((sum, { sigmaMm }) => sum + 1 / sigmaMm ** 2, 0);
  const widthMm = alike.reduce((sum, line) => sum + line.widthMm / line.sigmaMm ** 2, 0) / total;
  const scatter = Math.sqrt(
    alike.reduce((sum, line) => sum + (line.widthMm - widthMm) ** 2, 0) / Math.max(1, alike.length - 1) / alike.length,
  );
  const strongest = {
    powerFraction: top,
    widthMm,
    sigmaMm: Math.max(1 / Math.sqrt(total), scatter),
    cellIndex: alike[0]!.cellIndex,
  };
  const law = lawOf(told, (fraction) => deliveredPowerW(machine, fraction));
  const fraction = (watts: number): number => commandFor(machine, watts);
  const words = `A line at ${formatPower(top)} is ${formatLength(widthMm, liked, 3)} wide.`;
  if (!law)
    return {
      ...none,
      strongest,
      missing: [],
      says: `${words} Too few lines are dark enough to tell the beam: burn them up to more power, or slower.`,
    };
  const { thresholdW, thresholdLowW, thresholdHighW, ...rest } = law;
  const spotSigmaMm = Math.hypot(law.spotSigmaMm, LAW_HOLDS_TO * law.spotMm);
  return {
    lines,
    strongest,
    law: {
      ...rest,
      spotSigmaMm,
      thresholdFraction: fraction(thresholdW),
      thresholdLow: fraction(thresholdLowW),
      thresholdHigh: fraction(thresholdHighW),
    },
    missing: [],
    says: `${words} The beam is about ${formatLength(law.spotMm, liked, 2)} across the lines, and a line’s middle gets half of its full strength from about ${formatPower(fraction(thresholdW))} on.`,
  };
}

/** The law of widths at one level of darkness, over watts. */
function lawOf(
  told: readonly { readonly powerFraction: number; readonly line: LineSeen }[],
  wattsOf: (fraction: number) => number,
): LineLaw | null {
  const profiles = told.flatMap(({ powerFraction, line }) =>
    line.profile ? [{ powerFraction, line, profile: line.profile }] : [],
  );
  const darkest = Math.max(...profiles.map(({ profile }) => Math.max(...profile.taken)));
  return lineLaw(
    profiles.flatMap(({ powerFraction, line, profile }) => {
      const level = LEVEL_SHARE * darkest;
      const widthMm = widthAtLevel(profile, level);
      const sigmaMm = Math.max(LEAST_SIGMA_MM, line.widthSigmaMm!);
      return widthMm === null || Math.max(...profile.taken) < CLEAR_OF_LEVEL * level
        ? []
        : [{ powerW: wattsOf(powerFraction), widthMm, sigmaMm }];
    }),
  );
}

/** Width that the law foretells at a power, for the chart; 0 up to where it begins. */
export const foretold = (
  { spotMm, thresholdFraction }: NonNullable<LineWidthFinding['law']>,
  fraction: number,
  wattsOf: (fraction: number) => number,
): number => widthBy({ spotMm, thresholdW: wattsOf(thresholdFraction) }, wattsOf(fraction));
