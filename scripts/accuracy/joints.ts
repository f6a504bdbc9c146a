import { burnedCard } from '../../stand-ins/burn';
import { knobsObserver } from '../../stand-ins/observers/knobs';
import { partObserver } from '../../stand-ins/observers/part';
import { knobs } from '../../src/cards/knobs';
import { part } from '../../src/cards/part';
import { slots } from '../../src/cards/slots';
import type { FactValues } from '../../src/core/book/fact-values';
import type { FactNow } from '../../src/core/book/facts';
import type { Pairing } from '../../src/core/card/contract';
import { layCard } from '../../src/core/card/lay';
import { MATE } from '../../src/core/card/usual-asks';
import { WANTED_FITS, type WantedFit } from '../../src/core/fit/fit-bounds';
import { quantile } from '../../src/core/stats/robust';
import { factNow } from '../../stand-ins/facts';
import { feel, measure } from './fits';
import { percent, rowsBySeedAndStock } from './figures';
import { inParts, seedsOfCommit } from './in-parts';
import { madeUpPairing } from './stocks';

/** What a first part and fresh joints of one made-up stock came to. */
interface ToldJoints {
  readonly seed: string;
  readonly stock: string;
  /** Sizes of the part: how far off, and whether within what was expected. */
  readonly sizes: readonly { readonly offMm: number; readonly asExpected: boolean }[];
  /** Whether it went into its slot as it was meant to; null where it was not tried. */
  readonly wentIn: boolean | null;
  /** Fresh pairs drawn for a fit by the ladder of knobs, how many had it, and how many were said to. */
  readonly pairs: readonly {
    readonly fit: WantedFit;
    readonly had: number;
    readonly of: number;
    readonly chance: number;
  }[];
  readonly why: string;
}

/** Fresh pairs are drawn alike: holes and parts by steps of next to nothing. */
const FRESH = { holes: 3, parts: 3, stepMm: 0.001 } as const;

/** Pairs of a ladder put together by one pair of hands: for each fit, how many fresh ones drawn for it had it. */
function matesOf(pairing: Pairing, facts: readonly FactNow[], of: string): ToldJoints['pairs'] {
  const known = { pairing, facts };
  const { plan } = knobs.propose(known);
  const burned = burnedCard(layCard(knobs, plan, pairing, { cardNumber: 7 }), pairing, `${of} ladder`);
  const seen = knobsObserver.look(burned, of);
  return WANTED_FITS.flatMap((fit) => {
    const { tighterMm, chances } = knobs.find(burned.layout, seen, known, { fit });
    if (tighterMm === null || chances === null) return [];
    const middle = (FRESH.holes * FRESH.parts - 1) / 2;
    const fresh = { ...plan, ...FRESH, fromMm: tighterMm - middle * FRESH.stepMm };
    const again = burnedCard(layCard(knobs, fresh, pairing, { cardNumber: 8 }), pairing, `${of} fresh ${fit}`);
    const words = knobsObserver.look(again, of).answers.filter(({ field }) => field === MATE.field);
    return [{ fit, had: words.filter(({ value }) => value === fit).length, of: words.length, chance: chances[fit] }];
  });
}

function jointsOf(seed: string, turn: number): ToldJoints | null {
  const pairing = madeUpPairing(seed, turn);
  const of = `${seed} ${turn}`;
  const told = { seed, stock: pairing.stock.name, sizes: [], wentIn: null, pairs: [], why: '' };
  try {
    slots.propose({ pairing, facts: [] });
  } catch (error) {
    // What this source does not cut, and what bends.
    if (error instanceof RangeError) return null;
    throw error;
  }
  const measured = measure(pairing, of);
  if (!measured) return { ...told, why: 'no square dropped' };
  const facts: FactNow[] = [measured.fact];
  const { plan } = slots.propose({ pairing, facts });
  const comb = feel(plan, pairing, facts, `${of} comb`);
  const [draft] = slots.settle(comb, layCard(slots, plan, pairing, { cardNumber: 6 }));
  if (!draft) return { ...told, why: comb.missing[0] ?? '' };
  facts.push(factNow('fit', draft.value as FactValues['fit']));
  const card = layCard(part, part.propose({ pairing, facts }).plan, pairing, { cardNumber: 5 });
  const burned = burnedCard(card, pairing, `${of} part`);
  const { sizes, goes, wantedFit, missing } = part.find(card, partObserver.look(burned, of), { pairing, facts });
  return {
    ...told,
    sizes: sizes.map(({ offMm, expectedMm }) => ({ offMm, asExpected: Math.abs(offMm) <= expectedMm })),
    wentIn: goes === null ? null : goes === wantedFit,
    pairs: matesOf(pairing, facts, of),
    why: missing[0] ?? '',
  };
}

/** Works out a part of all turns, and writes what each came to on a line. */
export function jointsPart(seed: string, own: number, parts: number, stocks: number): void {
  for (let turn = own; turn < stocks; turn += parts) {
    const told = jointsOf(seed, turn);
    if (told) process.stdout.write(`${JSON.stringify(told)}\n`);
  }
}

/** The section of the report on first parts and on knobs, over so many made-up stocks for each of three seeds. */
export async function jointsReport(stocks: number): Promise<string> {
  const seeds = seedsOfCommit();
  const all: ToldJoints[] = [];
  await inParts<ToldJoints>('joints-part', seeds, stocks, (one) => all.push(one));
  const sizesOf = (some: readonly ToldJoints[]): string => {
    const own = some.flatMap(({ sizes }) => sizes);
    if (own.length === 0) return ' | ';
    const off = own.map(({ offMm }) => Math.abs(offMm));
    const expected = own.filter(({ asExpected }) => asExpected).length / own.length;
    return `${quantile(off, 0.5).toFixed(3)} mm, ${quantile(off, 0.95).toFixed(3)} mm (${own.length}) | ${percent(expected, 0)}`;
  };
  const slotsOf = (some: readonly ToldJoints[]): string => {
    const tried = some.filter(({ wentIn }) => wentIn !== null);
    return tried.length === 0 ? '' : `${tried.filter(({ wentIn }) => wentIn).length} of ${tried.length}`;
  };
  const pairsOf = (some: readonly ToldJoints[], fit: WantedFit): string => {
    const own = some.flatMap(({ pairs }) => pairs).filter((one) => one.fit === fit);
    const sum = (of: (one: (typeof own)[number]) => number): number => own.reduce((total, one) => total + of(one), 0);
    const count = sum((one) => one.of);
    if (count === 0) return '';
    const said = sum((one) => one.chance * one.of) / count;
    return `${percent(sum(({ had }) => had) / count, 0)} (said: ${percent(said, 0)})`;
  };
  const row = (name: string, some: readonly ToldJoints[]): string =>
    `| ${[name, some.length, sizesOf(some), slotsOf(some), ...WANTED_FITS.map((fit) => pairsOf(some, fit)), some.filter(({ why }) => why !== '').length].join(' | ')} |`;
  return `## First parts and knobs

${stocks} made-up stocks for each of three seeds (${seeds.join(', ')}), of those that the source cuts and that do not bend: kerf squares measured and a comb of slots felt as above; then the
proposed first part cut by what they told, measured by the same calipers and pushed into the slot that was drawn for it; and the proposed ladder of knobs, felt by a
hand, with ${FRESH.holes * FRESH.parts} fresh pairs drawn for each fit by what it told. Wanted: sizes within what is expected of them (95 %), the part pressed in, fresh pairs of the fit they were drawn for in 95 %.

| stock | cards | sizes off by, median and 95 % | as expected | pressed into its slot | fresh pairs ${WANTED_FITS.join(' | ')} | no answer |
|---|---|---|---|---|---|---|---|---|
${rowsBySeedAndStock(all, seeds, row)}
`;
}
