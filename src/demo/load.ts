import { sql } from 'kysely';
import { cardKind } from '../cards/registry';
import * as burnsApp from '../app/burns';
import { createCard, defaultSheetOnBed, getCard } from '../app/cards';
import type { AppContext } from '../app/context';
import { addLens, createMachine } from '../app/machines';
import { cardSummaries } from '../db/cards';
import type { CardSummary } from '../records/card';
import { correctTime } from '../app/own-burns';
import { getPairing, openBench } from '../app/pairings';
import { findInCard, keepFinding } from '../app/findings';
import { knownOf } from '../app/known';
import { renewLadders } from '../app/ladders';
import { answerCard } from '../app/seen';
import { createStock } from '../app/stocks';
import type { DarknessStop, GridFinding, Pace } from '../cards/grid/find';
import { judge, LATER_CARDS } from './later-cards';
import { DEMO_MACHINES, DEMO_STOCKS, type DemoMachineName, type DemoPairing, type DemoStockName } from './world';

interface DemoStory extends DemoPairing {
  /** How far the pairing has come: opened only, card burned and read, or settings kept with these wishes, one version each. */
  readonly kept: readonly { readonly pace: Pace; readonly note: string; readonly stop: DarknessStop }[];
  readonly burned: boolean;
}

const STORIES: readonly DemoStory[] = [
  {
    machine: 'heron',
    lens: 0,
    stock: 'birch',
    burned: true,
    kept: [
      { pace: 'fast-and-strong', stop: 'medium', note: 'Drawer fronts, first try.' },
      { pace: 'slow-and-low', stop: 'strong', note: 'Fern on bed markers: deeper, slower, cleaner edge.' },
    ],
  },
  {
    machine: 'marl',
    lens: 0,
    stock: 'slate',
    burned: true,
    kept: [{ pace: 'fast-and-strong', stop: 'strong', note: 'Pond markers.' }],
  },
  { machine: 'heron', lens: 0, stock: 'leather', burned: true, kept: [] },
  { machine: 'marl', lens: 0, stock: 'alder', burned: false, kept: [] },
  { machine: 'marl', lens: 1, stock: 'twoLayer', burned: false, kept: [] },
  { machine: 'heron', lens: 0, stock: 'acrylic', burned: false, kept: [] },
  { machine: 'tern', lens: 0, stock: 'twoLayer', burned: false, kept: [] },
];

/** Told last: its card is read on a light table too. */
const COATED: DemoStory = { machine: 'marl', lens: 0, stock: 'coated', burned: true, kept: [] };

/** Cards, in the order they are made, that were burned on the operator's own machine before, by how much longer that took than was told. */
const TIMED: ReadonlyMap<number, number> = new Map([
  [1, 1.09],
  [3, 1.13],
  [4, 1.1],
]);

/** Whether anything was ever recorded: the demo world goes into an empty database only. */
export async function isEmpty({ db }: AppContext): Promise<boolean> {
  const { rows } = await sql<{
    any: boolean;
  }>`select exists (select 1 from machine) or exists (select 1 from stock) as any`.execute(db);
  return !rows[0]!.any;
}

/** Runs a burn that was just started to its end at once, as the bench would in its own time. */
async function burnAtOnce(ctx: AppContext, cardId: number): Promise<void> {
  const record = await getCard(ctx, cardId);
  const ticked = burnsApp.cautionsOfCard(record).map((caution) => caution.code);
  const burn = await burnsApp.startBurn(ctx, { cardId, place: 'bench', ticked, cells: null });
  await ctx.burns.finishNow(burn.id);
}

/** Logs a burn of a card on the operator's own machine, where there was one. */
async function timeOnOwnMachine(ctx: AppContext, cardId: number): Promise<void> {
  const times = TIMED.get(cardId);
  if (times === undefined) return;
  const ticked = burnsApp.cautionsOfCard(await getCard(ctx, cardId)).map((caution) => caution.code);
  const burn = await burnsApp.startBurn(ctx, { cardId, place: 'own-machine', ticked, cells: null });
  await correctTime(ctx, burn.id, Math.round(burn.estimatedS * times));
}

/** Makes the proposed card of a kind and burns it. */
async function burnProposed(ctx: AppContext, pairingId: number, kind: string): Promise<number> {
  const pairing = await getPairing(ctx, pairingId);
  const { plan } = cardKind(kind).propose(await knownOf(ctx, pairing));
  const sheetOnBed = defaultSheetOnBed(pairing);
  const { id } = await createCard(ctx, { pairingId, kind, plan, sheetPlace: null, sheetOnBed });
  // Before the burn that is looked at: what is said of a piece tells nothing of one that is burned after it.
  await timeOnOwnMachine(ctx, id);
  await burnAtOnce(ctx, id);
  return id;
}

/** Opens the bench of a story and burns its first card. Returns the bench's id. */
async function tell(
  ctx: AppContext,
  story: DemoStory,
  ids: { machineId: number; lensId: number; stockId: number },
): Promise<number> {
  const { id: pairingId } = await openBench(ctx, ids);
  if (!story.burned) return pairingId;
  const pairing = await getPairing(ctx, pairingId);
  const cardId = await burnProposed(ctx, pairingId, 'grid');
  await burnsApp.photographCard(ctx, cardId, { shotSeed: `demo ${story.machine} ${story.stock}` });
  await ctx.readings.idle();
  for (const { pace, stop, note } of story.kept) {
    const { machine } = pairing;
    const wish = { lightness: null, powerCap: machine.powerCap, pace };
    const first = (await findInCard(ctx, cardId, wish)) as GridFinding;
    const wanted = { ...wish, lightness: first.stops?.[stop] ?? null };
    const finding = (await findInCard(ctx, cardId, wanted)) as GridFinding;
    const cellIndex = finding.proposal?.cellIndex;
    if (cellIndex === undefined) throw new Error(`no cell to keep for ${story.stock}`);
    await answerCard(ctx, cardId, { field: 'grade', cellIndex, repeat: 0, value: '5' });
    await answerCard(ctx, cardId, { field: 'outcome', cellIndex, repeat: 0, value: 'good' });
    await keepFinding(ctx, { cardId, wish: wanted, choice: { cellIndex }, note });
  }
  return pairingId;
}

/** Makes the demo world through the use cases and the bench, as an operator would; only the times on the operator's own machine are made up. */
export async function loadDemoWorld(ctx: AppContext, say: (text: string) => void): Promise<void> {
  const machines = new Map<DemoMachineName, { id: number; lensIds: number[] }>();
  for (const [name, { machine, lenses }] of Object.entries(DEMO_MACHINES)) {
    const [first, ...others] = lenses;
    const made = await createMachine(ctx, machine, first);
    const lensIds = [made.lensId];
    for (const lens of others) lensIds.push((await addLens(ctx, made.id, lens)).id);
    machines.set(name as DemoMachineName, { id: made.id, lensIds });
  }
  const stocks = new Map<DemoStockName, number>();
  for (const [name, stock] of Object.entries(DEMO_STOCKS)) {
    stocks.set(name as DemoStockName, (await createStock(ctx, { ...stock, acquiredOn: '2026-10-05' })).id);
  }
  const benches: number[] = [];
  const tellOf = async (story: DemoStory): Promise<number> => {
    const machine = machines.get(story.machine)!;
    say(`demo: ${DEMO_STOCKS[story.stock].name} on ${DEMO_MACHINES[story.machine].machine.name}`);
    const lensId = machine.lensIds[story.lens]!;
    return tell(ctx, story, { machineId: machine.id, lensId, stockId: stocks.get(story.stock)! });
  };
  for (const story of STORIES) benches.push(await tellOf(story));
  for (const later of LATER_CARDS) {
    say(`demo: ${cardKind(later.kind).name.toLowerCase()}`);
    await judge(ctx, await burnProposed(ctx, benches[later.bench]!, later.kind), later);
  }
  const coated = await tellOf(COATED);
  const [{ id: coatedCard }] = (await cardSummaries(ctx.db, coated, { limit: 1, offset: 0 })) as [CardSummary];
  await burnsApp.photographCard(ctx, coatedCard, { shotSeed: 'demo light table', litFrom: 'behind' });
  await ctx.readings.idle();
  await renewLadders(ctx, 1000);
}
