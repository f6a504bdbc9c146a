import { burnOnBench } from '../../tests/support/burn';
import { isLoose } from '../../src/bench/gauges';
import { cut } from '../../src/cards/cut';
import { USUAL_CUT_WISH } from '../../src/cards/cut/find';
import type { CutPlan } from '../../src/cards/cut/plan';
import type { Answer } from '../../src/core/card/asks';
import type { Pairing } from '../../src/core/card/contract';
import { estimateCard } from '../../src/core/card/estimate';
import { layCard } from '../../src/core/card/lay';
import type { Layout } from '../../src/core/card/layout';
import type { BurnSettings } from '../../src/core/card/settings';
import { DROP } from '../../src/core/card/usual-asks';
import { quantile } from '../../src/core/stats/robust';
import { percent } from './figures';
import { inParts, seedsOfCommit } from './in-parts';
import { madeUpPairing } from './stocks';

/** What the cut card of one made-up stock came to. */
interface ToldCut {
  readonly seed: string;
  readonly stock: string;
  /** Squares of the card, and what it took and covered. */
  readonly squares: number;
  readonly seconds: number;
  readonly areaCm2: number;
  /** Of so many fresh places, how many dropped with the proposed cut; null where none was proposed. */
  readonly fresh: { readonly dropped: number; readonly of: number } | null;
  /** Energy of the proposed cut over the one with which 98 of 100 fresh places drop; null where none was proposed. */
  readonly margin: number | null;
  /** Whether the 95 % range of what just comes through meets the step in which the middle of the fresh places lies. */
  readonly held: boolean | null;
  readonly why: string;
}

const FRESH = { columns: 6, rows: 6 } as const;
/** The fresh places are cut with so much of the proposed energy, to see where each of them drops. */
const SHARES = [0.35, 0.45, 0.55, 0.62, 0.7, 0.78, 0.87, 0.95, 1, 1.1, 1.25, 1.5] as const;

/** Which squares of a card come loose on a piece of its stock. */
function looseOn(layout: Layout, pairing: Pairing, seed: string): boolean[] {
  const piece = burnOnBench(layout, pairing, seed);
  return layout.cells.map(({ box }) => isLoose(piece, box));
}

/** A card of squares that are all cut alike: speeds and powers lie within a thousandth. */
function alike(plan: CutPlan, settings: BurnSettings, speedMmPerS: number): CutPlan {
  return {
    ...plan,
    sizeMm: plan.sizeMm,
    cut: settings,
    speed: { from: speedMmPerS * 0.999, to: speedMmPerS, count: FRESH.columns, spacing: 'ratio' },
    rows: {
      channel: 'power',
      from: settings.powerFraction * 0.999,
      to: settings.powerFraction,
      count: FRESH.rows,
      spacing: 'ratio',
    },
  };
}

function cutOf(seed: string, turn: number): ToldCut | null {
  const pairing = madeUpPairing(seed, turn);
  let plan: CutPlan;
  try {
    plan = cut.propose({ pairing, facts: [] }).plan;
  } catch (error) {
    // What this source does not cut, or not so thick.
    if (error instanceof RangeError) return null;
    throw error;
  }
  const layout = layCard(cut, plan, pairing, { cardNumber: 5 });
  const base = {
    seed,
    stock: pairing.stock.name,
    squares: layout.cells.length,
    seconds: estimateCard(layout, pairing.machine).totalS,
    areaCm2: (layout.widthMm * layout.heightMm) / 100,
  };
  const answers = looseOn(layout, pairing, `${seed} ${turn}`).map((loose, cellIndex): Answer => ({
    field: DROP.field,
    cellIndex,
    repeat: 0,
    value: loose ? 'clean' : 'not-through',
  }));
  const { chosen, window, missing } = cut.find(
    layout,
    { readings: [], answers },
    { pairing, facts: [] },
    USUAL_CUT_WISH,
  );
  if (!chosen || !window) return { ...base, fresh: null, margin: null, held: null, why: missing[0] ?? '' };
  const { settings, energy } = chosen;
  // The same places each time: where each of them drops is known to a step.
  const least: number[] = Array.from({ length: FRESH.columns * FRESH.rows }, () => Infinity);
  let dropped = 0;
  for (const share of SHARES) {
    const speed = settings.speedMmPerS / share;
    if (speed > 0.9 * Math.min(pairing.machine.topSpeedXMmPerS, pairing.machine.topSpeedYMmPerS)) continue;
    const fresh = layCard(cut, alike(plan, settings, speed), pairing, { cardNumber: 6 });
    const loose = looseOn(fresh, pairing, `${seed} ${turn} fresh`);
    loose.forEach((is, place) => (least[place] = is ? Math.min(least[place]!, share) : least[place]!));
    if (share === 1) dropped = loose.filter(Boolean).length;
  }
  const told = least.map((share) => (share === Infinity ? 2 * SHARES.at(-1)! : share));
  /** The step in which a share lies: from the one tried before. */
  const stepOf = (share: number): readonly [number, number] => [
    SHARES.filter((one) => one < share).at(-1) ?? share / 2,
    share,
  ];
  const { low, high } = window.comesThrough(settings.passes);
  const [from, to] = stepOf(quantile(told, 0.5)).map((share) => share * energy) as [number, number];
  const [below, needed] = stepOf(quantile(told, 0.98));
  return {
    ...base,
    fresh: { dropped, of: told.length },
    margin: 1 / Math.sqrt(below * needed),
    held: low <= to && high >= from,
    why: '',
  };
}

/** Works out a part of all turns, and writes what each came to on a line. */
export function cutPart(seed: string, part: number, parts: number, stocks: number): void {
  for (let turn = part; turn < stocks; turn += parts) {
    const told = cutOf(seed, turn);
    if (told) process.stdout.write(`${JSON.stringify(told)}\n`);
  }
}

/** What is known of why targets are missed; to be changed with the figures. */
const MISSED = `Stock that grew is given more than it needs, since 36 squares meet few of the places that hold a cut up, and how many there are stays in doubt; that is where
the 95 % come from. Squares are cut along the axes: round and slanted outlines have not been looked at.`;

/** The section of the report on the cut side, over so many made-up stocks for each of three seeds. */
export async function cutReport(stocks: number): Promise<string> {
  const seeds = seedsOfCommit();
  const all: ToldCut[] = [];
  await inParts<ToldCut>('cut-part', seeds, stocks, (one) => all.push(one));
  const dropsOf = (some: readonly ToldCut[]): string => {
    const [dropped, of] = some.reduce(([a, b], { fresh }) => [a + fresh!.dropped, b + fresh!.of], [0, 0]);
    return of === 0 ? 'none' : `${percent(dropped / of)} (${of} cuts)`;
  };
  const margins = (some: readonly ToldCut[]): string => {
    const own = some.map(({ margin }) => margin!);
    return own.length === 0 ? '' : `${quantile(own, 0.5).toFixed(2)}, ${quantile(own, 0.95).toFixed(2)}`;
  };
  const names = [...new Set(all.map(({ stock }) => stock))].sort();
  const row = (name: string, some: readonly ToldCut[]): string => {
    const told = some.filter(({ fresh }) => fresh !== null);
    const most = (of: (one: ToldCut) => number): string => Math.max(...some.map(of)).toFixed(1);
    return `| ${[name, some.length, dropsOf(told), margins(told), told.length === 0 ? '' : percent(told.filter(({ held }) => held).length / told.length, 0), some.length - told.length, most(({ seconds }) => seconds / 60), most(({ areaCm2 }) => areaCm2)].join(' | ')} |`;
  };
  const reasons = new Map<string, number>();
  for (const { why } of all) if (why !== '') reasons.set(why, (reasons.get(why) ?? 0) + 1);
  return `## The cut side of the ladder

${stocks} made-up stocks for each of three seeds (${seeds.join(', ')}), of those that the source cuts: the proposed card of at most 36 squares is burned on the simulated
bench and tapped, and the cut that it proposes (98 of 100 parts, all doubt included) is burned in ${FRESH.columns * FRESH.rows} fresh places of another sheet of the same stock. Wanted: 98 % of
fresh places drop, at no more than 1.25 times the energy with which 98 of 100 of them do in the median and 1.5 times in 95 %; a card under 4 minutes and 35 cm².
Where a fresh place drops is known to a step of about a tenth.

| stock | cards | fresh places that drop | energy over what they need, median and 95 % | what comes through held | no answer | minutes, most | cm², most |
|---|---|---|---|---|---|---|---|
${row('**all**', all)}
${seeds
  .map((seed) =>
    row(
      seed,
      all.filter((one) => one.seed === seed),
    ),
  )
  .join('\n')}
${names
  .map((name) =>
    row(
      name,
      all.filter(({ stock }) => stock === name),
    ),
  )
  .join('\n')}

${MISSED}

${
  reasons.size === 0
    ? 'Every card had an answer.'
    : `Why there was no answer, where there was none:\n\n${[...reasons]
        .sort((a, b) => b[1] - a[1])
        .map(([why, count]) => `- ${count} × ${why}`)
        .join('\n')}`
}
`;
}
