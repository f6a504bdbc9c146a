import { wordOf, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { formatPower } from '../../core/quantities/format';
import { showsMark } from '../../core/reading/mark-direction';
import { chancePoint, halfPoint, type ChancePoint } from '../../core/stats/firth';
import { MARK_FIELD } from './asks';
import { familyOf } from '../../core/stock/families';
import { wouldHaveMarked } from './firing';

/** From so many patches on the power is told at which one in fifty marks: fewer would only carry the curve on to where nothing was seen. */
export const MANY = 40;
const FAINT = 0.02;

/** A patch with whether it marked, and who says so. */
export interface MarkedPatch {
  readonly cellIndex: number;
  readonly powerFraction: number;
  readonly marked: boolean;
  readonly by: 'eye' | 'photo';
}

interface Chance {
  readonly power: number;
  readonly low: number | null;
  readonly high: number | null;
}

const inPower = ({ x, low, high }: ChancePoint): Chance => ({
  power: Math.exp(x),
  low: low === null ? null : Math.exp(low),
  high: high === null ? null : Math.exp(high),
});

export interface ThresholdFinding extends BaseFinding {
  readonly patches: readonly MarkedPatch[];
  /** Patches that neither eye nor photo settles: the photo shows something, but not clear of its own doubt. */
  readonly undecided: readonly number[];
  /** Power at which a mark is as likely as none, with its 95 % interval; an end is null where the patches do not bound it. */
  readonly half: Chance | null;
  /** Power at which one patch in fifty marks; null where too few patches were told. */
  readonly faint: Chance | null;
  /** One step below the lowest mark, or where one patch in fifty marks if that is less: white stays white up to here. */
  readonly floor: number | null;
  /** Where the source itself begins to fire: told where patches stayed bare that had light enough for a deep mark; the stock's floor is not, then. */
  readonly firing: Chance | null;
  /** Whether the floor is the machine's own: nothing weaker fires. */
  readonly machineFloor: boolean;
}

/** An interval wider than this share of its middle is worth a closer strip. */
const WIDE_SHARE = 0.2;

/** Whether a closer strip would tell more, in words. */
function closerWords({ power, low, high }: Chance): string {
  if (low !== null && high !== null && high - low <= WIDE_SHARE * power) return '';
  return ' Once kept, the next strip is laid closer around it.';
}

/** Where the source begins to fire, in words, beside what its record says. */
function firingWords({ power, low, high }: Chance, recorded: number, family: string): string {
  const range = low === null || high === null ? '' : ` (95 % sure: ${formatPower(low)} to ${formatPower(high)})`;
  const apart = low !== null && high !== null && (recorded < low || recorded > high);
  return `The source begins to fire at about ${formatPower(power)}${range}: below it patches had light enough for a deep mark, by what is usual for ${family}, and stayed bare.${apart ? ` The machine’s record says ${formatPower(recorded)}: change it there.` : ''}`;
}

/**
 * The least power that marks, from what the eye says and, where it says nothing, from what a photo shows. Contradictions (a stronger
 * patch bare, a weaker one marked) widen the interval; the floor is below every patch that marked.
 */
export function findThreshold(layout: Layout, seen: Seen, { pairing }: Known): ThresholdFinding {
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const patches: MarkedPatch[] = [];
  const undecided: number[] = [];
  for (const index of layout.order) {
    const { powerFraction } = mainBurn(layout.cells[index]!).settings;
    const word = wordOf(seen, MARK_FIELD, index);
    const reading = readings.get(index);
    const shown = reading ? showsMark(reading) : null;
    if (word !== null) patches.push({ cellIndex: index, powerFraction, marked: word === 'marked', by: 'eye' });
    else if (shown !== null) patches.push({ cellIndex: index, powerFraction, marked: shown, by: 'photo' });
    else if (reading) undecided.push(index);
  }
  const none = {
    patches,
    undecided,
    half: null,
    faint: null,
    floor: null,
    firing: null,
    machineFloor: false,
    says: '',
  };
  const least = pairing.machine.lowestFiringCommand;
  if (patches.length === 0)
    return { ...none, missing: ['Say of each patch whether it left a mark, or let a photo be read.'] };
  const marked = patches.filter((patch) => patch.marked);
  if (marked.length === 0) return { ...none, missing: ['No patch marked: burn a strip with more power, or slower.'] };
  const lowest = Math.min(...marked.map((patch) => patch.powerFraction));
  const bare = patches.filter((patch) => !patch.marked && patch.powerFraction < lowest);
  if (bare.length === 0) {
    const own = lowest <= least * 1.1 + 1e-9;
    return {
      ...none,
      machineFloor: own,
      missing: [
        own
          ? `Even ${formatPower(lowest)}, about the lowest command that fires, marks: go faster to find the floor.`
          : 'Even the weakest patch marked: burn a strip with less power.',
      ],
    };
  }
  const below = Math.max(...bare.map((patch) => patch.powerFraction));
  const answers = patches.map(({ powerFraction, marked: yes }) => ({ x: Math.log(powerFraction), yes }));
  const fit = halfPoint(answers);
  if (!fit)
    return {
      ...none,
      missing: ['Weaker patches marked where stronger ones did not: look at them again, or burn the strip anew.'],
    };
  const half = inPower(fit);
  const { settings } = mainBurn(layout.cells[layout.order[0]!]!);
  if (wouldHaveMarked(below, settings, pairing))
    return {
      ...none,
      half,
      firing: half,
      machineFloor: true,
      missing: [],
      says: firingWords(half, least, familyOf(pairing.stock.family).name.toLowerCase()),
    };
  const point = patches.length >= MANY ? chancePoint(answers, FAINT) : null;
  const faint = point && inPower(point);
  const weakest = Math.min(...patches.map((patch) => patch.powerFraction));
  if (faint && faint.power < weakest)
    return {
      ...none,
      half,
      missing: [
        `One patch in fifty would still mark below ${formatPower(weakest)}, where none was burned: burn rows from less power up.`,
      ],
    };
  const floor = Math.min(below, faint?.power ?? Infinity);
  const machineFloor = below < least;
  const doubt =
    undecided.length > 0
      ? ` ${undecided.length === 1 ? 'One patch' : `${undecided.length} patches`} could not be told: look there by eye.`
      : '';
  return {
    patches,
    undecided,
    half,
    faint,
    floor,
    firing: null,
    machineFloor,
    missing: [],
    says: `The first mark comes at about ${formatPower(half.power)}; up to ${formatPower(floor)} ${faint ? 'at most one patch in fifty marks' : 'white stays white'}.${machineFloor ? ' That is where this source begins to fire.' : ''}${closerWords(half)}${doubt}`,
  };
}
