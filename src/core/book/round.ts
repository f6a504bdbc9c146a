import type { LadderRung, RungCard } from './ladder';
import { groundOf, RUNGS, type RungId } from './rungs';

/** A rung that waits for a card, and why it cannot share a burn with others; null where it can. */
export interface OpenRung {
  readonly rung: RungId;
  readonly name: string;
  readonly question: string;
  readonly isStale: boolean;
  readonly why: string | null;
}

/**
 * The rungs of a ladder that wait for a card, lowest first. Those share a burn whose ground is measured: none of them starts from what another one
 * of the burn will say. Where the ground is open, a card waits already, or stock is cut (what falls out lies still for nothing), it says why not.
 */
export function openRungs(
  ladder: readonly LadderRung[],
  cards: Readonly<Partial<Record<RungId, Pick<RungCard, 'code'>>>>,
): readonly OpenRung[] {
  // What is not asked on this ladder, as run-up under mirrors, is no ground that is open.
  const isOpen = (rung: RungId): boolean => ladder.some((one) => one.rung === rung && one.state !== 'measured');
  return ladder
    .filter(({ state }) => state === 'empty' || state === 'stale')
    .map(({ rung, name, question, state }) => {
      const open = groundOf(rung).find((below) => RUNGS[below].foot !== 'common' && isOpen(below));
      const card = cards[rung];
      const why = open
        ? `it starts from ${RUNGS[open].name}, which is not measured`
        : card
          ? `card ${card.code} waits already`
          : RUNGS[rung].foot === 'cut'
            ? 'parts that are cut out do not lie still: it is burned by itself'
            : null;
      return { rung, name, question, isStale: state === 'stale', why };
    });
}
