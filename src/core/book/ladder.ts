import type { Pairing } from '../card/contract';
import { assessPairing } from '../stock/assess';
import { cutThroughJPerMm } from '../stock/cutting';
import { thicknessOf } from '../stock/stock';
import { plainNumber, type LikedUnits } from '../quantities/format';
import type { FactName } from './fact-values';
import { FACTS, factOf, factWords, isUnproven, UNPROVEN, type FactNow } from './facts';
import { RUNG_IDS, RUNGS, type Foot, type RungId } from './rungs';
import type { Cost } from './worth';

export type RungState = 'empty' | 'predicted' | 'measured' | 'stale' | 'stopped';

/** One rung of a pairing's ladder, as the drawing shows it. Plain data. */
export interface LadderRung {
  readonly rung: RungId;
  readonly name: string;
  readonly question: string;
  readonly foot: Foot;
  /** Names of the rungs it stands on. */
  readonly standsOn: readonly string[];
  readonly state: RungState;
  /** The number that stands on it. */
  readonly value: string;
  /** Why it is stale or stopped, or what waits there; empty otherwise. */
  readonly reason: string;
  /** When it was answered; null when it was not. */
  readonly since: string | null;
  /** Where it leads; null when nothing can be done there. */
  readonly href: string | null;
}

/** The newest card of a rung, and how far it has come. */
export interface RungCard {
  readonly cardId: number;
  readonly code: string;
  readonly stage: CardStage;
  /** Whether it was made to settle if what is known still holds. */
  readonly renews?: boolean;
}

export type CardStage = 'planned' | 'burning' | 'burned' | 'photographed' | 'seen';

export interface LadderFacts {
  readonly pairing: Pairing;
  readonly likedUnits: LikedUnits;
  readonly facts: readonly FactNow[];
  /** Rungs that a kind of card answers. */
  readonly answered: readonly RungId[];
  readonly cards: Readonly<Partial<Record<RungId, RungCard>>>;
  /** Where things stand: addresses are the screens' affair. */
  readonly links: {
    readonly stock: string;
    readonly fact: (factId: number) => string;
    readonly card: (cardId: number) => string;
    readonly plan: (rung: RungId, isStale?: boolean) => string;
    /** The small card that proves a setting which nobody burned here. */
    readonly prove: (factId: number) => string;
  };
}

const STAGE_WORDS: Readonly<Record<CardStage, string>> = {
  planned: 'is planned',
  burning: 'is burning',
  burned: 'waits for a look',
  photographed: 'waits for its photo',
  seen: 'waits for a choice',
};

/** The rungs from the ground up: the common step, then the engrave side, then the cut side where this source cuts this stock at all. */
export function ladderOf(from: LadderFacts): LadderRung[] {
  const { pairing, facts, links } = from;
  const remarks = assessPairing(pairing.machine, pairing.stock);
  const stop = remarks.find((remark) => remark.severity === 'stop');
  const cuts = stop !== undefined || cutThroughJPerMm(pairing.machine, pairing.stock) !== null;
  const drawn = (rung: RungId): boolean => {
    const { foot } = RUNGS[rung];
    return foot === 'common' || (from.answered.includes(rung) && (foot !== 'cut' || cuts));
  };
  return RUNG_IDS.filter(drawn).map((rung) => {
    const { name, question, foot, standsOn } = RUNGS[rung];
    const base = { rung, name, question, foot, standsOn: (standsOn as readonly RungId[]).map((id) => RUNGS[id].name) };
    if (rung === 'stock') {
      const thickness = thicknessOf(pairing.stock);
      const measured = thickness.origin === 'measured';
      const spread = thickness.spreadMm === null ? '' : ` ± ${plainNumber(thickness.spreadMm, 2)}`;
      return {
        ...base,
        state: measured ? 'measured' : 'predicted',
        value: `${plainNumber(thickness.meanMm)} mm${measured ? spread : ' by label'}`,
        reason: '',
        since: facts.find((fact) => fact.name === 'thickness')?.createdAt ?? null,
        href: links.stock,
      } as const;
    }
    if (rung === 'safety') {
      return {
        ...base,
        state: stop ? 'stopped' : 'measured',
        value: stop
          ? 'not to be burned'
          : remarks.length > 0
            ? `no ban known, ${remarks.length} to mind`
            : 'no ban known',
        reason: stop?.text ?? '',
        since: null,
        href: `${links.stock}#safety`,
      } as const;
    }
    const card = from.cards[rung];
    const [fact] = (Object.keys(FACTS) as FactName[])
      .filter((id) => FACTS[id].rung === rung)
      .flatMap((id) => factOf(facts, id) ?? []);
    const waits = card && card.stage !== 'planned' ? `card ${card.code} ${STAGE_WORDS[card.stage]}` : '';
    if (!fact)
      return {
        ...base,
        state: 'empty',
        value: '',
        reason: waits,
        since: null,
        href: card ? links.card(card.cardId) : stop ? null : links.plan(rung),
      } as const;
    const shades = facts.filter((other) => other.name === fact.name).length;
    const unproven = isUnproven(fact.origin);
    return {
      ...base,
      state: fact.stale.length > 0 ? 'stale' : unproven ? 'predicted' : 'measured',
      value: `${factWords(fact, from.likedUnits)}${shades > 1 ? `, ${shades} shades` : ''}`,
      reason: [...fact.stale, ...(unproven ? [UNPROVEN[fact.origin as keyof typeof UNPROVEN]] : [])].join(', '),
      since: fact.createdAt,
      href: links.fact(fact.factId),
    } as const;
  });
}

/** What to do next on a pairing. */
export interface NextStep {
  readonly action: 'stop' | 'plan' | 'go-on' | 'rest';
  /** The rung it is about; null when there is nothing to do. */
  readonly rung: RungId | null;
  readonly text: string;
  readonly href: string | null;
  /** What it costs: time and area of the proposed card; empty when nothing is burned. */
  readonly cost: string;
  /** The same in numbers; left out when nothing is burned, or nothing can be proposed. */
  readonly burn?: Cost;
}

/**
 * The next sensible thing to do: what waits for a hand first, then the lowest rung that is empty or stale and that a card can answer. `names` says
 * how the card is called that a rung asks for, empty or stale; null where none can be planned. The cost is put in by whoever knows the proposal.
 */
export function nextStepOf(
  from: LadderFacts,
  rungs: readonly LadderRung[],
  names: (rung: RungId, isStale: boolean) => string | null,
): NextStep {
  const stopped = rungs.find((rung) => rung.state === 'stopped');
  if (stopped) return { action: 'stop', rung: 'safety', text: 'Not to be burned', href: null, cost: '' };
  for (const rung of rungs) {
    const card = from.cards[rung.rung];
    const waits = rung.state === 'empty' || rung.state === 'predicted' || (rung.state === 'stale' && card?.renews);
    if (!card || !waits) continue;
    return {
      action: 'go-on',
      rung: rung.rung,
      text:
        card.stage === 'planned'
          ? `Burn card ${card.code}`
          : `${rung.name}: card ${card.code} ${STAGE_WORDS[card.stage]}`,
      href: from.links.card(card.cardId),
      cost: card.stage === 'planned' ? '' : 'nothing to burn',
    };
  }
  const unproven = factOf(from.facts, 'engrave');
  const grid = rungs.find((rung) => rung.rung === 'grid');
  if (unproven && grid?.state === 'predicted' && from.cards.grid === undefined)
    return {
      action: 'plan',
      rung: 'grid',
      text: unproven.origin === 'brought' ? 'Prove the setting that was brought along' : 'Prove the foretold setting',
      href: from.links.prove(unproven.factId),
      cost: '',
    };
  // Rungs of the common step are never empty or stale, and no card is burned for them.
  const open = rungs.filter(({ state }) => state === 'empty' || state === 'stale');
  for (const { rung, state } of open) {
    const isStale = state === 'stale';
    const text = names(rung, isStale);
    if (text !== null) return { action: 'plan', rung, text, href: from.links.plan(rung, isStale), cost: '' };
  }
  const [left] = open;
  return {
    action: 'rest',
    rung: null,
    text: left ? `${left.name}: ${left.state}, and no card can answer it here` : 'Every rung is answered',
    href: null,
    cost: '',
  };
}
