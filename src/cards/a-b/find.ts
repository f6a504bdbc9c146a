import type { FactNow } from '../../core/book/facts';
import { comparisonsOf, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Cell, type Layout } from '../../core/card/layout';
import { settingsText, type BurnSettings } from '../../core/card/settings';
import { inComparisons } from '../../core/card/liked';
import { BETTER, isSpoiled, OUTCOME } from '../../core/card/usual-asks';
import { rankedByPairs, SURE_OF_BEST, type Ranked } from '../../core/stats/bradley-terry';
import { plainNumber } from '../../core/quantities/format';
import { compare, lookAt, lookAtPairs, MOST_LOOKS, type Comparison, type Look } from '../../core/stats/two-looks';
import { BEFORE_AND_AFTER } from './draw';
import { CLEANED, UNCLEANED } from './plan';

export const DARKER_FIELD = 'darker';

export const A_B_ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  {
    field: DARKER_FIELD,
    by: 'eye',
    of: 'card',
    question: 'Which is darker, to the eye?',
    options: [
      { id: 'a', key: 'a', name: 'A' },
      { id: 'b', key: 'b', name: 'B' },
      { id: 'neither', key: 'e', name: 'neither' },
    ],
  },
  OUTCOME,
  BETTER,
];

/** A difference that an operator would choose by: twice what an eye tells apart side by side. */
export const WORTH_L = 4;
/** Patches of one photo are known to each other no better than this. */
const LEAST_SIGMA_L = 0.3;
/** What two photos of one piece may lie apart by as a whole, each told by its own light: the bench's by 0.03 in ordinary light, those of phones by more (from memory, without a source). */
const BETWEEN_PHOTOS_L = 0.4;
/** A patch that is read less surely than this says nothing of a difference worth knowing. */
const MOST_SIGMA_L = WORTH_L / 2;
const LEAST_CELLS = 2;

export interface ComparedCell {
  readonly cellIndex: number;
  readonly side: 'a' | 'b';
  readonly lightness: number;
  readonly sigma: number;
}

type Compared = Extract<FactNow, { name: 'compared' }>;
type KeptLook = Compared['value']['looks'][number];

export interface ABFinding extends BaseFinding {
  readonly a: string;
  readonly b: string;
  readonly sides: { readonly a: BurnSettings; readonly b: BurnSettings };
  readonly cells: readonly ComparedCell[];
  /** This card's look last. */
  readonly looks: readonly KeptLook[];
  readonly told: Comparison | null;
  /** What the operator's eye says of it. */
  readonly eye: 'a' | 'b' | 'neither' | null;
  /** Which side the operator likes better, by patches of both beside each other; null where none were compared. */
  readonly liked: LikedSide | null;
}

/** The side that is liked better, and how surely: 1/2 where both are liked alike. */
export interface LikedSide {
  readonly side: 'a' | 'b';
  readonly chance: number;
  readonly comparisons: number;
}

/** Which side is liked better: comparisons of two patches of one side say nothing of that. */
function likedSide(layout: Layout, seen: Seen): LikedSide | null {
  const place = (index: number): 0 | 1 | null => {
    const cell = layout.cells[index];
    return !cell || isSpoiled(seen, index) ? null : sideOf(cell) === 'a' ? 0 : 1;
  };
  const said = comparisonsOf(seen, BETTER.field).flatMap(({ better, worse, equal }) => {
    const [up, down] = [place(better), place(worse)];
    return up === null || down === null || up === down ? [] : [{ better: up, worse: down, equal }];
  });
  if (said.length === 0) return null;
  const [top] = rankedByPairs(2, said) as [Ranked, Ranked];
  return { side: top.index === 0 ? 'a' : 'b', chance: top.best, comparisons: said.length };
}

export const sideOf = ({ levels }: Cell): 'a' | 'b' => (String(levels.either).startsWith('A') ? 'a' : 'b');
const wordsOf = ({ levels }: Cell): string => String(levels.either).slice(3);

/** Looks that other cards had at the same two sides, oldest first. */
function earlierLooks(
  layout: Layout,
  { a, b, sides, twice }: Pick<ABFinding, 'a' | 'b' | 'sides'> & { readonly twice: boolean },
  facts: readonly FactNow[],
): KeptLook[] {
  const own = [a, b, settingsText(sides.a), settingsText(sides.b)].join();
  return facts
    .filter((fact): fact is Compared => fact.name === 'compared' && fact.stale.length === 0)
    .filter(({ value }) => [value.a, value.b, settingsText(value.sides.a), settingsText(value.sides.b)].join() === own)
    .flatMap(({ value }) => value.looks)
    .filter(({ code, paired }) => code !== layout.code && (paired ?? false) === twice);
}

const lightness = (value: number): string => `${plainNumber(Math.abs(value), 2)} L*`;
/** "Liked better is B, in 5 comparisons: 92 % sure." */
const likedWords = ({ side, chance, comparisons }: LikedSide): string =>
  chance < SURE_OF_BEST
    ? `Neither is surely liked better, ${inComparisons(comparisons)}.`
    : `Liked better is ${side.toUpperCase()}, ${inComparisons(comparisons)}: ${plainNumber(100 * chance, 2)} % sure.`;
const EYE_WORDS = { a: 'A is darker', b: 'B is darker', neither: 'neither is darker' } as const;
/** Differences that are surely less than this nobody sees, side by side. */
const SEEN_L = 2;

function inWords(
  { verdict, difference, half, largest, more }: Comparison,
  a: string,
  b: string,
  looks: number,
): string {
  const than = `B (${b}) comes out ${difference > 0 ? 'lighter' : 'darker'} than A (${a}) by ${lightness(difference)} ± ${plainNumber(half, 2)}`;
  if (verdict === 'differ') return `${than}${largest < SEEN_L ? ', too little for an eye' : ''}.`;
  if (verdict === 'more')
    return `Not enough cells: ${more} more of each would tell ${WORTH_L} L* apart. So far ${than}, which may be chance.`;
  return largest <= WORTH_L
    ? `No difference seen between A (${a}) and B (${b}): more than ${lightness(largest)} is excluded.`
    : `No difference seen between A (${a}) and B (${b}) in ${looks} looks; up to ${lightness(largest)} is not excluded.`;
}

/** Whether the cells of a card are looked at twice, before they are cleaned and after. */
export const isLookedAtTwice = ({ cells }: Layout): boolean =>
  cells.every(({ levels }) => levels.either === BEFORE_AND_AFTER);

/** Cells that were read surely enough and are not spoiled; both sides of those that are looked at twice. */
function comparedCells(layout: Layout, seen: Seen, twice: boolean): ComparedCell[] {
  const readAs = (readings: Seen['readings'], side: (cell: Cell) => 'a' | 'b'): ComparedCell[] =>
    readings.flatMap(({ cellIndex, lightness: light, lightnessSigma }) => {
      const cell = layout.cells[cellIndex];
      if (!cell || lightnessSigma > MOST_SIGMA_L || isSpoiled(seen, cellIndex)) return [];
      return [{ cellIndex, side: side(cell), lightness: light, sigma: lightnessSigma }];
    });
  if (!twice) return readAs(seen.readings, sideOf);
  const [before, after] = [readAs(seen.before ?? [], () => 'a'), readAs(seen.readings, () => 'b')];
  const both = (one: ComparedCell): boolean =>
    [before, after].every((cells) => cells.some(({ cellIndex }) => cellIndex === one.cellIndex));
  return [...before, ...after].filter(both);
}

/** What the cells of this card tell by themselves. */
function lookOf(cells: readonly ComparedCell[], twice: boolean): Look {
  const [a, b] = (['a', 'b'] as const).map((side) => cells.filter((cell) => cell.side === side)) as [
    ComparedCell[],
    ComparedCell[],
  ];
  if (!twice)
    return lookAt(
      a.map((cell) => cell.lightness),
      b.map((cell) => cell.lightness),
    );
  return lookAtPairs(
    a.map(({ cellIndex, lightness: light }) => [light, b.find((cell) => cell.cellIndex === cellIndex)!.lightness]),
  );
}

/**
 * Whether one side comes out darker than the other, by all cells of a photo and those of an earlier card with the same two sides: there are two looks at
 * the most, so that chance is called a difference in under 6 of 100. Cells that are looked at before and after cleaning are compared each with itself, by
 * two photos, which may be off from each other as a whole. The operator's eye stands beside it.
 */
export function findAB(layout: Layout, seen: Seen, { facts }: Known): ABFinding {
  const twice = isLookedAtTwice(layout);
  const [cellA, cellB] = (['a', 'b'] as const).map((side) =>
    layout.cells.find((cell) => twice || sideOf(cell) === side)!,
  ) as [Cell, Cell];
  const [a, b] = twice ? [UNCLEANED, CLEANED] : [wordsOf(cellA), wordsOf(cellB)];
  const cells = comparedCells(layout, seen, twice);
  const sides = { a: mainBurn(cellA).settings, b: mainBurn(cellB).settings };
  const earlier = earlierLooks(layout, { a, b, sides, twice }, facts);
  const eye = wordOf(seen, DARKER_FIELD, null) as ABFinding['eye'];
  const liked = twice ? null : likedSide(layout, seen);
  const none = { a, b, sides, cells, looks: earlier, told: null, eye, liked, says: '' };
  const said = [eye && `By eye ${EYE_WORDS[eye]}.`, liked && likedWords(liked)].filter(Boolean);
  const byEye = said.length === 0 ? null : said.join(' ');
  if (earlier.length >= MOST_LOOKS)
    return {
      ...none,
      missing: [
        `A (${a}) and B (${b}) have had their two looks: a third would sooner or later call chance a difference.`,
      ],
    };
  const lacking = lackingOf(seen, cells, twice);
  if (lacking !== null) return byEye === null ? { ...none, missing: [lacking] } : { ...none, missing: [], says: byEye };
  const looks = [...earlier, { ...lookOf(cells, twice), code: layout.code }];
  const read = Math.sqrt(cells.reduce((sum, { sigma }) => sum + sigma ** 2, 0) / cells.length);
  const told = compare(looks, WORTH_L, Math.max(LEAST_SIGMA_L, read), twice ? BETWEEN_PHOTOS_L : 0);
  const says = inWords(told, a, b, looks.length);
  return { ...none, looks, told, missing: [], says: byEye === null ? says : `${says} ${byEye}` };
}

/** Why the photos tell nothing yet; null where they do. */
function lackingOf(seen: Seen, cells: readonly ComparedCell[], twice: boolean): string | null {
  if (seen.readings.length === 0) return 'No photo of this card was read yet. Or say which is darker to the eye.';
  if (twice && !seen.before)
    return 'Two photos tell: one before the card is cleaned and one after. One of the two is missing; clean it only when the first was read.';
  const countOf = (side: 'a' | 'b'): number => cells.filter((cell) => cell.side === side).length;
  return Math.min(countOf('a'), countOf('b')) < LEAST_CELLS
    ? 'Too few cells were read surely: two of each at the least show how they scatter. Take another photo, or say which is darker to the eye.'
    : null;
}

/** What the photo says alone. */
const byPhoto = (told: Comparison | null): 'a' | 'b' | null =>
  told?.verdict !== 'differ' ? null : told.difference > 0 ? 'a' : 'b';

/**
 * What is kept of it: which side is the darker one, by the operator's eye where that spoke, and the photo's numbers where they say the same. Numbers that
 * say otherwise do not stand beside the eye's word, and what the eye settled wants no second look.
 */
export function outcomeOf({ told, eye }: ABFinding): {
  readonly darker: 'a' | 'b' | null;
  readonly numbers: Comparison | null;
  readonly more: number;
} {
  if (eye === null) return { darker: byPhoto(told), numbers: told, more: told?.more ?? 0 };
  const darker = eye === 'neither' ? null : eye;
  const agrees = told !== null && told.verdict !== 'more' && byPhoto(told) === darker;
  return { darker, numbers: agrees ? told : null, more: 0 };
}
