import { useState } from 'react';
import { cardKind, CARD_KIND_NAMES } from '../cards/registry';
import { BenchFrame, TicketPart } from '../components/BenchFrame';
import { LinkButton } from '../components/Button';
import { Ladder } from '../components/Ladder';
import { CardPhotos, CardPiece } from '../components/CardPhotos';
import { gathered } from '../core/card/station';
import { Mat } from '../components/Mat';
import { Notice } from '../components/Notice';
import { PairingTitle } from '../components/PairingTitle';
import { RUNGS } from '../core/book/rungs';
import { dayOf } from '../core/quantities/day';
import { formatDuration, plainNumber } from '../core/quantities/format';
import { outlinePath } from '../core/stock/outline';
import { STAGE_WORDS } from '../components/stage-words';
import { PiecesPart } from './PiecesPart';
import type { SpentOnTests } from '../records/burn';
import type { BenchView } from '../views/views';
import places from '../components/SheetPlaces.module.css';
import styles from './BenchScreen.module.css';

/** The sheet or blank that was laid on last. */
const newestPiece = ({ usedAreas }: BenchView): number => Math.max(1, ...usedAreas.map((area) => area.piece));

/** What the newest piece is called: "sheet 2", "blank 3 of 12". */
function pieceWords(view: BenchView): string {
  const { blanks } = view.pairing.stock;
  const piece = newestPiece(view);
  return blanks ? `blank ${piece} of ${blanks.count}` : `sheet ${piece}`;
}

/** The sheet with its cards, in sheet millimetres. */
function Sheet({ view }: { view: BenchView }) {
  const { stock } = view.pairing;
  const own = new Set(view.cards.map((card) => card.id));
  return (
    <>
      <path d={outlinePath(stock)} fill={stock.colour} className={places.sheet} />
      {view.usedAreas
        .filter((area) => area.piece === newestPiece(view))
        .map((area) => (
          <a
            key={`${area.cardId} ${area.x} ${area.y}`}
            href={`/cards/${area.cardId}`}
            aria-label={`card ${area.code}`}
            data-grab=""
          >
            <rect
              x={area.x}
              y={area.y}
              width={area.width}
              height={area.height}
              className={own.has(area.cardId) ? places.own : places.other}
            />
            <text x={area.x + area.width / 2} y={area.y + area.height / 2} className={`${places.name} ${styles.code}`}>
              {area.code}
            </text>
          </a>
        ))}
    </>
  );
}

/** "Spent on testing: 3 cards, 12 min, 45 cm²" */
const spentWords = ({ cards, seconds, areaMm2 }: SpentOnTests): string =>
  `Spent on testing: ${cards === 1 ? '1 card' : `${cards} cards`}, ${formatDuration(seconds)}, ${plainNumber(areaMm2 / 100, 2)} cm²`;

/** The bench of one pairing: its ladder, its newest card large, its sheet as a map, and the next sensible thing to do. */
export function BenchScreen({ view, cannot }: { view: BenchView; cannot: string | null }) {
  const { pairing, cards, next, newest } = view;
  const { stock } = pairing;
  const newestLayout = newest && gathered(newest.card.layout);
  const [sheetLarge, setSheetLarge] = useState(newest === null);
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
        {!stopped && cannot && (
          <Notice look="straw" title="That card cannot be planned here">
            {cannot}
          </Notice>
        )}
        {pairing.remarks
          .filter((remark) => remark.severity === 'warning')
          .map((remark) => (
            <Notice key={remark.code} look="straw">
              {remark.text} {remark.whatToDo}
            </Notice>
          ))}
        {!stopped && next.rung && <p>{RUNGS[next.rung].question}</p>}
        {!stopped && next.cost && <p className={styles.cost}>{next.cost}</p>}
        {!stopped && view.worth && <p>{view.worth}</p>}
        {next.href && (
          <LinkButton look="main" href={next.href}>
            {next.action === 'plan' ? 'Plan the card' : 'Go on with it'}
          </LinkButton>
        )}
        {!stopped && view.together > 1 && (
          <LinkButton href={`/bench/${pairing.id}/round`}>Burn up to {view.together} cards in one go</LinkButton>
        )}
        {!stopped && <PiecesPart view={view} />}
      </TicketPart>
      <TicketPart title="The story so far">
        {view.spent.cards > 0 && <p className={styles.cost}>{spentWords(view.spent)}</p>}
        {cards.length === 0 && <p>None yet. The first card answers which power and speed engrave this stock well.</p>}
        <ol className={styles.story}>
          {cards.map((card) => (
            <li key={card.id}>
              <a href={`/cards/${card.id}`}>
                {card.photoId === null ? (
                  <span className={styles.blank} style={{ background: stock.colour }} aria-hidden="true" />
                ) : (
                  <img className={styles.thumb} src={`/api/photos/${card.photoId}/images/straightened`} alt="" />
                )}
                <span>
                  <strong>{cardKind(card.kind).name}</strong>
                  {(view.keptWords[card.id] ?? []).map((words) => (
                    <span key={words} className={styles.kept}>
                      kept: {words}
                    </span>
                  ))}
                  <span>
                    {card.code}, {card.kept > 0 ? '' : `${STAGE_WORDS[card.stage]}, `}
                    {dayOf(card.createdAt)}
                  </span>
                </span>
              </a>
            </li>
          ))}
        </ol>
      </TicketPart>
      {!stopped && (
        <TicketPart title="Any card">
          <ul className={styles.kinds}>
            {CARD_KIND_NAMES.filter((name) => view.ladder.some(({ rung }) => rung === cardKind(name).rung)).map(
              (name) => {
                const { kind, name: title, purpose } = cardKind(name);
                return (
                  <li key={kind}>
                    <a href={`/bench/${pairing.id}/plan/${kind}`}>{title}</a>
                    <span>{purpose}</span>
                  </li>
                );
              },
            )}
          </ul>
        </TicketPart>
      )}
      {!stopped && (
        <TicketPart title="Known from elsewhere">
          <p>
            Settings from notes or another program are filed as unproven. A card burned long ago is adopted: told by its
            edges, read from its photo.
          </p>
          <LinkButton href={`/bench/${pairing.id}/bring`}>Bring settings along</LinkButton>
          <LinkButton href={`/bench/${pairing.id}/adopt`}>Adopt an old card</LinkButton>
        </TicketPart>
      )}
    </>
  );
  const toggle = newest && (
    <button type="button" aria-pressed={sheetLarge} onClick={() => setSheetLarge(!sheetLarge)}>
      {sheetLarge ? 'Show the newest card' : `Show ${pieceWords(view)}`}
    </button>
  );
  return (
    <BenchFrame
      title={<PairingTitle pairing={pairing} />}
      ladder={<Ladder rungs={view.ladder} />}
      ticket={ticket}
      mat={
        sheetLarge || !newest || !newestLayout ? (
          <Mat
            key="sheet"
            label={`${stock.name}, ${pieceWords(view)} with its cards`}
            extent={{ x: 0, y: 0, width: stock.sheetWidthMm, height: stock.sheetDepthMm }}
            tools={toggle}
          >
            {() => <Sheet view={view} />}
          </Mat>
        ) : (
          <Mat
            key="card"
            label={`Photo of card ${newest.card.layout.code}, straightened`}
            extent={{
              x: -2,
              y: -2,
              width: newestLayout.widthMm + 4,
              height: newestLayout.heightMm + 4,
            }}
            ruled={!newestLayout.stations}
            tools={toggle}
            overlay={() => (
              <svg
                className={styles.map}
                viewBox={`0 0 ${stock.sheetWidthMm} ${stock.sheetDepthMm}`}
                role="group"
                aria-label="Map of the sheet"
              >
                <Sheet view={view} />
              </svg>
            )}
          >
            {() => (
              <a href={`/cards/${newest.card.id}`} aria-label={`card ${newest.card.layout.code}`} data-grab="">
                {newestLayout.stations && <CardPiece layout={newestLayout} colour={newest.card.madeFor.stock.colour} />}
                <CardPhotos layout={newestLayout} shown={newest.shown} />
              </a>
            )}
          </Mat>
        )
      }
    />
  );
}
