import { burnOnBench } from '../../stand-ins/burn';
import { isLoose } from '../../src/bench/gauges';
import { cut } from '../../src/cards/cut';
import { USUAL_CUT_WISH } from '../../src/cards/cut/find';
import type { CutPlan } from '../../src/cards/cut/plan';
import type { Answer } from '../../src/core/card/asks';
import type { Pairing } from '../../src/core/card/contract';
import { commandFor } from '../../src/core/machine/command';
import { deliveredPowerW } from '../../src/core/machine/machine';
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
/** The fresh places are cut with so many times the proposed energy, to see where they drop: steps of three in a hundred about it. */
const SHARES: readonly number[] = Array.from({ length: 52 }, (_, step) => 1.03 ** (step - 36));
const PROPOSED = 36;
const HALF_STEP = 1.03 ** 0.5;
/** No head keeps its speed over a square that is cut faster than this share of its fastest: the power comes down then. */
const KEPT_SPEED = 0.9;

/** Which squares of a card come loose on a piece of its stock. */
function looseOn(layout: Layout, pairing: Pairing, seed: string): boolean[] {
  const piece = burnOnBench(layout, pairing, seed);
  return layout.cells.map(({ box }) => isLoose(piece, box));
}

/** A cut with so many times its energy: faster, or slower; and with less power where that is too fast. */
function withShare(settings: BurnSettings, share: number, { machine }: Pairing): BurnSettings {
  const most = KEPT_SPEED * Math.min(machine.topSpeedXMmPerS, machine.topSpeedYMmPerS);
  const speedMmPerS = settings.speedMmPerS / share;
  if (speedMmPerS <= most) return { ...settings, speedMmPerS };
  const watts = deliveredPowerW(machine, settings.powerFraction) * (most / speedMmPerS);
  return { ...settings, speedMmPerS: most, powerFraction: commandFor(machine, watts) };
}

/** A card of squares that are all cut alike: speeds and powers lie within a thousandth. */
function alike(plan: CutPlan, settings: BurnSettings): CutPlan {
  const { speedMmPerS } = settings;
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
  const places = FRESH.columns * FRESH.rows;
  /** How many of the same fresh places drop at a step of the energy. */
  const cutAt = new Map<number, number>();
  const droppedAt = (step: number): number => {
    const known = cutAt.get(step);
    if (known !== undefined) return known;
    const fresh = layCard(cut, alike(plan, withShare(settings, SHARES[step]!, pairing)), pairing, { cardNumber: 6 });
    const dropped = looseOn(fresh, pairing, `${seed} ${turn} fresh`).filter(Boolean).length;
    cutAt.set(step, dropped);
    return dropped;
  };
  /** The step below which fewer than so many places drop, in the middle of its two ends. */
  const shareOf = (count: number): number => {
    let [below, from] = [-1, SHARES.length];
    while (from - below > 1) {
      const middle = below < PROPOSED && from > PROPOSED ? PROPOSED : Math.floor((below + from) / 2);
      if (droppedAt(middle) >= count) from = middle;
      else below = middle;
    }
    return SHARES[0]! * 1.03 ** (from - 0.5);
  };
  const { low, high } = window.comesThrough(settings.passes);
  const middle = shareOf(Math.ceil(places / 2)) * energy;
  // 98 of 100: the last place but one, and a part of the way to the last.
  const rank = 0.98 * (places - 1) + 1;
  const [before, after] = [shareOf(Math.floor(rank)), shareOf(Math.ceil(rank))];
  const needed = before + (rank - Math.floor(rank)) * (after - before);
  return {
    ...base,
    fresh: { dropped: droppedAt(PROPOSED), of: places },
    margin: 1 / needed,
    held: low <= middle * HALF_STEP && high >= middle / HALF_STEP,
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
Where a fresh place drops is known to a step of three in a hundred.

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
