import { sql } from 'kysely';
import { cardKind } from '../cards/registry';
import * as burnsApp from '../app/burns';
import { createCard, defaultSheetOnBed, getCard } from '../app/cards';
import type { AppContext } from '../app/context';
import { addLens, createMachine } from '../app/machines';
import { getPairing, openBench } from '../app/pairings';
import { findInCard, judgeCell, keepCell } from '../app/settings';
import { createStock } from '../app/stocks';
import type { Pace } from '../cards/grid/find';
import { DEMO_MACHINES, DEMO_STOCKS, type DemoMachineName, type DemoPairing, type DemoStockName } from './world';

interface DemoStory extends DemoPairing {
  /** How far the pairing has come: opened only, card burned and read, or settings kept with these wishes, one version each. */
  readonly kept: readonly { readonly pace: Pace; readonly note: string; readonly stop: 'light' | 'medium' | 'deep' }[];
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
      { pace: 'slow-and-low', stop: 'deep', note: 'Fern on bed markers: deeper, slower, cleaner edge.' },
    ],
  },
  {
    machine: 'marl',
    lens: 0,
    stock: 'slate',
    burned: true,
    kept: [{ pace: 'fast-and-strong', stop: 'deep', note: 'Pond markers.' }],
  },
  { machine: 'heron', lens: 0, stock: 'leather', burned: true, kept: [] },
  { machine: 'marl', lens: 0, stock: 'alder', burned: false, kept: [] },
  { machine: 'marl', lens: 1, stock: 'twoLayer', burned: false, kept: [] },
  { machine: 'heron', lens: 0, stock: 'acrylic', burned: false, kept: [] },
];

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
  const burn = await burnsApp.startBurn(ctx, { cardId, place: 'bench', ticked });
  await ctx.burns.finishNow(burn.id);
}

async function tell(
  ctx: AppContext,
  story: DemoStory,
  ids: { machineId: number; lensId: number; stockId: number },
): Promise<void> {
  const { id: pairingId } = await openBench(ctx, ids);
  if (!story.burned) return;
  const pairing = await getPairing(ctx, pairingId);
  const { plan } = cardKind('grid').propose({ pairing });
  const { id: cardId } = await createCard(ctx, {
    pairingId,
    kind: 'grid',
    plan,
    sheetPlace: null,
    sheetOnBed: defaultSheetOnBed(pairing),
  });
  await burnAtOnce(ctx, cardId);
  await burnsApp.photographCard(ctx, cardId, `demo ${story.machine} ${story.stock}`);
  await ctx.readings.idle();
  for (const { pace, stop, note } of story.kept) {
    const { machine } = pairing;
    const wish = { lightness: null, powerCap: machine.powerCap, pace };
    const first = await findInCard(ctx, cardId, wish);
    const finding = await findInCard(ctx, cardId, { ...wish, lightness: first.stops?.[stop] ?? null });
    const cellIndex = finding.proposal?.cellIndex;
    if (cellIndex === undefined) throw new Error(`no cell to keep for ${story.stock}`);
    await judgeCell(ctx, cardId, { cellIndex, grade: 5, outcome: 'good', note: '' });
    await keepCell(ctx, { cardId, cellIndex, note });
  }
}

/** Makes the demo world through the use cases and the bench, as an operator would. Nothing in it is written by hand. */
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
  for (const story of STORIES) {
    const machine = machines.get(story.machine)!;
    say(`demo: ${DEMO_STOCKS[story.stock].name} on ${DEMO_MACHINES[story.machine].machine.name}`);
    await tell(ctx, story, {
      machineId: machine.id,
      lensId: machine.lensIds[story.lens]!,
      stockId: stocks.get(story.stock)!,
    });
  }
}
