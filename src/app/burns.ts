import { tappedOut } from './cut-box';
import { benchMachineOf } from '../bench/of-records';
import { specimenOf } from '../bench/specimens';
import type { BurnScope } from '../core/card/path';
import { STOPS_LESS } from '../core/reading/tone/exposure';
import type { SheetFormat } from '../core/sheet/frame-sheet';
import type { Station } from '../core/card/layout';
import { UNTIMED } from '../core/motion/pace';
import { paceNow, renewPace } from './pace';
import { scopeAt } from './scope';
import { detailChecks } from '../core/card/detail-checks';
import { tiltChecks } from '../core/card/tilt';
import { setupChecks } from '../core/card/work-setup';
import { preBurnCautions, type Caution } from '../core/stock/cautions';
import { brokenConstraint } from '../db/client';
import * as burns from '../db/burns';
import { photosOfCard } from '../db/photos';
import { newestReading } from '../db/readings';
import type { BurnRecord, BurnView } from '../records/burn';
import type { CardRecord } from '../records/card';
import { benchPieceOf, benchPlaceOf, fromCloserBy } from './bench-pieces';
import { getCard } from './cards';
import type { AppContext } from './context';
import { printOrder } from './print-order';
import { getPairing, refuseUnlessBurnable } from './pairings';
import type { LitFrom } from '../records/photo';
import { receivePhoto, refuseUnlessAsked } from './photos';
import { notFound, Problem } from './problems';

export function cautionsOfCard(card: CardRecord): Caution[] {
  return preBurnCautions(card.madeFor.machine, card.madeFor.stock, [
    ...setupChecks(card.plan.setup),
    ...tiltChecks(card.layout.tilt, card.madeFor.machine.likedUnits),
    ...detailChecks(card.layout, card.madeFor.stock),
  ]);
}

export interface BurnRequest {
  readonly cardId: number;
  readonly place: 'bench' | 'own-machine';
  /** Codes of the cautions that the operator ticked, this time. */
  readonly ticked: readonly string[];
  /** The cells to burn, for searches that add one at a time; null for the whole card. */
  readonly cells: readonly number[] | null;
  /** For a machine of the operator's own: start a clock now, or note a burn that is over, with its time where it was taken. */
  readonly clock?: boolean;
  readonly tookS?: number | null;
}

/** Throws the Problem of a check that is not complete; returns the codes that it asks for. */
export function refuseUnlessTicked(card: CardRecord, ticked: readonly string[]): string[] {
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

/** The part of a card that a burn is about. The frame comes with the first burn. */
async function scopeOf(ctx: AppContext, card: CardRecord, cells: readonly number[] | null): Promise<BurnScope | null> {
  if (cells === null) return null;
  const strange = cells.find((index) => !card.layout.order.includes(index));
  if (strange !== undefined || cells.length === 0)
    throw new Problem('invalid-input', `Cell ${strange ?? ''} of card ${card.layout.code} is not one that burns.`);
  return scopeAt(cells, await burns.burnsOfCard(ctx.db, card.id));
}

/**
 * Starts a burn on the bench, or one on a machine of the operator's own: its clock, or the note that it is over, timed or not. The pairing is
 * checked again, since a material may have been found to be banned meanwhile. `then` is called when the bench has burned all of it.
 */
export async function startBurn(ctx: AppContext, request: BurnRequest, then?: () => void): Promise<BurnRecord> {
  const card = await getCard(ctx, request.cardId);
  const pairing = await getPairing(ctx, card.pairingId);
  refuseUnlessBurnable(pairing);
  if (card.layout.adopted)
    throw new Problem('invalid-input', `Card ${card.layout.code} was burned long ago: there is nothing to burn.`);
  const cautions = refuseUnlessTicked(card, request.ticked);
  const onBench = request.place === 'bench';
  const scope = await scopeOf(ctx, card, request.cells);
  // The bench is a machine of its own: what was timed elsewhere says nothing of it.
  const pace = onBench ? UNTIMED : await paceNow(ctx, pairing);
  const open = onBench || request.clock === true;
  if (onBench) specimenOf(card.madeFor.stock);
  const work = { layout: card.layout, pairing: card.madeFor, bed: card.bed, scope, pace };
  const { program, estimate } = await ctx.work.do('program', work);
  try {
    const id = await burns.insertBurn(ctx.db, {
      cardId: card.id,
      machineId: pairing.machine.id,
      place: request.place,
      status: open ? 'running' : 'done',
      cells: request.cells,
      program: onBench ? program.text : null,
      parts: onBench ? program.parts : [],
      linesTotal: onBench ? program.lines : 0,
      seed: `card ${card.number}`,
      cautions,
      estimatedS: estimate.totalS,
      actualS: open ? null : (request.tookS ?? null),
      endedAt: open ? null : ctx.now(),
    });
    if (onBench)
      ctx.burns.start(id, program, benchMachineOf(card.madeFor.machine, card.madeFor.lens), benchPlaceOf(card), then);
    else if (!open && request.tookS != null) await renewPace(ctx, pairing.machine.id);
    return (await burns.burnById(ctx.db, id))!;
  } catch (error) {
    if (brokenConstraint(error) === 'burn_one_at_a_time') {
      throw new Problem('machine-busy', `${pairing.machine.name} is burning already.`, 'That burn goes on.');
    }
    throw error;
  }
}

export async function getBurn(ctx: AppContext, id: number): Promise<BurnView> {
  const burn = await burns.burnById(ctx.db, id);
  if (!burn) throw notFound('burn', id);
  return { ...burn, progress: ctx.burns.progressOf(id) };
}

export type BurnControl =
  | { readonly action: 'pause' | 'resume' | 'stop' }
  | { readonly action: 'proceed'; readonly focusOffsetMm: number | null };

export async function controlBurn(ctx: AppContext, id: number, control: BurnControl): Promise<BurnView> {
  await getBurn(ctx, id);
  if (control.action === 'proceed') {
    if (!(await ctx.burns.proceed(id, { focusOffsetMm: control.focusOffsetMm })))
      throw new Problem('hand-not-awaited', `Burn ${id} does not stand at a stop for a hand.`);
    return getBurn(ctx, id);
  }
  const reached =
    control.action === 'stop' ? await ctx.burns.stop(id) : await ctx.burns.setPaused(id, control.action === 'pause');
  if (!reached) throw new Problem('burn-not-open', `Burn ${id} is not under way, or waits for a hand.`);
  return getBurn(ctx, id);
}

/**
 * Takes a photo of what the bench burned of a card with the bench's camera and puts it in line to be read; `twice`, a darker one of it before,
 * which tells what the camera makes of tones. The id is that of the plain one. Lit from behind, the piece lies on the bench's light table. A photo
 * of a card that was burned beside others shows them all, and is read for each.
 */
export async function photographCard(
  ctx: AppContext,
  cardId: number,
  {
    wiped = false,
    twice = false,
    onSheet = null,
    litFrom = 'front',
    turned = false,
    closer = false,
    shotSeed,
  }: {
    readonly wiped?: boolean;
    readonly twice?: boolean;
    readonly onSheet?: SheetFormat | null;
    readonly litFrom?: LitFrom;
    /** Whether it is turned over before. */
    readonly turned?: boolean;
    /** Of a card that lies beside others, that card alone, from closer by. */
    readonly closer?: boolean;
    readonly shotSeed?: string;
  } = {},
): Promise<{ id: number; again: boolean }> {
  await refuseUnlessAsked(ctx, cardId, litFrom);
  const card = await getCard(ctx, cardId);
  if (card.layout.stations && (twice || onSheet !== null))
    throw new Problem(
      'invalid-input',
      `Card ${card.layout.code} stands in several places: each is photographed once, and on no frame sheet.`,
      'Nothing was taken.',
      [twice ? { field: 'photos', message: 'One of each place.' } : { field: 'sheet', message: 'None under a place.' }],
    );
  const whole = await benchPieceOf(ctx, card);
  const piece = closer ? fromCloserBy(whole, card) : whole;
  if (piece.shows.length > 1 && onSheet !== null)
    throw new Problem(
      'invalid-input',
      `Card ${card.layout.code} lies beside others: its photo shows them all, and no frame sheet goes around them.`,
      'Nothing was taken.',
      [{ field: 'sheet', message: 'None around a round.' }],
    );
  const burn = { ...piece.burn, wiped };
  // Each shot its own way, and the same one on every machine: what a photo shows can be looked into again.
  const seed = shotSeed ?? `${card.layout.code} shot ${(await photosOfCard(ctx.db, cardId)).length + 1}`;
  const take = async (
    stopsLess: number,
    name: string,
    station: Station | null = null,
  ): Promise<{ id: number; again: boolean }> => {
    const { jpeg } = await ctx.work.do('photograph', {
      burn: station ? { ...burn, part: { name: station.name, ...station.box } } : burn,
      shotSeed: station ? `${seed} ${station.name}` : seed,
      scale: ctx.cameraScale,
      stopsLess,
      onSheet: onSheet && printOrder(onSheet),
      litFrom,
      turned,
      cutOut: tappedOut(card),
    });
    const incoming = {
      bytes: Buffer.from(jpeg),
      fileName: `${name}-${piece.name.replace(' ', '-')}.jpg`,
      origin: 'bench-camera' as const,
      finish: wiped ? ('after' as const) : ('before' as const),
      litFrom,
    };
    for (const { id } of piece.shows) if (id !== cardId) await receivePhoto(ctx, id, incoming);
    return receivePhoto(ctx, cardId, incoming);
  };
  // The camera goes from station to station, to those that no photo tells yet where there are some; the id is that of the last.
  if (card.layout.stations) {
    const { stations } = card.layout;
    const shown = (await newestReading(ctx.db, cardId))?.shown ?? [];
    const left = stations.filter((_, index) => !shown.some(({ station }) => station === index));
    let taken: { id: number; again: boolean } | null = null;
    for (const station of left.length > 0 ? left : stations) taken = await take(0, `bench-${station.name}`, station);
    return taken!;
  }
  // The darker one first: the other is then read with it at once.
  if (twice) await take(STOPS_LESS, 'bench-darker');
  return take(0, litFrom === 'behind' ? 'light-table' : 'bench');
}
