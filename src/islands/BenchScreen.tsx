import type { BenchView } from '../app/views';
import { BenchFrame, TicketPart } from '../components/BenchFrame';
import { LinkButton } from '../components/Button';
import { Ladder } from '../components/Ladder';
import { Mat } from '../components/Mat';
import { Notice } from '../components/Notice';
import { formatDuration } from '../core/quantities/format';
import { ladderLinks, PairingTitle } from './PairingTitle';
import styles from './BenchScreen.module.css';

const STAGES = {
  planned: 'planned, not burned',
  burning: 'burning now',
  burned: 'burned, no photo yet',
  photographed: 'photo not read',
  read: 'read',
} as const;

/** The bench of one pairing: its ladder, its sheet with the cards on it, and the next sensible thing to do. */
export function BenchScreen({ view }: { view: BenchView }) {
  const { pairing, cards, usedAreas, next } = view;
  const { stock } = pairing;
  const own = new Set(cards.map((card) => card.id));
  const readCard = cards.find((card) => card.stage === 'read');
  const stopped = pairing.remarks.find((remark) => remark.severity === 'stop');
  const ticket = (
    <>
      <TicketPart title={stopped ? 'Stop' : `Next: ${next.text}`}>
        {stopped && (
          <Notice look="heat" title="Not to be burned here">
            <p>{stopped.text}</p>
            <p>{stopped.whatToDo}</p>
          </Notice>
        )}
        {pairing.remarks
          .filter((remark) => remark.severity === 'warning')
          .map((remark) => (
            <Notice key={remark.code} look="straw">
              {remark.text} {remark.whatToDo}
            </Notice>
          ))}
        {!stopped && next.cost && <p className={styles.cost}>{next.cost}</p>}
        {next.action === 'plan' && (
          <LinkButton look="main" href={`/bench/${pairing.id}/plan`}>
            Plan the card
          </LinkButton>
        )}
        {next.action === 'pick' && readCard && (
          <LinkButton look="main" href={`/cards/${readCard.id}#pick`}>
            Pick from card {readCard.code}
          </LinkButton>
        )}
        {next.action === 'rest' && view.settingId !== null && (
          <LinkButton look="main" href={`/book/${view.settingId}`}>
            See the kept setting
          </LinkButton>
        )}
        {!stopped && next.action !== 'plan' && (
          <LinkButton href={`/bench/${pairing.id}/plan`}>Plan another grid</LinkButton>
        )}
      </TicketPart>
      <TicketPart title="Cards of this bench">
        {cards.length === 0 && <p>None yet. The first card answers which power and speed engrave this stock well.</p>}
        <ul className={styles.list}>
          {cards.map((card) => (
            <li key={card.id}>
              <a href={`/cards/${card.id}`}>
                <strong>{card.code}</strong> <span>{STAGES[card.stage]}</span>
                <br />
                <span>
                  {card.cells} cells, {formatDuration(card.estimatedS)}, {card.createdAt.slice(0, 10)}
                </span>
              </a>
            </li>
          ))}
        </ul>
      </TicketPart>
    </>
  );
  return (
    <BenchFrame
      title={<PairingTitle pairing={pairing} />}
      ladder={<Ladder rungs={view.ladder} links={ladderLinks(view)} />}
      ticket={ticket}
      mat={
        <Mat
          label={`${stock.name} sheet with its cards`}
          extent={{ x: 0, y: 0, width: stock.sheetWidthMm, height: stock.sheetDepthMm }}
        >
          {() => (
            <>
              <rect
                width={stock.sheetWidthMm}
                height={stock.sheetDepthMm}
                fill={stock.colour}
                className={styles.sheet}
              />
              {usedAreas.map((area) => (
                <a key={area.cardId} href={`/cards/${area.cardId}`} aria-label={`card ${area.code}`} data-grab="">
                  <rect
                    x={area.x}
                    y={area.y}
                    width={area.width}
                    height={area.height}
                    className={own.has(area.cardId) ? styles.own : styles.other}
                  />
                  <text x={area.x + area.width / 2} y={area.y + area.height / 2} className={styles.code}>
                    {area.code}
                  </text>
                </a>
              ))}
            </>
          )}
        </Mat>
      }
    />
  );
}
