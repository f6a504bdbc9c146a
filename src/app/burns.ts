import { benchMachineOf, benchSheetOf } from '../bench/of-records';
import { specimenOf, type BenchPlace } from '../bench/bench';
import { preBurnCautions, type Caution } from '../core/stock/cautions';
import { brokenConstraint } from '../db/client';
import * as burns from '../db/burns';
import type { BurnRecord } from '../db/burns';
import type { CardRecord } from '../db/cards';
import { gcodeOfCard } from '../formats/gcode';
import { PROTOCOL_VERSION } from '../workers/protocol';
import type { BurnProgress } from './burn-runner';
import { getCard } from './cards';
import type { AppContext } from './context';
import { getPairing, refuseUnlessBurnable } from './pairings';
import { receivePhoto } from './photos';
import { notFound, Problem } from './problems';

export function cautionsOfCard(card: CardRecord): Caution[] {
  return preBurnCautions(card.madeFor.machine, card.madeFor.stock);
}

export interface BurnRequest {
  readonly cardId: number;
  readonly place: 'bench' | 'own-machine';
  /** Codes of the cautions that the operator ticked, this time. */
  readonly ticked: readonly string[];
}

function refuseUnlessTicked(card: CardRecord, ticked: readonly string[]): string[] {
  const open = cautionsOfCard(card).filter((caution) => !ticked.includes(caution.code));
  if (open.length > 0) {
    throw new Problem(
      'cautions-unticked',
      `Not ticked: ${open.map((caution) => caution.text).join(' ')}`,
      'Nothing was burned.',
      open.map((caution) => ({ field: `ticked.${caution.code}`, message: caution.text })),
    );
  }
  return cautionsOfCard(card).map((caution) => caution.code);
}

/**
 * Starts a burn on the bench, or notes one that the operator did on a machine of their own (which is over at once: what
 * counts is its photo). The pairing is checked again, since a material may have been found to be banned meanwhile.
 */
export async function startBurn(ctx: AppContext, request: BurnRequest): Promise<BurnRecord> {
  const card = await getCard(ctx, request.cardId);
  const pairing = await getPairing(ctx, card.pairingId);
  refuseUnlessBurnable(pairing);
  const cautions = refuseUnlessTicked(card, request.ticked);
  const onBench = request.place === 'bench';
  const program = onBench ? gcodeOfCard(card.layout, card.madeFor.machine, card.bed) : null;
  if (onBench) specimenOf(card.madeFor.stock.family);
  try {
    const id = await burns.insertBurn(ctx.db, {
      cardId: card.id,
      machineId: pairing.machine.id,
      place: request.place,
      status: onBench ? 'running' : 'done',
      program,
      linesTotal: program === null ? 0 : program.split('\n').filter((line) => line !== '').length,
      seed: `card ${card.number}`,
      cautions,
      estimatedS: card.estimatedS,
      endedAt: onBench ? null : ctx.now(),
    });
    if (program !== null) ctx.burns.start(id, program, benchMachineOf(card.madeFor.machine, card.madeFor.lens));
    return (await burns.burnById(ctx.db, id))!;
  } catch (error) {
    if (brokenConstraint(error) === 'burn_one_at_a_time') {
      throw new Problem('machine-busy', `${pairing.machine.name} is burning another card.`, 'That burn goes on.');
    }
    throw error;
  }
}

export interface BurnView extends BurnRecord {
  readonly progress: BurnProgress | null;
}

export async function getBurn(ctx: AppContext, id: number): Promise<BurnView> {
  const burn = await burns.burnById(ctx.db, id);
  if (!burn) throw notFound('burn', id);
  return { ...burn, progress: ctx.burns.progressOf(id) };
}

export async function controlBurn(ctx: AppContext, id: number, action: 'pause' | 'resume' | 'stop'): Promise<BurnView> {
  await getBurn(ctx, id);
  const reached = action === 'stop' ? await ctx.burns.stop(id) : await ctx.burns.setPaused(id, action === 'pause');
  if (!reached) throw new Problem('burn-not-open', `Burn ${id} is not under way.`);
  return getBurn(ctx, id);
}

function benchPlaceOf(card: CardRecord): BenchPlace {
  return { ...card.bed, widthMm: card.layout.widthMm, heightMm: card.layout.heightMm };
}

/** Takes a photo of the newest bench burn of a card with the bench's camera and puts it in line to be read. */
export async function photographCard(
  ctx: AppContext,
  cardId: number,
  shotSeed?: string,
): Promise<{ id: number; again: boolean }> {
  const card = await getCard(ctx, cardId);
  const burn = (await burns.burnsOfCard(ctx.db, cardId)).find((candidate) => candidate.place === 'bench');
  if (!burn || burn.linesDone === 0)
    throw new Problem('nothing-burned', `Card ${card.layout.code} has not been burned on the bench.`);
  if (burn.status === 'running' || burn.status === 'paused') {
    throw new Problem('nothing-burned', 'The burn has not ended: the lid is closed.', 'The burn goes on.');
  }
  const program = (await burns.programOfBurn(ctx.db, burn.id))!;
  const seed = shotSeed ?? `${card.layout.code} ${ctx.now().getTime()}`;
  const { jpeg } = await ctx.work.photograph({
    version: PROTOCOL_VERSION,
    task: 'photograph',
    program,
    lines: burn.linesDone,
    machine: benchMachineOf(card.madeFor.machine, card.madeFor.lens),
    sheet: benchSheetOf(card.madeFor.stock),
    place: benchPlaceOf(card),
    burnSeed: burn.seed,
    shotSeed: seed,
  });
  return receivePhoto(ctx, cardId, {
    bytes: Buffer.from(jpeg),
    fileName: `bench-${card.layout.code}.jpg`,
    origin: 'bench-camera',
  });
}
