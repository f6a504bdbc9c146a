import { cardKind } from '../cards/registry';
import type { GridPlan } from '../cards/grid/plan';
import type { Proposal, Verdict } from '../core/card/contract';
import { estimateCard } from '../core/card/estimate';
import { ladderOf, nextStepOf, type LadderRung, type NextStep } from '../core/book/ladder';
import { LOW_CONFIDENCE } from '../core/reading/observations';
import type { Caution } from '../core/stock/cautions';
import { listSettings, verdictsOfCard, type SettingVersionRecord } from '../db/book';
import { burnsOfCard, listBurns, type BurnRecord } from '../db/burns';
import { cardsOfPairing, usedAreasOfStock, type CardRecord } from '../db/cards';
import { listMachines, type MachineRecord } from '../db/machines';
import { listPairings } from '../db/pairings';
import { newestReading, photosOfCard, type ReadingRecord } from '../db/photos';
import { listStocks, type StockRecord } from '../db/stocks';
import { cautionsOfCard } from './burns';
import { defaultSheetOnBed, getCard, type SheetOnBed } from './cards';
import type { AppContext } from './context';
import { getPairing, type OpenPairing } from './pairings';
import { viewPhoto, type PhotoView } from './photos';

export interface CardSummary {
  readonly id: number;
  readonly code: string;
  readonly createdAt: string;
  readonly cells: number;
  readonly estimatedS: number;
  readonly stage: 'planned' | 'burning' | 'burned' | 'photographed' | 'read';
}

export interface UsedArea {
  readonly cardId: number;
  readonly code: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Everything the bench of a pairing shows. */
export interface BenchView {
  readonly pairing: OpenPairing;
  readonly ladder: readonly LadderRung[];
  readonly next: NextStep;
  readonly proposal: Proposal<GridPlan> | null;
  readonly cards: readonly CardSummary[];
  readonly usedAreas: readonly UsedArea[];
  readonly sheetOnBed: SheetOnBed;
  readonly settingId: number | null;
}

async function summarise(ctx: AppContext, card: CardRecord): Promise<CardSummary> {
  const [burns, photos] = await Promise.all([burnsOfCard(ctx.db, card.id), photosOfCard(ctx.db, card.id)]);
  const stage = photos.some((photo) => photo.status === 'read')
    ? 'read'
    : photos.length > 0
      ? 'photographed'
      : burns.some((burn) => burn.endedAt === null)
        ? 'burning'
        : burns.length > 0
          ? 'burned'
          : 'planned';
  const { layout, id, createdAt, estimatedS } = card;
  return { id, code: layout.code, createdAt, cells: layout.order.length, estimatedS, stage };
}

export async function benchView(ctx: AppContext, pairingId: number): Promise<BenchView> {
  const pairing = await getPairing(ctx, pairingId);
  const [cards, usedAreas, [setting]] = await Promise.all([
    cardsOfPairing(ctx.db, pairingId),
    usedAreasOfStock(ctx.db, pairing.stock.id),
    listSettings(ctx.db, { pairingId }),
  ]);
  const burnable = !pairing.remarks.some((remark) => remark.severity === 'stop');
  const proposal = burnable ? cardKind('grid').propose({ pairing }) : null;
  const summaries = await Promise.all(cards.map((card) => summarise(ctx, card)));
  const readIndex = summaries.findIndex((summary) => summary.stage === 'read');
  const readCard = cards[readIndex];
  const kept = setting?.versions[0];
  const keptCard = kept && (await getCard(ctx, kept.cardId));
  const ladder = ladderOf({
    pairing,
    likedUnits: pairing.machine.likedUnits,
    range: proposal && {
      powerFrom: proposal.plan.power.from,
      powerTo: proposal.plan.power.to,
      speedFrom: proposal.plan.speed.from,
      speedTo: proposal.plan.speed.to,
    },
    readCard: readCard
      ? { code: readCard.layout.code, cells: readCard.layout.order.length, madeFor: readCard.madeFor }
      : null,
    kept: kept && keptCard ? { version: kept.version, ...kept.settings, madeFor: keptCard.madeFor } : null,
  });
  const layout = proposal && cardKind('grid').lay(proposal.plan, pairing, { cardNumber: 0 });
  const cost = layout && {
    burnS: estimateCard(layout, pairing.machine).totalS,
    widthMm: layout.widthMm,
    heightMm: layout.heightMm,
  };
  return {
    pairing,
    ladder,
    next: nextStepOf(ladder, cost),
    proposal,
    cards: summaries,
    usedAreas,
    sheetOnBed: defaultSheetOnBed(pairing),
    settingId: setting?.id ?? null,
  };
}

/** Everything the page of one card shows. */
export interface CardView {
  readonly card: CardRecord;
  readonly pairing: OpenPairing;
  readonly ladder: readonly LadderRung[];
  readonly cautions: readonly Caution[];
  readonly burns: readonly BurnRecord[];
  readonly photos: readonly PhotoView[];
  readonly reading: ReadingRecord | null;
  readonly verdicts: readonly Verdict[];
  readonly kept: readonly (SettingVersionRecord & { readonly settingId: number })[];
}

export async function cardView(ctx: AppContext, cardId: number): Promise<CardView> {
  const card = await getCard(ctx, cardId);
  const [bench, burns, photos, reading, verdicts, settings] = await Promise.all([
    benchView(ctx, card.pairingId),
    burnsOfCard(ctx.db, cardId),
    photosOfCard(ctx.db, cardId),
    newestReading(ctx.db, cardId),
    verdictsOfCard(ctx.db, cardId),
    listSettings(ctx.db, { pairingId: card.pairingId }),
  ]);
  const kept = settings.flatMap((setting) =>
    setting.versions
      .filter((version) => version.cardId === cardId)
      .map((version) => ({ ...version, settingId: setting.id })),
  );
  return {
    card,
    pairing: bench.pairing,
    ladder: bench.ladder,
    cautions: cautionsOfCard(card),
    burns,
    photos: await Promise.all(photos.map((photo) => viewPhoto(ctx, photo))),
    reading: reading ?? null,
    verdicts,
    kept,
  };
}

export interface BenchListEntry {
  readonly pairingId: number;
  readonly machine: string;
  readonly lens: string;
  readonly stock: string;
  readonly stockColour: string;
  readonly ladder: readonly LadderRung[];
  readonly next: NextStep;
}

/** The benches that were opened, and what new ones can be made of. */
export interface BenchListView {
  readonly benches: readonly BenchListEntry[];
  readonly machines: readonly MachineRecord[];
  readonly stocks: readonly StockRecord[];
}

export async function benchListView(ctx: AppContext): Promise<BenchListView> {
  const [pairings, machines, stocks] = await Promise.all([
    listPairings(ctx.db),
    listMachines(ctx.db),
    listStocks(ctx.db),
  ]);
  const views = await Promise.all(pairings.map((pairing) => benchView(ctx, pairing.id)));
  const benches = views
    .filter(({ pairing }) => !pairing.machine.retired && !pairing.stock.retired && !pairing.lens.retired)
    .map(({ pairing, ladder, next }) => ({
      pairingId: pairing.id,
      machine: pairing.machine.name,
      lens: pairing.lens.name,
      stock: pairing.stock.name,
      stockColour: pairing.stock.colour,
      ladder,
      next,
    }));
  return {
    benches,
    machines: machines.filter((machine) => !machine.retired),
    stocks: stocks.filter((stock) => !stock.retired),
  };
}

export interface LogEntry {
  readonly burn: BurnRecord;
  readonly cardCode: string;
  readonly machine: string;
  readonly stock: string;
  readonly photos: number;
  readonly lowConfidenceCells: number | null;
}

export async function logbookView(ctx: AppContext): Promise<readonly LogEntry[]> {
  const burns = await listBurns(ctx.db, 200);
  return Promise.all(
    burns.map(async (burn) => {
      const [card, photos, reading] = await Promise.all([
        getCard(ctx, burn.cardId),
        photosOfCard(ctx.db, burn.cardId),
        newestReading(ctx.db, burn.cardId),
      ]);
      return {
        burn,
        cardCode: card.layout.code,
        machine: card.madeFor.machine.name,
        stock: card.madeFor.stock.name,
        photos: photos.length,
        lowConfidenceCells: reading ? reading.cells.filter((cell) => cell.confidence < LOW_CONFIDENCE).length : null,
      };
    }),
  );
}
