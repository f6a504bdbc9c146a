import { TicketPart } from '../../components/BenchFrame';
import { Button, LinkButton } from '../../components/Button';
import { cardKind } from '../../cards/registry';
import { STAGE_WORDS } from '../../components/stage-words';
import type { RoundOfCard } from '../../views/views';
import { OwnOver } from './OwnBurn';
import styles from './BurnStage.module.css';

/** The cards that a card was made with, and what became of each. */
export function RoundPart({ round, cardId }: { round: RoundOfCard; cardId: number }) {
  const isOver = round.cards.every(({ stage }) => stage !== 'planned' && stage !== 'burning');
  return (
    <TicketPart title={`Round ${round.id}: ${round.cards.length} cards in one go`}>
      <ul className={styles.round}>
        {round.cards.map(({ id, code, kind, stage }) => (
          <li key={id}>
            <a
              href={`/cards/${id}#${stage === 'planned' || stage === 'burning' ? 'burn' : 'photo'}`}
              aria-current={id === cardId ? 'page' : undefined}
            >
              {cardKind(kind).name} {code}
            </a>
            <span>{STAGE_WORDS[stage]}</span>
          </li>
        ))}
      </ul>
      {isOver && <p className={styles.pace}>One photo that shows all of them is read for each.</p>}
    </TicketPart>
  );
}

/** Burns all that is left of a round in one go, or notes that it was burned. */
export function RoundStart({
  round,
  ready,
  busy,
  onBurn,
}: {
  round: RoundOfCard;
  ready: boolean;
  busy: boolean;
  onBurn: (place: 'bench' | 'own-machine', tookS: number | null) => void;
}) {
  const left = round.cards.filter(({ stage }) => stage === 'planned').length;
  return (
    <>
      <Button look="heat" disabled={!ready} busy={busy} onClick={() => onBurn('bench', null)}>
        Burn {left === round.cards.length ? `all ${left}` : `the ${left} left`} on the simulated bench
      </Button>
      <LinkButton href={`/api/rounds/${round.id}/export/gcode`} download>
        G-code of all {round.cards.length}
      </LinkButton>
      <details className={styles.own}>
        <summary>On my own machine</summary>
        <OwnOver
          ready={ready}
          busy={busy}
          label="All burned on my own machine"
          onOver={(tookS) => onBurn('own-machine', tookS)}
        />
      </details>
    </>
  );
}
