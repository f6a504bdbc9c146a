import { useMemo, useState } from 'react';
import { BenchFrame, Figures, TicketPart } from '../components/BenchFrame';
import { Button, LinkButton } from '../components/Button';
import { CheckField } from '../components/Field';
import { Ladder } from '../components/Ladder';
import { Mat } from '../components/Mat';
import { Notice, ProblemNotice } from '../components/Notice';
import { PairingTitle } from '../components/PairingTitle';
import type { RungId } from '../core/book/rungs';
import { firstPieceFor, packed } from '../core/card/pack';
import { formatDuration, formatSize, plainNumber } from '../core/quantities/format';
import { outlinePath } from '../core/stock/outline';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import { useRequestKey } from '../views/use-request-key';
import type { RoundView } from '../views/views';
import places from '../components/SheetPlaces.module.css';
import styles from './RoundScreen.module.css';

/** Which of the cards that a pairing waits for are burned in one go: what they cost, and where they will lie. */
export function RoundScreen({ view }: { view: RoundView }) {
  const { pairing, offers, others, usedAreas } = view;
  const { stock, machine } = pairing;
  const [left, setLeft] = useState<ReadonlySet<RungId>>(new Set());
  const chosen = offers.filter(({ rung }) => !left.has(rung));
  const action = useAction();
  const key = useRequestKey(chosen.map(({ rung }) => rung));
  const placed = useMemo(
    () => (chosen.length === 0 ? null : firstPieceFor(stock, usedAreas, chosen)),
    [stock, usedAreas, chosen],
  );
  const enough = chosen.length >= 2;
  const areaMm2 = chosen.reduce((sum, { widthMm, heightMm }) => sum + widthMm * heightMm, 0);
  const seconds = chosen.reduce((sum, offer) => sum + offer.seconds, 0);
  const block = chosen.length > 0 ? packed(chosen) : null;

  const make = (): void =>
    action.run(async () => {
      const { cards } = await send<{ cards: { id: number }[] }>(`/api/pairings/${pairing.id}/rounds`, {
        method: 'POST',
        key,
        json: { rungs: chosen.map(({ rung }) => rung) },
      });
      window.location.assign(`/cards/${cards[0]!.id}#burn`);
    });

  const ticket = (
    <>
      <TicketPart title="Several cards in one go">
        {offers.length < 2 ? (
          <Notice>
            {offers.length === 0 ? 'No card waits here that could share a burn.' : 'Only one card waits here.'} Plan
            cards one by one from the bench.
          </Notice>
        ) : (
          <p>
            None of these starts from what another one says: they lie side by side, are burned in one go, and one photo
            reads them all.
          </p>
        )}
        <fieldset className={styles.offers}>
          <legend>Burn together</legend>
          {offers.map(({ rung, name, question, seconds: takesS, widthMm, heightMm }) => (
            <CheckField
              key={rung}
              label={name}
              hint={
                <span className={styles.cost}>
                  {question} {formatDuration(takesS)}, {formatSize(widthMm, heightMm, machine.likedUnits)}
                </span>
              }
              checked={!left.has(rung)}
              onChange={(event) => {
                const next = new Set(left);
                if (event.target.checked) next.delete(rung);
                else next.add(rung);
                setLeft(next);
              }}
            />
          ))}
        </fieldset>
        {block && (
          <Figures
            rows={[
              ['Burn time', formatDuration(seconds)],
              ['Stock', `${plainNumber(areaMm2 / 100, 2)} cm²`],
              ['In view of one photo', formatSize(block.widthMm, block.heightMm, machine.likedUnits)],
            ]}
          />
        )}
        {enough && placed === null && (
          <Notice look="straw" title="No room for all of them">
            No piece of {stock.name} has room for these {chosen.length} cards. Untick one, or plan them one by one.
          </Notice>
        )}
        <ProblemNotice problem={action.problem} />
        <Button look="main" disabled={!enough || placed === null} busy={action.busy} onClick={make}>
          {enough ? `Make these ${chosen.length} cards` : 'Choose two or more'}
        </Button>
        <LinkButton href={`/bench/${pairing.id}`}>Back to the bench</LinkButton>
      </TicketPart>
      {others.length > 0 && (
        <TicketPart title="By themselves, or later">
          <ul className={styles.others}>
            {others.map(({ name, why }) => (
              <li key={name}>
                <strong>{name}</strong>: {why}
              </li>
            ))}
          </ul>
        </TicketPart>
      )}
    </>
  );
  const piece = placed?.piece ?? Math.max(1, ...usedAreas.map((area) => area.piece));
  return (
    <BenchFrame
      title={<PairingTitle pairing={pairing} href={`/bench/${pairing.id}`} />}
      ladder={<Ladder rungs={view.ladder} />}
      ticket={ticket}
      mat={
        <Mat
          key={piece}
          label={`${stock.name}, ${stock.blanks ? 'blank' : 'sheet'} ${piece}: where the cards will lie`}
          extent={{ x: 0, y: 0, width: stock.sheetWidthMm, height: stock.sheetDepthMm }}
        >
          {() => (
            <>
              <path d={outlinePath(stock)} fill={stock.colour} className={places.sheet} />
              {usedAreas
                .filter((area) => area.piece === piece)
                .map((area) => (
                  <rect
                    key={`${area.cardId} ${area.x} ${area.y}`}
                    x={area.x}
                    y={area.y}
                    width={area.width}
                    height={area.height}
                    className={places.other}
                  >
                    <title>card {area.code}</title>
                  </rect>
                ))}
              {placed?.places.map(({ x, y }, index) => {
                const { rung, name, widthMm, heightMm } = chosen[index]!;
                return (
                  <g key={rung} data-planned={rung}>
                    <rect x={x} y={y} width={widthMm} height={heightMm} className={places.own} />
                    <text
                      x={x + widthMm / 2}
                      y={y + heightMm / 2}
                      className={places.name}
                      fontSize={Math.min(5, (1.7 * widthMm) / name.length)}
                    >
                      {name}
                    </text>
                  </g>
                );
              })}
            </>
          )}
        </Mat>
      }
    />
  );
}
