import { DEMO_MACHINES, DEMO_STOCKS, type DemoMachineName, type DemoStockName } from '../../src/demo/world';
import type { TestApp } from './context';

/** Machine, stock and pairing made over the endpoints. */
export async function makePairing(
  app: TestApp,
  machine: DemoMachineName = 'heron',
  stock: DemoStockName = 'leather',
  name = `Test ${Math.floor(performance.now() * 1000)}`,
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

/** A small card that burns and reads quickly. */
export async function makeCard(
  app: TestApp,
  pairingId: number,
  change: Record<string, unknown> = {},
): Promise<{ id: number; code: string }> {
  const proposal = await app.call('GET', `/api/pairings/${pairingId}/proposals/grid`);
  const plan = proposal.json.plan;
  const small = {
    ...plan,
    cellMm: 3,
    power: { ...plan.power, count: 3 },
    speed: { ...plan.speed, count: 3 },
    ...change,
  };
  const made = await app.call('POST', '/api/cards', {
    pairingId,
    kind: 'grid',
    plan: small,
    sheetPlace: null,
    sheetOnBed: { leftMm: 30, rearMm: 30 },
  });
  if (made.status !== 201) throw new Error(JSON.stringify(made.json));
  return made.json as { id: number; code: string };
}

export async function burnCard(app: TestApp, cardId: number): Promise<number> {
  const cautions = await app.call('GET', `/api/cards/${cardId}/cautions`);
  const ticked = (cautions.json as { code: string }[]).map((caution) => caution.code);
  const burn = await app.call('POST', '/api/burns', { cardId, place: 'bench', ticked });
  if (burn.status !== 201) throw new Error(JSON.stringify(burn.json));
  await app.ctx.burns.finishNow(burn.json.id);
  return burn.json.id as number;
}
