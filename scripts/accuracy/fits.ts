import { burnOnBench } from '../../stand-ins/burn';
import { CALIPER_FIELDS, trueKerfMm } from '../../stand-ins/observers/kerf';
import { caliperReading, isLoose } from '../../src/bench/gauges';
import { trySlot } from '../../src/bench/try-slot';
import { kerf } from '../../src/cards/kerf';
import { slots } from '../../src/cards/slots';
import type { SlotsFinding } from '../../src/cards/slots/find';
import type { SlotsPlan } from '../../src/cards/slots/plan';
import type { FactValues } from '../../src/core/book/fact-values';
import type { FactNow } from '../../src/core/book/facts';
import type { Answer } from '../../src/core/card/asks';
import type { Pairing } from '../../src/core/card/contract';
import { layCard } from '../../src/core/card/lay';
import { DROP, FIT } from '../../src/core/card/usual-asks';
import { clearanceFor, WANTED_FITS, type WantedFit } from '../../src/core/fit/fit-bounds';
import { quantile } from '../../src/core/stats/robust';
import { factNow } from '../../stand-ins/facts';
import { percent, rowsBySeedAndStock } from './figures';
import { inParts, seedsOfCommit } from './in-parts';
import { madeUpPairing } from './stocks';

interface ToldKerf {
  readonly errorMm: number;
  readonly held: boolean;
  readonly expandedMm: number;
}

/** Fresh slots drawn for a fit, and how many of them had it. */
interface ToldFit {
  readonly fit: WantedFit;
  readonly combs: 1 | 2;
  /** What it was said to be. */
  readonly chance: number;
  readonly had: number;
  readonly of: number;
}

/** What kerf squares and combs of one made-up stock came to. */
interface ToldFits {
  readonly seed: string;
  readonly stock: string;
  readonly kerfs: readonly ToldKerf[];
  readonly fits: readonly ToldFit[];
  readonly why: string;
}

/** So many slots are drawn alike for a fit, within a hundredth of a hundredth. */
const FRESH_SLOTS = 8;

/** The squares of a card as one workshop's calipers measure them, whose jaws and scale are off in their own way. */
export function measure(
  pairing: Pairing,
  seed: string,
): { readonly kerfs: readonly ToldKerf[]; readonly fact: FactNow } | null {
  const layout = layCard(kerf, kerf.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 5 });
  const piece = burnOnBench(layout, pairing, `${seed} squares`);
  const loose = layout.cells.filter(({ box }) => isLoose(piece, box));
  const answers = loose.flatMap(({ index, box }): Answer[] => [
    { field: DROP.field, cellIndex: index, repeat: 0, value: 'clean' },
    ...CALIPER_FIELDS.flatMap(([field, on, axis]) =>
      [0, 1, 2].flatMap((repeat): Answer[] => {
        const shown = caliperReading(piece, box, { axis, on }, { owner: seed, turn: repeat });
        return 'shows' in shown ? [{ field, cellIndex: index, repeat, value: Number(shown.shows) }] : [];
      }),
    ),
  ]);
  const { x, y } = kerf.find(layout, { readings: [], answers }, { pairing, facts: [] });
  if (!x || !y) return null;
  const kerfs = (
    [
      ['x', x],
      ['y', y],
    ] as const
  ).map(([axis, { kerf: told }]): ToldKerf => {
    const truth = loose.reduce((sum, { box }) => sum + trueKerfMm(piece, box, axis), 0) / loose.length;
    return {
      errorMm: Math.abs(told.mean - truth),
      held: Math.abs(told.mean - truth) <= told.expanded95,
      expandedMm: told.expanded95,
    };
  });
  return { kerfs, fact: factNow('kerf', { xMm: x.kerf.mean, yMm: y.kerf.mean }) };
}

/** A comb as one pair of hands feels it. */
export function feel(
  plan: SlotsPlan,
  pairing: Pairing,
  facts: readonly FactNow[],
  seed: string,
): SlotsFinding & { words: string[] } {
  const layout = layCard(slots, plan, pairing, { cardNumber: 6 });
  const piece = burnOnBench(layout, pairing, seed);
  const words = layout.cells.map(({ box }) => {
    const tried = trySlot(piece, box, { family: pairing.stock.family, seed });
    return 'goes' in tried ? tried.goes : '';
  });
  const answers = words.flatMap((value, cellIndex): Answer[] =>
    value === '' ? [] : [{ field: FIT.field, cellIndex, repeat: 0, value }],
  );
  const found = slots.find(layout, { readings: [], answers }, { pairing, facts }, slots.wish());
  return { ...found, words };
}

function fitsOf(seed: string, turn: number): ToldFits | null {
  const pairing = madeUpPairing(seed, turn);
  const base = { seed, stock: pairing.stock.name };
  const of = `${seed} ${turn}`;
  let plan: SlotsPlan;
  try {
    plan = slots.propose({ pairing, facts: [] }).plan;
  } catch (error) {
    // What this source does not cut, and what bends.
    if (error instanceof RangeError) return null;
    throw error;
  }
  const measured = measure(pairing, of);
  if (!measured) return { ...base, kerfs: [], fits: [], why: 'no square dropped' };
  const facts: FactNow[] = [measured.fact];
  plan = slots.propose({ pairing, facts }).plan;
  const fits: ToldFit[] = [];
  for (const combs of [1, 2] as const) {
    const comb = feel(plan, pairing, facts, `${of} comb ${combs}`);
    if (!comb.bounds) return { ...base, kerfs: measured.kerfs, fits, why: comb.missing[0] ?? '' };
    for (const fit of WANTED_FITS) {
      const { clearanceMm, chance } = clearanceFor(comb.bounds, fit);
      const alike = { from: clearanceMm - 1e-4, to: clearanceMm + 1e-4, count: FRESH_SLOTS, spacing: 'even' as const };
      const { words } = feel({ ...plan, clearance: alike }, pairing, facts, `${of} fresh ${combs} ${fit}`);
      fits.push({ fit, combs, chance, had: words.filter((word) => word === fit).length, of: words.length });
    }
    const [draft] = slots.settle(comb, layCard(slots, plan, pairing, { cardNumber: 6 }));
    facts.push(factNow('fit', draft!.value as FactValues['fit']));
    plan = slots.propose({ pairing, facts }).plan;
  }
  return { ...base, kerfs: measured.kerfs, fits, why: '' };
}

/** Works out a part of all turns, and writes what each came to on a line. */
export function fitsPart(seed: string, part: number, parts: number, stocks: number): void {
  for (let turn = part; turn < stocks; turn += parts) {
    const told = fitsOf(seed, turn);
    if (told) process.stdout.write(`${JSON.stringify(told)}\n`);
  }
}

/** The section of the report on kerf and fits, over so many made-up stocks for each of three seeds. */
export async function fitsReport(stocks: number): Promise<string> {
  const seeds = seedsOfCommit();
  const all: ToldFits[] = [];
  await inParts<ToldFits>('fits-part', seeds, stocks, (one) => all.push(one));
  const kerfsOf = (some: readonly ToldFits[]): string => {
    const own = some.flatMap(({ kerfs }) => kerfs);
    if (own.length === 0) return ' | ';
    const errors = own.map(({ errorMm }) => errorMm);
    const held = own.filter((one) => one.held).length / own.length;
    return `${quantile(errors, 0.5).toFixed(4)} mm, ${quantile(errors, 0.95).toFixed(4)} mm (${own.length}) | ${percent(held, 0)} of ± ${quantile(
      own.map(({ expandedMm }) => expandedMm),
      0.5,
    ).toFixed(3)} mm`;
  };
  const fitsAfter = (some: readonly ToldFits[], combs: 1 | 2): string => {
    const own = some.flatMap(({ fits }) => fits).filter((one) => one.combs === combs);
    const sum = (of: (one: ToldFit) => number): number => own.reduce((total, one) => total + of(one), 0);
    const said = sum(({ chance, of }) => chance * of);
    return own.length === 0
      ? ''
      : `${percent(sum(({ had }) => had) / sum(({ of }) => of), 0)} (said: ${percent(said / sum(({ of }) => of), 0)})`;
  };
  const row = (name: string, some: readonly ToldFits[]): string =>
    `| ${[name, some.length, kerfsOf(some), fitsAfter(some, 1), fitsAfter(some, 2), some.filter(({ why }) => why !== '').length].join(' | ')} |`;
  return `## Kerf and fits

${stocks} made-up stocks for each of three seeds (${seeds.join(', ')}), of those that the source cuts and that do not bend: squares and holes of the proposed kerf card measured by
calipers whose outside and inside jaws and scale are off in their own way; then the proposed comb of slots, and the closer one that follows from it, each felt by a hand, and
${FRESH_SLOTS} fresh slots drawn for each of three fits. Wanted: kerf within 0.01 mm in the median, its 95 % range holding in 90 %; fresh slots of the fit they were drawn for in 95 %.

| stock | cards | kerf off by, median and 95 % | its range held | fresh slots as wanted, by one comb | by two | no answer |
|---|---|---|---|---|---|---|
${rowsBySeedAndStock(all, seeds, row)}
`;
}
