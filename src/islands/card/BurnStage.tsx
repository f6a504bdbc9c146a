import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { BurnView } from '../../app/burns';
import { BenchFrame, Figures, TicketPart } from '../../components/BenchFrame';
import { Button, LinkButton } from '../../components/Button';
import { CardDrawing } from '../../components/CardDrawing';
import { CheckField } from '../../components/Field';
import { Mat } from '../../components/Mat';
import { Notice, ProblemNotice } from '../../components/Notice';
import { mixColours } from '../../cards/grid/ui/predicted-colour';
import type { Cell } from '../../core/card/layout';
import { formatDuration, formatPower, formatSpeed, plainNumber } from '../../core/quantities/format';
import { familyOf } from '../../core/stock/families';
import { send, useAction } from '../api';
import type { StageProps } from './stage-props';
import styles from './BurnStage.module.css';

const EXPORTS = [
  ['svg', 'SVG'],
  ['gcode', 'G-code'],
  ['csv', 'Cells as CSV'],
  ['png', 'PNG preview'],
] as const;

const ENDINGS: Readonly<Record<string, string>> = {
  done: 'burned to the end',
  stopped: 'stopped by hand',
  interrupted: 'interrupted: the server or the bench ended it',
};

/** Cells that are burned already, from the part that burns now. */
function burnedCells(order: readonly number[], burn: BurnView): Set<number> {
  if (burn.status === 'done') return new Set(order);
  const now = /^cell (\d+)$/.exec(burn.progress?.part ?? '');
  return new Set(now ? order.slice(0, order.indexOf(Number(now[1])) + 1) : []);
}

export function BurnStage({ view, tabs, title, ladder, selected, onSelect, onChanged, onNext }: StageProps) {
  const { card, cautions } = view;
  const { machine, stock } = card.madeFor;
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const action = useAction();
  const newest = view.burns[0];
  const { data: burn } = useQuery({
    queryKey: ['burn', newest?.id],
    queryFn: () => send<BurnView>(`/api/burns/${newest!.id}`),
    enabled: newest !== undefined,
    // By its own state: the card’s view may hear of the end first.
    refetchInterval: ({ state }) => (state.data?.endedAt ? false : 300),
  });
  const open = burn !== undefined && burn.endedAt === null;
  const all = cautions.every((caution) => ticked.has(caution.code));

  const start = (place: 'bench' | 'own-machine'): void =>
    action.run(async () => {
      await send('/api/burns', { method: 'POST', json: { cardId: card.id, place, ticked: [...ticked] } });
      // The check is made anew for each burn.
      setTicked(new Set());
      await onChanged();
      if (place === 'own-machine') onNext();
    });
  const control = (what: 'pause' | 'resume' | 'stop'): void =>
    action.run(async () => {
      await send(`/api/burns/${newest!.id}/control`, { method: 'POST', json: { action: what } });
      await onChanged();
    });

  const done = burn ? burnedCells(card.layout.order, burn) : new Set<number>();
  const share = burn && burn.linesTotal > 0 ? (burn.progress?.linesDone ?? burn.linesDone) / burn.linesTotal : 0;
  const burnedColour = familyOf(stock.family).burnedColour;
  const look = (cell: Cell) => ({
    fill: done.has(cell.index)
      ? mixColours(stock.colour, burnedColour, 0.8)
      : mixColours(stock.colour, '#ffffff', 0.18),
  });
  const left = burn?.progress ? Math.max(0, burn.estimatedS - burn.progress.elapsedS) : 0;

  const ticket = (
    <>
      {tabs}
      {open && burn ? (
        <TicketPart title={burn.status === 'paused' ? 'Paused' : 'Burning'}>
          <progress className={styles.progress} max={1} value={share} aria-label="Burn progress" />
          <Figures
            rows={[
              ['Now', (burn.progress?.part ?? '…').replace(/^cell (\d+)$/, (_, index) => `cell ${Number(index) + 1}`)],
              ['Machine time', formatDuration(burn.progress?.elapsedS ?? 0)],
              ['Left, by estimate', formatDuration(left)],
              ['Lines acknowledged', `${burn.progress?.linesDone ?? burn.linesDone} of ${burn.linesTotal}`],
            ]}
          />
          <p className={styles.pace}>The bench burns faster than life. Strongest cells come last: watch them.</p>
          <div className={styles.row}>
            <Button onClick={() => control(burn.status === 'paused' ? 'resume' : 'pause')} busy={action.busy}>
              {burn.status === 'paused' ? 'Go on' : 'Pause'}
            </Button>
            <Button look="heat" onClick={() => control('stop')} busy={action.busy}>
              Stop
            </Button>
          </div>
        </TicketPart>
      ) : (
        <>
          {burn && (
            <TicketPart title="Last burn">
              <Notice look={burn.status === 'done' ? 'plain' : 'straw'}>
                {burn.place === 'own-machine'
                  ? 'Burned on your own machine.'
                  : `${(ENDINGS[burn.status] ?? '').charAt(0).toUpperCase()}${(ENDINGS[burn.status] ?? '').slice(1)}: ${formatDuration(burn.actualS ?? 0)}, estimated ${formatDuration(burn.estimatedS)}.`}
              </Notice>
              <Button look="main" onClick={onNext}>
                On to the photo
              </Button>
            </TicketPart>
          )}
          <TicketPart title="Before the burn">
            <Figures
              rows={[
                ['Burn time', formatDuration(card.estimatedS)],
                [
                  'On the sheet',
                  `${plainNumber(card.sheetXMm)} mm from the left, ${plainNumber(card.sheetYMm)} mm from the rear`,
                ],
              ]}
            />
            <fieldset className={styles.checks}>
              <legend>Tick each when it is true. Usual shop cautions; local codes come first.</legend>
              {cautions.map((caution) => (
                <div key={caution.code}>
                  <CheckField
                    label={caution.text}
                    checked={ticked.has(caution.code)}
                    onChange={(event) => {
                      const next = new Set(ticked);
                      if (event.target.checked) next.add(caution.code);
                      else next.delete(caution.code);
                      setTicked(next);
                    }}
                  />
                  <details>
                    <summary>more</summary>
                    {caution.more}
                  </details>
                </div>
              ))}
            </fieldset>
            <ProblemNotice problem={action.problem} />
            <Button look="heat" disabled={!all} busy={action.busy} onClick={() => start('bench')}>
              Burn on the bench
            </Button>
            <Button disabled={!all} busy={action.busy} onClick={() => start('own-machine')}>
              Burned on my own machine
            </Button>
          </TicketPart>
        </>
      )}
      <TicketPart title="Take it to the machine">
        <div className={styles.row}>
          {EXPORTS.map(([format, name]) => (
            <LinkButton key={format} href={`/api/cards/${card.id}/export/${format}`} download>
              {name}
            </LinkButton>
          ))}
        </div>
      </TicketPart>
    </>
  );

  return (
    <BenchFrame
      title={title}
      ladder={ladder}
      ticket={ticket}
      mat={
        <Mat
          label="The card"
          extent={{ x: -6, y: -6, width: card.layout.widthMm + 12, height: card.layout.heightMm + 12 }}
        >
          {(board) => (
            <>
              <rect width={card.layout.widthMm} height={card.layout.heightMm} fill={stock.colour} />
              <CardDrawing
                layout={card.layout}
                markColour={burnedColour}
                look={look}
                selected={selected}
                onSelect={onSelect}
                describe={(cell) =>
                  `${formatPower(cell.settings.powerFraction)}, ${formatSpeed(cell.settings.speedMmPerS, machine.likedUnits)}, burns ${card.layout.order.indexOf(cell.index) + 1} of ${card.layout.order.length}${done.has(cell.index) ? ', burned' : ''}`
                }
              />
              {burn?.progress && (
                <circle
                  className={styles.head}
                  r={7 / board.pxPerMm}
                  cx={burn.progress.headXMm - card.bed.leftMm}
                  cy={machine.bedDepthMm - burn.progress.headYMm - card.bed.rearMm}
                />
              )}
            </>
          )}
        </Mat>
      }
    />
  );
}
