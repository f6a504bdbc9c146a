import { leastThatHoldsWords, type LeastThatHolds } from '../../core/book/least-that-holds';
import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Cell, type Layout } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import { lightnessOfLuminance, luminanceOfLightness } from '../../core/color/lab';
import { LOW_CONFIDENCE } from '../../core/reading/observations';
import { plainNumber, type LikedUnits } from '../../core/quantities/format';
import { PARTS, type PartName } from './plan';

export const COMES_OUT_FIELD = 'comes-out';

export const SHOWPIECE_ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  eyeAsk(COMES_OUT_FIELD, 'How does this part come out?', [
    ['clear', 'c', 'clear'],
    ['faint', 'f', 'faint or broken'],
    ['filled', 'g', 'grown together'],
    ['gone', 'n', 'not there'],
    ['charred', 'x', 'charred'],
  ]),
];

/** What of a broad area's contrast is left where small things are still told from what lies between them (from memory, without a source). */
export const HOLDS_SHARE = 0.5;
/** However clear a photo is, its blur and the stock tell a share no better. */
const LEAST_SIGMA = 0.04;
/** Sigmas that a share lies from the limit where it is told which side it is on. */
const SURE = 2;
/** Light that a broad area takes at the least, for parts to be measured by it: as a share of bare stock's. */
const LEAST_TAKEN = 0.08;

/** One part of the showpiece and how it came out. */
export interface ShownPart {
  readonly cellIndex: number;
  readonly part: PartName;
  readonly sizeMm: number | null;
  /** Of a broad area's contrast, what this part's is, by the photo; null where none tells it. */
  readonly share: number | null;
  readonly shareSigma: number | null;
  /** What the operator's eye says; null where it said nothing. */
  readonly word: string | null;
  /** Whether it holds: by the eye's word where there is one, else by the photo where that is sure; null where neither tells. */
  readonly holds: boolean | null;
}

export interface ShowpieceFinding extends BaseFinding {
  readonly parts: readonly ShownPart[];
  readonly settings: BurnSettings;
  /** L* of broad areas less bare stock's; null where no photo tells it. */
  readonly broadL: number | null;
  readonly lettering: LeastThatHolds | null;
  readonly hairlines: LeastThatHolds | null;
  readonly points: LeastThatHolds | null;
}

const partOf = ({ levels }: Cell): PartName => PARTS.find((one) => one === levels.part) ?? 'broad';
const sizeOf = ({ levels }: Cell): number | null => (typeof levels.size === 'number' ? levels.size : null);

/** The least of parts that holds with all larger ones, and the greatest that does not; null where none was told either way. */
function leastOf(parts: readonly ShownPart[]): LeastThatHolds | null {
  const sorted = parts.flatMap(({ sizeMm, holds }) => (sizeMm === null ? [] : [{ sizeMm, holds }]));
  sorted.sort((a, b) => b.sizeMm - a.sizeMm);
  let fromMm: number | null = null;
  let notMm: number | null = null;
  for (const { sizeMm, holds } of sorted) {
    if (holds === false) {
      notMm = sizeMm;
      break;
    }
    if (holds === true) fromMm = sizeMm;
  }
  return fromMm === null && notMm === null ? null : { fromMm, notMm };
}

/**
 * What broad, small and pointed parts of a drawing do with a setting: the least height of legible lettering, and the least width of hairlines and
 * points that hold, by the operator's eye where it spoke, else by how far each part stands out in a photo against a broad area. A part that the photo
 * is not sure of is said to be open.
 */
export function findShowpiece(layout: Layout, seen: Seen, { pairing }: Known): ShowpieceFinding {
  const { settings } = mainBurn(layout.cells[0]!);
  const broad = layout.cells.find((cell) => partOf(cell) === 'broad');
  const readingOf = (cellIndex: number) => seen.readings.find((one) => one.cellIndex === cellIndex);
  const whole = broad && readingOf(broad.index);
  // All parts are measured by the broad one: a reflection on it would be wrong for all of them.
  const isTrusted = whole !== undefined && whole.confidence >= LOW_CONFIDENCE;
  const measure = isTrusted && whole.drawing && Math.abs(whole.drawing.taken) >= LEAST_TAKEN ? whole.drawing : null;
  const parts = [...layout.order]
    .sort((a, b) => a - b)
    .map((cellIndex): ShownPart => {
      const cell = layout.cells[cellIndex]!;
      const word = wordOf(seen, COMES_OUT_FIELD, cellIndex);
      const own = readingOf(cellIndex);
      const trusted = own?.drawing && own.confidence >= LOW_CONFIDENCE ? own.drawing : null;
      const share = trusted && measure ? trusted.taken / measure.taken : null;
      const shareSigma =
        share === null
          ? null
          : Math.hypot(
              LEAST_SIGMA,
              trusted!.takenSigma / measure!.taken,
              (share * measure!.takenSigma) / measure!.taken,
            );
      const isSure = share !== null && Math.abs(share - HOLDS_SHARE) >= SURE * shareSigma!;
      const holds = word !== null ? word === 'clear' : isSure ? share >= HOLDS_SHARE : null;
      return { cellIndex, part: partOf(cell), sizeMm: sizeOf(cell), share, shareSigma, word, holds };
    });
  const of = (name: PartName): LeastThatHolds | null => leastOf(parts.filter(({ part }) => part === name));
  const found = {
    parts,
    settings,
    broadL: measure && whole ? broadLightness(whole.lightness - whole.deltaLightness, measure) : null,
    lettering: of('lettering'),
    hairlines: of('hairline'),
    points: of('point'),
  };
  const missing = missingOf(found, seen, isTrusted && whole.drawing !== null && measure === null);
  return { ...found, missing, says: missing.length > 0 ? '' : wordsOf(found, pairing.machine.likedUnits) };
}

/** L* of what takes so much of bare stock's light, less bare stock's own. */
function broadLightness(bareLightness: number, { taken, between }: { taken: number; between: number }): number {
  const light = Math.max(0, 1 - taken - between);
  return lightnessOfLuminance(luminanceOfLightness(bareLightness) * light) - bareLightness;
}

type Found = Omit<ShowpieceFinding, 'missing' | 'says'>;

function missingOf({ parts, lettering }: Found, seen: Seen, isFaint: boolean): string[] {
  if (lettering !== null) return [];
  if (parts.every(({ word }) => word === null)) {
    if (seen.readings.length === 0)
      return ['No photo of this card was read yet. Or say of each part how it comes out.'];
    if (isFaint)
      return [
        'Broad areas hardly stand out of bare stock in the photo: burn with more power, or say of each part how it comes out.',
      ];
  }
  return [
    'Whether lettering is legible is not told: the photo is too coarse, in doubt, or too close to the limit for it. Come nearer, in even light, or say of each height how it comes out.',
  ];
}

function wordsOf({ lettering, hairlines, points, broadL, parts }: Found, liked: LikedUnits): string {
  const sentence = (holds: string, holdsNot: string, least: LeastThatHolds | null): string => {
    if (least === null) return '';
    const told = leastThatHoldsWords(least, liked);
    return least.fromMm === null ? `${holdsNot} ${told.replace('not ', '')}.` : `${holds} ${told}.`;
  };
  const charred = parts.some(({ word }) => word === 'charred');
  const open = parts.filter(({ part, holds }) => part !== 'broad' && holds === null).length;
  return [
    sentence('Lettering is legible', 'Lettering is not legible', lettering),
    sentence('Hairlines hold', 'Hairlines do not hold', hairlines),
    sentence('Points hold', 'Points do not hold', points),
    broadL === null
      ? ''
      : `Broad areas come out ${plainNumber(Math.abs(broadL), 2)} L* ${broadL < 0 ? 'darker' : 'lighter'} than bare stock.`,
    charred ? 'Parts are charred: less power, or faster.' : '',
    open > 0
      ? `${open === 1 ? 'One part is' : `${open} parts are`} too close to tell by the photo: say how they come out.`
      : '',
  ]
    .filter(Boolean)
    .join(' ');
}

const EYE_WORDS: Readonly<Record<string, string>> = {
  clear: 'clear',
  faint: 'faint or broken',
  filled: 'grown together',
  gone: 'not there',
  charred: 'charred',
};

/** How a part came out, in words: "clear, by eye", "holds, 84 % of the contrast". */
export function wordOfPart({ word, share, shareSigma, holds }: ShownPart): string {
  const seen = share === null ? '' : `${plainNumber(100 * share, 2)} ± ${plainNumber(200 * shareSigma!, 2)} %`;
  if (word !== null) return `${EYE_WORDS[word] ?? word}, by eye${seen && ` (${seen})`}`;
  if (share === null) return 'not told';
  return `${holds === null ? 'too close to tell' : holds ? 'holds' : 'does not hold'}, ${seen}`;
}
