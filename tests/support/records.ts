import { DEMO_MACHINES, DEMO_STOCKS, type DemoMachineName, type DemoStockName } from '../../src/demo/world';
import type { TestApp } from './context';

/** Machines of each application, counted: each has quirks by its name, and a run must have the same ones as the last, whatever ran before. */
const machines = new WeakMap<TestApp, number>();

function nextName(app: TestApp): string {
  const count = (machines.get(app) ?? 0) + 1;
  machines.set(app, count);
  return `Test ${count}`;
}

/** Machine, stock and pairing made over the endpoints. */
export async function makePairing(
  app: TestApp,
  machine: DemoMachineName = 'heron',
  stock: DemoStockName = 'leather',
  name = nextName(app),
) {
  const { machine: record, lenses } = DEMO_MACHINES[machine];
  const made = await app.call('POST', '/api/machines', { machine: { ...record, name }, lens: lenses[0] });
  const sheet = await app.call('POST', '/api/stock', { ...DEMO_STOCKS[stock], acquiredOn: null });
  const pairing = await app.call('POST', '/api/pairings', {
    machineId: made.json.id,
    lensId: made.json.lensId,
    stockId: sheet.json.id,
  });
  return {
    machineId: made.json.id as number,
    lensId: made.json.lensId as number,
    stockId: sheet.json.id as number,
    pairingId: pairing.json.id as number,
  };
}

/** A small grid that burns and reads quickly. */
export async function makeCard(
  app: TestApp,
  pairingId: number,
  change: Record<string, unknown> = {},
): Promise<{ id: number; code: string }> {
  return makeCardOf(app, pairingId, 'grid', (plan) => ({
    cellMm: 3,
    across: { ...plan.across, count: 3 },
    down: { ...plan.down, count: 3 },
    ...change,
  }));
}

/** The proposed card of a kind, with a change to its plan. */
export async function makeCardOf(
  app: TestApp,
  pairingId: number,
  kind: string,
  change: (plan: any) => Record<string, unknown> = () => ({}),
): Promise<{ id: number; code: string }> {
  const proposal = await app.call('GET', `/api/pairings/${pairingId}/proposals/${kind}`);
  if (proposal.status !== 200) throw new Error(JSON.stringify(proposal.json));
  const { plan } = proposal.json;
  const made = await app.call('POST', '/api/cards', {
    pairingId,
    kind,
    plan: { ...plan, ...change(plan) },
    sheetPlace: null,
    sheetOnBed: { leftMm: 40, rearMm: 40 },
  });
  if (made.status !== 201) throw new Error(JSON.stringify(made.json));
  return made.json as { id: number; code: string };
}

export async function tickedOf(app: TestApp, cardId: number): Promise<string[]> {
  const cautions = await app.call('GET', `/api/cards/${cardId}/cautions`);
  return (cautions.json as { code: string }[]).map((caution) => caution.code);
}

export async function burnCard(app: TestApp, cardId: number, cells: number[] | null = null): Promise<number> {
  const ticked = await tickedOf(app, cardId);
  const burn = await app.call('POST', '/api/burns', { cardId, place: 'bench', ticked, cells });
  if (burn.status !== 201) throw new Error(JSON.stringify(burn.json));
  await app.ctx.burns.finishNow(burn.json.id);
  const { json: ended } = await app.call('GET', `/api/burns/${burn.json.id}`);
  if (ended.status !== 'done') throw new Error(`the burn was ${ended.status}: ${ended.fault}`);
  return burn.json.id as number;
}

export const answerCard = (
  app: TestApp,
  cardId: number,
  field: string,
  cellIndex: number | null,
  value: unknown,
  repeat = 0,
) => app.call('PUT', `/api/cards/${cardId}/answers`, { field, cellIndex, repeat, value });
