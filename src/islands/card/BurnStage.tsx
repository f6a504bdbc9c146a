import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { cardKind } from '../../cards/registry';
import { BenchFrame, Figures, TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { CardDrawing } from '../../components/CardDrawing';
import { CheckField } from '../../components/Field';
import { Mat } from '../../components/Mat';
import { Notice, ProblemNotice } from '../../components/Notice';
import { paceOf } from '../../core/book/motion-facts';
import { levelWords } from '../../core/card/channels';
import { estimateCard } from '../../core/card/estimate';
import type { Cell } from '../../core/card/layout';
import { asksForCount } from '../../core/card/usual-asks';
import { mixColours } from '../../core/color/mix';
import { formatDuration, formatLength } from '../../core/quantities/format';
import { sureOfPace } from '../../core/motion/pace';
import { burnedColourOf } from '../../core/stock/families';
import type { BurnView } from '../../records/burn';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { endWords, partWords, shareDone } from './burn-words';
import { EyeQuestion } from './EyeAsk';
import { FilesPart } from './FilesPart';
import { HandPart } from './HandPart';
import { OwnClock, OwnStart, OwnTime } from './OwnBurn';
import { RoundPart, RoundStart } from './RoundPart';
import type { StageProps } from './stage-props';
import styles from './BurnStage.module.css';

export function BurnStage({ view, tabs, title, ladder, selected, onSelect, onChanged, onNext }: StageProps) {
  const { card, search, known, round } = view;
  const inRound = round?.cards.filter(({ stage }) => stage === 'planned') ?? [];
  const isRound = round !== null && inRound.length > 0 && !round.cards.some(({ stage }) => stage === 'burning');
  // Ticked once, for all that is burned in one go.
  const cautions = isRound ? round.cautions : view.cautions;
  const { machine, stock } = card.madeFor;
  const liked = machine.likedUnits;
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const action = useAction();
  const pace = paceOf(known.facts);
  const estimatedS = useMemo(() => estimateCard(card.layout, machine, null, pace).totalS, [card.layout, machine, pace]);
  const newest = view.burns[0];
  const { data: burn, refetch } = useQuery({
    queryKey: ['burn', newest?.id],
    queryFn: () => send<BurnView>(`/api/burns/${newest!.id}`),
    enabled: newest !== undefined,
    // By its own state: the card’s view may hear of the end first.
    refetchInterval: ({ state }) => (state.data?.endedAt ? false : 300),
  });
  const open = burn !== undefined && burn.endedAt === null;
  const all = cautions.every((caution) => ticked.has(caution.code));

  const start = (place: 'bench' | 'own-machine', more: object = {}): Promise<void> =>
    send('/api/burns', { method: 'POST', json: { cardId: card.id, place, ticked: [...ticked], ...more } });
  const burnAll = (place: 'bench' | 'own-machine', more: object = {}, then?: () => void): void =>
    action.run(async () => {
      await start(place, more);
      // The check is made anew for each burn.
      setTicked(new Set());
      await onChanged();
      then?.();
    });
  const burnRound = (place: 'bench' | 'own-machine', tookS: number | null): void =>
    action.run(async () => {
      await send(`/api/rounds/${round!.id}/burns`, { method: 'POST', json: { place, ticked: [...ticked], tookS } });
      setTicked(new Set());
      await onChanged();
    });
  const tellTime = (path: 'end' | 'time', method: 'POST' | 'PUT', json: object, then?: () => void): void =>
    action.run(async () => {
      await send(`/api/burns/${newest!.id}/${path}`, { method, json });
      await Promise.all([onChanged(), refetch()]);
      then?.();
    });
  const burnNext = (place: 'bench' | 'own-machine'): void =>
    action.run(async () => {
      const added = await send<{ go: boolean; cellIndex: number }>(`/api/cards/${card.id}/next`, { method: 'POST' });
      // The check that was made holds for the patches of one search.
      if (added.go) await start(place, { cells: [added.cellIndex] });
      await onChanged();
    });
  const control = (json: object): void =>
    action.run(async () => {
      await send(`/api/burns/${newest!.id}/control`, { method: 'POST', json });
      await onChanged();
    });

  const progress = burn?.progress ?? null;
  const done = new Set(progress ? progress.cellsDone : view.burnedCells);
  const share = burn ? shareDone(burn, progress) : 0;
  const burnedColour = burnedColourOf(stock);
  const look = (cell: Cell) => ({
    fill: done.has(cell.index)
      ? mixColours(stock.colour, burnedColour, 0.8)
      : mixColours(stock.colour, '#ffffff', 0.18),
  });
  const left = progress && burn ? Math.max(0, burn.estimatedS - progress.elapsedS) : 0;

  const check = (
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
  );

  const ticket = (
    <>
      {tabs}
      {round && <RoundPart round={round} cardId={card.id} />}
      {open && burn?.place === 'own-machine' ? (
        <>
          <OwnClock
            burn={burn}
            busy={action.busy}
            onEnd={(end) => tellTime('end', 'POST', end, end.status === 'done' ? onNext : undefined)}
          />
          <ProblemNotice problem={action.problem} />
        </>
      ) : open && burn ? (
        <>
          {progress?.hand && (
            <HandPart
              hand={progress.hand}
              busy={action.busy}
              machine={machine}
              {...(asksForCount(cardKind(card.kind).asks) && { tap: { view, onTapped: onChanged } })}
              onDone={(focusOffsetMm) => control({ action: 'proceed', focusOffsetMm })}
            />
          )}
          <TicketPart
            title={progress?.hand ? 'Waiting for your hand' : burn.status === 'paused' ? 'Paused' : 'Burning'}
          >
            <progress className={styles.progress} max={1} value={share} aria-label="Burn progress" />
            <Figures
              rows={[
                ['Now', progress ? partWords(progress) : '…'],
                ['Machine time', formatDuration(progress?.elapsedS ?? 0)],
                ['Left, by estimate', formatDuration(left)],
                ['Program', `line ${progress?.linesDone ?? burn.linesDone} of ${burn.linesTotal}`],
              ]}
            />
            <p className={styles.pace}>
              The simulated bench burns faster than life. Strongest cells come last: watch them.
            </p>
            <ProblemNotice problem={action.problem} />
            <div className={styles.row}>
              <Button
                disabled={progress?.hand != null}
                onClick={() => control({ action: burn.status === 'paused' ? 'resume' : 'pause' })}
                busy={action.busy}
              >
                {burn.status === 'paused' ? 'Go on' : 'Pause'}
              </Button>
              <Button look="heat" onClick={() => control({ action: 'stop' })} busy={action.busy}>
                Stop
              </Button>
            </div>
          </TicketPart>
        </>
      ) : search ? (
        <SearchPart
          view={view}
          ready={all}
          busy={action.busy}
          onBurn={burnNext}
          onNext={onNext}
          onAnswer={(field, cellIndex, value) =>
            action.run(async () => {
              const json = { field, cellIndex, repeat: 0, value };
              await send(`/api/cards/${card.id}/answers`, { method: 'PUT', json });
              await onChanged();
            })
          }
        />
      ) : (
        burn && (
          <TicketPart title="Last burn">
            <Notice look={burn.status === 'done' ? 'plain' : 'straw'}>{endWords(burn)}</Notice>
            {burn.place === 'own-machine' && (
              <OwnTime
                key={burn.actualS}
                burn={burn}
                busy={action.busy}
                onTime={(tookS) => tellTime('time', 'PUT', { tookS })}
              />
            )}
            <Button look="main" onClick={onNext}>
              Go on to what came of it
            </Button>
          </TicketPart>
        )
      )}
      {!open && (!search || search.go) && (
        <TicketPart title={isRound ? `Before the burn of ${inRound.length} cards` : 'Before the burn'}>
          <Figures
            rows={[
              ...(isRound
                ? [['Burn time of all', formatDuration(inRound.reduce((sum, one) => sum + one.estimatedS, 0))] as const]
                : []),
              ...(search
                ? []
                : [
                    [isRound ? 'Of this card' : 'Burn time', formatDuration(estimatedS)] as const,
                    ['How sure', sureOfPace(pace)] as const,
                  ]),
              [
                'On the sheet',
                `${formatLength(card.sheetXMm, liked, 3)} from the left, ${formatLength(card.sheetYMm, liked, 3)} from the rear`,
              ],
            ]}
          />
          {view.burnedCells.length > 0 && !search && !isRound && (
            <Notice look="straw">
              This card was burned before. Burned again it is another piece: photos and answers of the earlier one are
              kept, but tell nothing of the new one.
            </Notice>
          )}
          {check}
          <ProblemNotice problem={action.problem} />
          {isRound && <RoundStart round={round} ready={all} busy={action.busy} onBurn={burnRound} />}
          {!search && (
            <>
              <Button
                look={isRound ? 'plain' : 'heat'}
                disabled={!all}
                busy={action.busy}
                onClick={() => burnAll('bench')}
              >
                {isRound ? 'Burn this card alone on the simulated bench' : 'Burn on the simulated bench'}
              </Button>
              {!isRound && (
                <OwnStart
                  ready={all}
                  busy={action.busy}
                  onClock={() => burnAll('own-machine', { clock: true })}
                  onOver={(tookS) => burnAll('own-machine', { tookS }, onNext)}
                />
              )}
            </>
          )}
        </TicketPart>
      )}
      <FilesPart card={card} />
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
          extent={{ x: -3, y: -3, width: card.layout.widthMm + 6, height: card.layout.heightMm + 6 }}
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
                describe={(cell) => {
                  const turn = `burns ${card.layout.order.indexOf(cell.index) + 1} of ${card.layout.order.length}`;
                  const words = [...levelWords(cell.levels, machine.likedUnits), turn];
                  if (done.has(cell.index)) words.push('burned');
                  return words.join(', ');
                }}
              />
              {progress && (
                <circle
                  className={styles.head}
                  r={7 / board.pxPerMm}
                  cx={progress.headXMm - card.bed.leftMm}
                  cy={machine.bedDepthMm - progress.headYMm - card.bed.rearMm}
                />
              )}
            </>
          )}
        </Mat>
      }
    />
  );
}

/** One patch after another: what the last one showed, and what to burn next. */
function SearchPart({
  view,
  ready,
  busy,
  onBurn,
  onNext,
  onAnswer,
}: {
  view: StageProps['view'];
  ready: boolean;
  busy: boolean;
  onBurn: (place: 'bench' | 'own-machine') => void;
  onNext: () => void;
  onAnswer: (field: string, cellIndex: number, value: string) => void;
}) {
  const { card, search, answers, whys } = view;
  const { layout } = card;
  const { machine } = card.madeFor;
  const asks = cardKind(card.kind).asks.filter((ask) => ask.by === 'eye' && ask.of === 'cell');
  const last = layout.cells.at(-1);
  const lastBurned = last !== undefined && view.burnedCells.includes(last.index);
  const open = last && lastBurned && !answers.some((answer) => answer.cellIndex === last.index);
  if (!search) return null;
  return (
    <>
      {last && lastBurned && (
        <TicketPart title={`Patch ${last.index + 1}: ${levelWords(last.levels, machine.likedUnits).join(', ')}`}>
          {asks.map(
            (ask) =>
              ask.by === 'eye' && (
                <EyeQuestion
                  key={ask.field}
                  ask={ask}
                  seen={{ readings: [], answers }}
                  cellIndex={last.index}
                  onAnswer={(value) => onAnswer(ask.field, last.index, value)}
                />
              ),
          )}
          {whys[last.index] && <p className={styles.pace}>{whys[last.index]}</p>}
        </TicketPart>
      )}
      {!open && (
        <TicketPart
          title={
            search.go ? `Next: ${levelWords(search.cell.levels, machine.likedUnits).join(', ')}` : 'The search is over'
          }
        >
          <p>{search.why}</p>
          {search.go ? (
            <>
              <Button look="heat" busy={busy} disabled={!ready} onClick={() => onBurn('bench')}>
                Burn this patch on the simulated bench
              </Button>
              <Button busy={busy} disabled={!ready} onClick={() => onBurn('own-machine')}>
                Burned it on my own machine
              </Button>
              {!ready && (
                <p className={styles.pace}>Tick the check below once; it holds for the patches of one search.</p>
              )}
            </>
          ) : (
            <Button look="main" onClick={onNext}>
              Go on to what came of it
            </Button>
          )}
        </TicketPart>
      )}
    </>
  );
}
