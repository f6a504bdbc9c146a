import { createHash } from 'node:crypto';
import { cardKind, CARD_KIND_NAMES, kindAskedFor, kindFor, type AnyCardKind } from '../cards/registry';
import { FACTS } from '../core/book/facts';
import { ladderOf, nextStepOf, type LadderFacts, type NextStep, type RungCard } from '../core/book/ladder';
import { paceOf } from '../core/book/motion-facts';
import { RUNGS, type RungId } from '../core/book/rungs';
import type { Known } from '../core/card/contract';
import { areasOf } from '../core/card/station';
import { formatDuration, formatSize } from '../core/quantities/format';
import { assessPairing } from '../core/stock/assess';
import { cardSummaries } from '../db/cards';
import { forgetStatesOfOthers, keepState, stateOfPairing, staleStates, type PairingState } from '../db/pairing-states';
import type { CardSummary } from '../records/card';
import type { OpenPairing } from '../records/pairing';
import { cardAddress, factAddress, planAddress, proveAddress, stockAddress } from './addresses';
import type { AppContext } from './context';
import { knownOf } from './known';
import { getPairing } from './pairings';

const ANSWERED: readonly RungId[] = [...new Set(CARD_KIND_NAMES.map((name) => cardKind(name).rung))];
/** Tells programs apart whose ladders differ: by their rungs, and by the kinds of card that answer them. */
const MADE_BY = createHash('sha256')
  .update(
    JSON.stringify([
      'costs in numbers, only what can be answered there, nothing next that no card can answer',
      RUNGS,
      CARD_KIND_NAMES.map((name) => [name, cardKind(name).rung, cardKind(name).version]),
    ]),
  )
  .digest('hex')
  .slice(0, 16);
/** How many of a pairing's newest cards decide what waits on its ladder. */
export const NEWEST_CARDS = 60;

/** The newest card of each rung; one that something was kept from waits for nothing. */
export function newestByRung(cards: readonly CardSummary[]): Partial<Record<RungId, RungCard>> {
  const found: Partial<Record<RungId, RungCard>> = {};
  for (const card of [...cards].reverse()) {
    const { rung, renews = false } = cardKind(card.kind);
    if (card.kept > 0) delete found[rung];
    else found[rung] = { cardId: card.id, code: card.code, stage: card.stage, renews };
  }
  return found;
}

const NO_COST = { cost: '' } as const;

/** What the proposed card of a rung costs; nothing when it cannot be proposed. */
async function costOf(
  ctx: AppContext,
  pairing: OpenPairing,
  kind: AnyCardKind,
): Promise<Pick<NextStep, 'cost' | 'burn'>> {
  const known = await knownOf(ctx, pairing);
  try {
    const { plan } = kind.propose(known);
    const work = { kind: kind.kind, plan, pairing: known.pairing, cardNumber: 0, pace: paceOf(known.facts) };
    const answer = await ctx.work.do('lay', work);
    if (!answer.laid) return NO_COST;
    const { layout, estimate } = answer;
    const areaMm2 = areasOf(layout).reduce((sum, { width, height }) => sum + width * height, 0);
    return {
      cost: `${formatDuration(estimate.totalS)}, ${formatSize(layout.widthMm, layout.heightMm, pairing.machine.likedUnits)}`,
      burn: { seconds: estimate.totalS, areaMm2 },
    };
  } catch (error) {
    if (error instanceof RangeError) return NO_COST;
    throw error;
  }
}

function waitsOf(next: NextStep, cards: readonly CardSummary[], stale: boolean): number {
  if (cards.some((card) => card.stage === 'burning')) return 0;
  if (next.action === 'go-on') return next.cost === '' ? 3 : 1;
  if (next.action === 'plan') return stale ? 2 : 4;
  return next.action === 'rest' ? 5 : 6;
}

/**
 * The rungs that a card can answer on a pairing, or has answered, or is made for: what a machine or a stock makes needless is not asked. All of
 * them where nothing may be burned, since one is to see what is stopped.
 */
function answeredOn(known: Known, waiting: Partial<Record<RungId, RungCard>>): RungId[] {
  const { machine, stock } = known.pairing;
  if (assessPairing(machine, stock).some(({ severity }) => severity === 'stop')) return [...ANSWERED];
  return ANSWERED.filter(
    (rung) =>
      waiting[rung] !== undefined ||
      known.facts.some(({ name }) => FACTS[name].rung === rung) ||
      kindAskedFor(rung, false, known) !== null,
  );
}

async function workOut(ctx: AppContext, pairing: OpenPairing): Promise<PairingState> {
  const [known, cards] = await Promise.all([
    knownOf(ctx, pairing),
    cardSummaries(ctx.db, pairing.id, { limit: NEWEST_CARDS, offset: 0 }),
  ]);
  const waiting = newestByRung(cards);
  const from: LadderFacts = {
    pairing: known.pairing,
    likedUnits: pairing.machine.likedUnits,
    facts: known.facts,
    answered: answeredOn(known, waiting),
    cards: waiting,
    links: {
      stock: stockAddress(pairing.stock.id),
      fact: factAddress,
      card: cardAddress,
      plan: (rung, isStale = false) => planAddress(pairing.id, kindFor(rung, isStale, known).kind),
      prove: (factId) => proveAddress(pairing.id, factId),
    },
  };
  const ladder = ladderOf(from);
  const step = nextStepOf(from, ladder, (rung, isStale) => kindAskedFor(rung, isStale, known)?.name ?? null);
  const isStale = ladder.some(({ rung, state }) => rung === step.rung && state === 'stale');
  const asks = step.action === 'plan' && step.rung !== null && step.href === from.links.plan(step.rung, isStale);
  const next = asks ? { ...step, ...(await costOf(ctx, pairing, kindFor(step.rung, isStale, known))) } : step;
  return {
    ladder,
    next,
    waits: waitsOf(
      next,
      cards,
      ladder.some((rung) => rung.state === 'stale'),
    ),
  };
}

/** The ladder and next step of a pairing: as kept, or worked out anew where something has changed since. */
export async function ladderOfPairing(ctx: AppContext, pairing: OpenPairing): Promise<PairingState> {
  const { revision, state } = await stateOfPairing(ctx.db, pairing.id);
  if (state) return state;
  const fresh = await workOut(ctx, pairing);
  await keepState(ctx.db, pairing.id, revision, { ...fresh, madeBy: MADE_BY });
  return fresh;
}

/** After another version of the program: ladders that it kept are worked out anew when they are looked at. */
export const forgetOldLadders = (ctx: AppContext): Promise<number> => forgetStatesOfOthers(ctx.db, MADE_BY);

/** Works out, one after another, what changed; what is left over is worked out when it is looked at. */
export async function renewLadders(ctx: AppContext, most: number): Promise<number> {
  const ids = await staleStates(ctx.db, most);
  for (const id of ids) await ladderOfPairing(ctx, await getPairing(ctx, id));
  return ids.length;
}
