import {
  formatArealEnergy,
  formatInterval,
  formatLength,
  formatPower,
  formatSpeed,
  plainNumber,
  type LikedUnits,
} from '../quantities/format';
import { FIT_WORDS } from '../fit/fit-bounds';
import { shorterAt } from '../motion/dot-length';
import { scanOffsetAt } from '../motion/lag';
import { paceWords } from '../motion/pace';
import type { Conditions } from './conditions';
import { leastThatHoldsWords, type LeastThatHolds } from './least-that-holds';
import type { FactName, FactValues } from './fact-values';
import type { RungId } from './rungs';
import type { Cause } from './staleness';

/** What a fact belongs to. */
export type FactOwner = 'pairing' | 'machine' | 'lens' | 'stock';

interface FactDefinition<Name extends FactName> {
  readonly title: string;
  readonly owner: FactOwner;
  /** The rung that it answers; null for facts of records that no rung shows. */
  readonly rung: RungId | null;
  /** The number that stands on the rung and in the book. */
  readonly show: (value: FactValues[Name], liked: LikedUnits) => string;
  /** How sure, in the value's unit; empty when sigma is null. */
  readonly sure: (sigma: number, liked: LikedUnits) => string;
  /** What changes of machine, lens or stock make it doubtful. */
  readonly staleBy: readonly Cause[];
}

const length = (mm: number, liked: LikedUnits): string => formatLength(mm, liked, 3);
/** No hand feels less. */
const hundredth = (mm: number): number => Math.round(mm * 100) / 100;
const signed = (mm: number, liked: LikedUnits): string => `${mm > 0 ? '+' : ''}${length(mm, liked)}`;
/** "lettering from 1.2 mm", or where it does not; nothing where nothing was told. */
const leastWords = (what: string, least: LeastThatHolds | null, liked: LikedUnits): string =>
  least ? `${what} ${leastThatHoldsWords(least.fromMm === null ? least : { ...least, notMm: null }, liked)}` : '';
const CUT_FOCUS_WORDS = { top: 'on the face', middle: 'in the middle', stepped: 'lower with each pass' } as const;
const MARK: readonly Cause[] = ['source', 'power', 'lens', 'batch', 'stock'];

/** Everything the book can hold, how it is shown and what makes it stale. */
export const FACTS: { readonly [Name in FactName]: FactDefinition<Name> } = {
  engrave: {
    title: 'Engraving',
    owner: 'pairing',
    rung: 'grid',
    show: ({ settings }, liked) =>
      `${formatPower(settings.powerFraction)}, ${formatSpeed(settings.speedMmPerS, liked)}`,
    sure: (sigma) => `L* ± ${plainNumber(2 * sigma, 2)}`,
    staleBy: [...MARK, 'thickness'],
  },
  floor: {
    title: 'Least power that marks',
    owner: 'pairing',
    rung: 'threshold',
    show: ({ powerFraction }) => `floor ${formatPower(powerFraction)}`,
    sure: (sigma) => `± ${formatPower(2 * sigma)}`,
    staleBy: MARK,
  },
  ceiling: {
    title: 'Power past which nothing gets darker',
    owner: 'pairing',
    rung: 'ceiling',
    show: ({ powerFraction, edgesFraction }) =>
      `ceiling ${formatPower(powerFraction)}${edgesFraction != null && edgesFraction < powerFraction ? `, dark edges from ${formatPower(edgesFraction)}` : ''}`,
    sure: (sigma) => `± ${formatPower(2 * sigma)}`,
    staleBy: MARK,
  },
  compared: {
    title: 'A against B',
    owner: 'pairing',
    // It changes the constants that other rungs start from, and answers none of them.
    rung: null,
    show: ({ a, b, darker, difference, largest, more }) => {
      const [dark, light] = darker === 'a' ? [a, b] : [b, a];
      if (darker !== null)
        return `${dark} is darker than ${light}${difference === null ? ', by eye' : ` by ${plainNumber(Math.abs(difference), 2)} L*`}`;
      if (more > 0) return `${a} or ${b}: ${more} more cells of each wanted`;
      return `${a} or ${b}: no difference${largest === null ? ', by eye' : ` over ${plainNumber(largest, 2)} L*`}`;
    },
    sure: (sigma) => `± ${plainNumber(2 * sigma, 2)} L*`,
    staleBy: MARK,
  },
  line: {
    title: 'Width of a line',
    owner: 'pairing',
    rung: 'line',
    show: ({ widthMm, powerFraction }, liked) => `${length(widthMm, liked)} at ${formatPower(powerFraction)}`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: MARK,
  },
  interval: {
    title: 'Line interval',
    owner: 'pairing',
    rung: 'interval',
    show: ({ intervalMm }, liked) => formatInterval(intervalMm, liked),
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: MARK,
  },
  tone: {
    title: 'Tone table',
    owner: 'pairing',
    rung: 'tone',
    show: ({ strongest, proven }) => `${plainNumber(strongest, 2)} L* deep, ${proven ? 'proven' : 'not proven yet'}`,
    sure: (sigma) => `± ${plainNumber(2 * sigma, 2)} L*`,
    staleBy: MARK,
  },
  photo: {
    title: 'Pictures',
    owner: 'pairing',
    rung: 'picture',
    show: ({ settings, table, offL }) =>
      `black ${formatPower(settings.powerFraction)}${table ? ', through a table' : ''}, ${plainNumber(offL, 2)} L* off`,
    sure: () => '',
    staleBy: MARK,
  },
  showpiece: {
    title: 'Showpiece',
    owner: 'pairing',
    rung: 'showpiece',
    show: ({ letteringMm, hairlineMm, pointMm }, liked) =>
      [
        leastWords('lettering', letteringMm, liked),
        leastWords('hairlines', hairlineMm, liked),
        leastWords('points', pointMm, liked),
      ]
        .filter(Boolean)
        .join(', '),
    sure: () => '',
    staleBy: [...MARK, 'thickness'],
  },
  focus: {
    title: 'Focus offset for fills',
    owner: 'pairing',
    rung: 'focus',
    show: ({ focusOffsetMm, flat }, liked) => (flat ? 'flat: stay at 0' : signed(focusOffsetMm, liked)),
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: ['lens', 'source', 'stock'],
  },
  waist: {
    title: 'Sharpest focus',
    owner: 'pairing',
    rung: 'focus',
    show: ({ offsetMm, depthMm }, liked) =>
      `sharpest at ${signed(offsetMm, liked)}${depthMm === null ? '' : `, ${length(depthMm, liked)} deep to either side`}`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: ['lens', 'source', 'stock'],
  },
  lag: {
    title: 'Scan offset',
    owner: 'machine',
    rung: 'ways',
    show: (law, liked) => `${signed(scanOffsetAt(law, law.toMmPerS), liked)} at ${formatSpeed(law.toMmPerS, liked)}`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: ['source', 'motion'],
  },
  dotLength: {
    title: 'Length of a dot by speed',
    owner: 'machine',
    rung: 'ways',
    show: (law, liked) => {
      const shorterMm = shorterAt(law, law.toMmPerS);
      const by = `${length(Math.abs(shorterMm), liked)} ${shorterMm < 0 ? 'longer' : 'shorter'}`;
      return `dots ${by} at ${formatSpeed(law.toMmPerS, liked)}`;
    },
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: ['source', 'motion'],
  },
  runUp: {
    title: 'Run-up',
    owner: 'machine',
    rung: 'run-up',
    show: ({ runUpMm, speedMmPerS }, liked) =>
      `${runUpMm === 0 ? 'none needed' : length(runUpMm, liked)} at ${formatSpeed(speedMmPerS, liked)}`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: ['motion'],
  },
  bed: {
    title: 'Level of the bed',
    owner: 'machine',
    rung: 'bed',
    show: ({ verdict, corners, strongerToRight, strongerToFront }, liked) => {
      const heights = Object.values(corners);
      const apart = Math.max(...heights) - Math.min(...heights);
      const drifts = strongerToRight !== null || strongerToFront !== null;
      const words =
        verdict === 'level' ? 'level' : verdict === 'bent' ? 'not flat' : `tilted by ${formatLength(apart, liked, 2)}`;
      return drifts ? `${words}, the beam weaker to one side` : words;
    },
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: ['bed', 'lens', 'motion'],
  },
  burnedThrough: {
    title: 'Burned through by a fill',
    owner: 'pairing',
    // It bounds what is engraved, and answers no question.
    rung: null,
    show: ({ arealJPerMm2 }) => `from ${formatArealEnergy(arealJPerMm2)} on`,
    sure: () => '',
    staleBy: [...MARK, 'thickness'],
  },
  cut: {
    title: 'Cutting',
    owner: 'pairing',
    rung: 'cut',
    show: ({ settings, certainty }, liked) =>
      `${formatPower(settings.powerFraction)}, ${formatSpeed(settings.speedMmPerS, liked)}${settings.passes > 1 ? `, ${settings.passes} passes` : ''}: ${plainNumber(100 * certainty, 3)} of 100 drop`,
    sure: () => '',
    staleBy: [...MARK, 'thickness'],
  },
  cutFocus: {
    title: 'Focus for cutting',
    owner: 'pairing',
    rung: 'cut-focus',
    show: ({ way, taperMm }, liked) =>
      `${CUT_FOCUS_WORDS[way]}${taperMm === null ? '' : `, ${length(hundredth(Math.abs(taperMm)), liked)} wider ${taperMm >= 0 ? 'below' : 'above'}`}`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: [...MARK, 'thickness'],
  },
  passes: {
    title: 'Passes for fine detail',
    owner: 'pairing',
    rung: 'passes',
    show: ({ settings, dropped }, liked) =>
      `${settings.passes === 1 ? '1 pass' : `${settings.passes} passes`} at ${formatSpeed(settings.speedMmPerS, liked)}: ${dropped} of ${dropped} whole`,
    sure: () => '',
    staleBy: [...MARK, 'thickness'],
  },
  kerf: {
    title: 'Kerf, full width',
    owner: 'pairing',
    rung: 'kerf',
    show: ({ xMm, yMm }, liked) =>
      [xMm === null ? '' : `X ${length(xMm, liked)}`, yMm === null ? '' : `Y ${length(yMm, liked)}`]
        .filter(Boolean)
        .join(', '),
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: [...MARK, 'thickness'],
  },
  fit: {
    title: 'Fit of slots',
    owner: 'pairing',
    rung: 'fit',
    show: ({ fromMm }, liked) =>
      `snug from ${signed(hundredth(fromMm.snug), liked)} to ${signed(hundredth(fromMm.slip), liked)}`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: [...MARK, 'thickness'],
  },
  mating: {
    title: 'Fit of knobs and inlays',
    owner: 'pairing',
    rung: 'fit',
    show: ({ fromMm }, liked) =>
      `snug drawn tighter by ${length(hundredth(-fromMm.slip / 2), liked)} to ${length(hundredth(-fromMm.snug / 2), liked)} a side in all`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: [...MARK, 'thickness'],
  },
  score: {
    title: 'Line to tear or fold',
    owner: 'pairing',
    rung: 'score',
    show: ({ dashMm, skipMm, share }, liked) =>
      dashMm !== null
        ? `${share === null ? 'dashes' : 'stitches'} ${length(dashMm, liked)}, ${length(skipMm ?? 0, liked)} between`
        : `scored at ${formatPower(share ?? 0)} of a cut`,
    sure: () => '',
    staleBy: [...MARK, 'thickness'],
  },
  hinge: {
    title: 'Strength of a hinge',
    owner: 'pairing',
    rung: 'hinge',
    show: ({ strength, samples }) =>
      `modulus over strength ${plainNumber(strength, 2)}, by ${samples} ${samples === 1 ? 'strip' : 'strips'}`,
    sure: (sigma) => `± ${plainNumber(2 * sigma, 2)}`,
    staleBy: ['batch', 'stock', 'thickness'],
  },
  part: {
    title: 'First part',
    owner: 'pairing',
    rung: 'part',
    show: ({ offMm, expectedMm, goes }, liked) =>
      `${length(hundredth(offMm), liked)} off, ${offMm <= expectedMm ? 'as expected' : 'more than expected'}${goes === null ? '' : `, ${FIT_WORDS[goes]}`}`,
    sure: () => '',
    staleBy: [...MARK, 'thickness'],
  },
  thickness: {
    title: 'Thickness',
    owner: 'stock',
    rung: 'stock',
    show: ({ meanMm }, liked) => length(meanMm, liked),
    sure: (sigma, liked) => `± ${length(sigma, liked)}`,
    staleBy: ['batch'],
  },
  firing: {
    title: 'Least command that fires',
    owner: 'machine',
    rung: null,
    show: ({ command }) => `fires from ${formatPower(command)}`,
    sure: (sigma) => `± ${formatPower(2 * sigma)}`,
    staleBy: ['source'],
  },
  spot: {
    title: 'Spot, 1/e² width',
    owner: 'lens',
    rung: null,
    show: ({ xMm, yMm }, liked) => `X ${length(xMm, liked)}, Y ${length(yMm, liked)}`,
    sure: (sigma, liked) => `± ${length(2 * sigma, liked)}`,
    staleBy: ['lens', 'source'],
  },
  watts: {
    title: 'Watts per command',
    owner: 'machine',
    rung: null,
    show: ({ points }) =>
      `${points.length} points, ${plainNumber(points.at(-1)?.watts ?? 0)} W at ${formatPower(points.at(-1)?.command ?? 0)}`,
    sure: (sigma) => `± ${plainNumber(2 * sigma, 2)} W`,
    staleBy: ['source'],
  },
  pace: {
    title: 'Pace, from timed burns',
    owner: 'machine',
    rung: null,
    show: (pace) => paceWords(pace),
    sure: (sigma) => `± ${plainNumber(200 * sigma, 2)} % of a burn’s time`,
    // Worked out again whenever the machine’s motion or a log changes.
    staleBy: [],
  },
};

export const FACT_NAMES = Object.keys(FACTS) as FactName[];

/** How a fact came about. */
export type FactOrigin = 'card' | 'record' | 'logs' | 'brought' | 'copied' | 'predicted' | 'adopted';

/** Of what nothing was burned for with these very settings: known from elsewhere, foretold from another machine or stock, or between the cells of a card. */
export const UNPROVEN = {
  brought: 'brought along, not proven here',
  copied: 'foretold, not proven here',
  predicted: 'foretold between cells, not burned yet',
} as const satisfies Partial<Record<FactOrigin, string>>;

export const isUnproven = (origin: FactOrigin): boolean => Object.hasOwn(UNPROVEN, origin);

interface FactBase<Name extends FactName> {
  readonly name: Name;
  readonly at: Conditions;
  readonly value: FactValues[Name];
  /** Standard uncertainty of the value in its own unit; null where none is known. */
  readonly sigma: number | null;
}

/** What a finding would put into the book. */
export type FactDraft = {
  [Name in FactName]: FactBase<Name> & {
    readonly cellIndex: number | null;
    /** Foretold between the cells of the card, not burned on it. */
    readonly predicted?: true;
  };
}[FactName];

/** The newest version of a fact. */
export type FactNow = {
  [Name in FactName]: FactBase<Name> & {
    readonly factId: number;
    readonly version: number;
    readonly origin: FactOrigin;
    readonly createdAt: string;
    /** Why it may hold no longer; empty when nothing speaks against it. */
    readonly stale: readonly string[];
  };
}[FactName];

/** The newest fact of a name that is not stale; the newest of all when every one is; undefined when there is none. */
export function factOf<Name extends FactName>(
  facts: readonly FactNow[],
  name: Name,
): Extract<FactNow, { name: Name }> | undefined {
  const own = facts.filter((fact): fact is Extract<FactNow, { name: Name }> => fact.name === name);
  const newest = [...own].sort((a, b) => (a.createdAt < b.createdAt ? 1 : -1));
  return newest.find((fact) => fact.stale.length === 0) ?? newest[0];
}

/** A fact in words: "floor 6.5 %". */
export function factWords(fact: Pick<FactNow, 'name' | 'value'>, liked: LikedUnits): string {
  return (FACTS[fact.name].show as (value: unknown, liked: LikedUnits) => string)(fact.value, liked);
}
