import { useState, type KeyboardEvent } from 'react';
import { cardKind } from '../../cards/registry';
import type { PhotoView } from '../../records/photo';
import { BenchFrame, Figures, TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { CardDrawing } from '../../components/CardDrawing';
import { CardPhotos, CardPiece } from '../../components/CardPhotos';
import { TextField } from '../../components/Field';
import { Mat } from '../../components/Mat';
import { Notice, ProblemNotice } from '../../components/Notice';
import { isAskedOf, nearOf, NOTE_FIELD, wordOf, type Ask, type Seen } from '../../core/card/asks';
import { levelWords } from '../../core/card/channels';
import type { Cell } from '../../core/card/layout';
import { gathered } from '../../core/card/station';
import { momentWords, type WorkSetup } from '../../core/card/work-setup';
import {
  asksForBend,
  asksForCount,
  asksForHoles,
  asksForMates,
  asksForPush,
  asksForTap,
  asksOn,
  COUNT,
  DROP,
  FIT,
  FLAP,
  MATE,
} from '../../core/card/usual-asks';
import { pairsOfCard } from '../../core/card/mates-of-card';
import { mixColours } from '../../core/color/mix';
import { formatAgainstBare, plainNumber } from '../../core/quantities/format';
import { LOW_CONFIDENCE, type CellReading } from '../../core/reading/observations';
import { burnedColourOf } from '../../core/stock/families';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { EyeQuestion } from './EyeAsk';
import { GaugeRow } from './GaugeRow';
import { hueOfCard } from './hue-words';
import { CellNumbers } from './CellNumbers';
import { MatesPart } from './MatesPart';
import { tonelessRows } from './line-words';
import { doubtReasons, placeWords, tonesWords } from './photo-words';
import { FaultChips, FaultMarks, FaultNotices } from './PhotoFaults';
import {
  doubtedOf,
  gaugeAfter,
  keyAction,
  nextDoubted,
  saidWords,
  sortedAsks,
  standingAnswer,
  type GaugePlace,
  type NewAnswer,
} from './look';
import { ReadingFigures } from './ReadingFigures';
import { SimulatedCaliper } from './SimulatedCaliper';
import { TapSheet } from './TapSheet';
import type { StageProps } from './stage-props';
import { bareThroughWords, holeWords, throughDoubtWords, throughWords } from '../../components/through-words';
import { isToneless } from '../../core/reading/lines/bars-of-cell';
import { clearedCells } from '../../core/reading/backlit/cleared';
import { holeOf } from '../../core/reading/backlit/holes';
import type { CellThrough } from '../../core/reading/backlit/observations';
import styles from './LookStage.module.css';

/** Stock around a card that the bench's pictures of a piece show. */
const BENCH_MARGIN_MM = 7;

/** What is seen of a burned card: what the photo shows, what the eye says by keys or touch, what a gauge reads. */
export function LookStage({ view, tabs, title, ladder, selected, onSelect, onChanged, onNext }: StageProps) {
  const { card, answers, reading, through } = view;
  const layout = gathered(card.layout);
  const { machine, stock } = card.madeFor;
  const asks = asksOn(cardKind(card.kind).asks, card.madeFor.stock);
  const { ofCell, ofCard, gauges } = sortedAsks(asks);
  const seen: Seen = { readings: reading?.cells ?? [], ...(through && { through: through.cells }), answers };
  const holes = asksForHoles(asks);
  const cleared = clearedCells(through?.cells ?? []);
  const lightWords = (cell: CellThrough): string =>
    holes ? holeWords(cell) : throughWords(cell, cleared.get(cell.cellIndex));
  const throughs = new Map(through?.cells.map((one) => [one.cellIndex, one]));
  const readings = new Map(seen.readings.map((cell) => [cell.cellIndex, cell]));
  const answered = new Set(answers.map((answer) => answer.cellIndex));
  const doubted = doubtedOf(seen);
  // A merged card of several places would show the faults of one of them alone.
  const faults = layout.stations ? [] : (reading?.faults ?? []);
  const toned = reading?.cells.filter(({ cellIndex }) => !isToneless(layout.cells[cellIndex]!)) ?? [];
  const hue = toned.length > 0 ? hueOfCard(toned, stock) : null;
  /** Whether there is something to show at a place of the photo. */
  const isPlaced = faults.some(({ area, line }) => area ?? line);
  const [undo, setUndo] = useState<readonly NewAnswer[]>([]);
  const [showNumbers, setShowNumbers] = useState(true);
  const [showFaults, setShowFaults] = useState(true);
  const [lit, setLit] = useState(false);
  const [litReady, setLitReady] = useState(false);
  const [showThrough, setShowThrough] = useState(reading === null && through !== null);
  const backlit = showThrough && through !== null;
  const faultsShown = isPlaced && showFaults && !lit && !backlit;
  const onBench = view.burns.some((burn) => burn.place === 'bench' && burn.linesDone > 0);
  const action = useAction();
  const taps = asksForTap(asks);
  const pushes = asksForPush(asks);
  const byHand = asks.filter(({ field }) => [DROP.field, FIT.field, FLAP.field, COUNT.field].includes(field));
  const mates = asksForMates(asks);
  const does = mates
    ? 'mate'
    : asksForCount(asks)
      ? 'count'
      : asksForBend(asks)
        ? 'bend'
        : taps && pushes
          ? 'both'
          : taps
            ? 'tap'
            : 'push';
  const isOpen = (ask: Ask): boolean =>
    layout.order.some((index) => isAskedOf(ask, layout.cells[index]!) && wordOf(seen, ask.field, index) === null);

  const handHasLeft = mates ? pairsOfCard(layout, seen).some(({ fit }) => fit === null) : byHand.some(isOpen);

  const put = (answer: NewAnswer): Promise<void> =>
    send(`/api/cards/${card.id}/answers`, { method: 'PUT', json: answer }).then(onChanged);
  const say = (field: string, cellIndex: number | null, value: string | number | null, repeat = 0): void => {
    const answer = { field, cellIndex, repeat, value };
    setUndo([...undo, standingAnswer(answers, answer)]);
    action.run(() => put(answer));
  };
  const takeBack = (): void => {
    const last = undo.at(-1);
    if (!last) return;
    setUndo(undo.slice(0, -1));
    if (last.cellIndex !== null) onSelect(last.cellIndex);
    action.run(() => put(last));
  };
  const clear = (cellIndex: number): void => {
    const own = answers.filter((answer) => answer.cellIndex === cellIndex);
    setUndo([...undo, ...own]);
    action.run(async () => {
      for (const answer of own) await put({ ...answer, value: null });
    });
  };
  const onCellKey = (event: KeyboardEvent, cellIndex: number): void => {
    const pressed = keyAction(event, askedOf(ofCell, layout.cells[cellIndex]!));
    if (pressed === null) return;
    event.preventDefault();
    if (pressed.do === 'undo') takeBack();
    else if (pressed.do === 'clear') clear(cellIndex);
    else if (pressed.do === 'next') onNext();
    else for (const { field, value } of pressed.answers) say(field, cellIndex, value);
  };

  // A card of one cell leaves nothing to choose.
  const looked = selected ?? (layout.cells.length === 1 ? 0 : null);
  const cell = looked === null ? undefined : layout.cells[looked];
  const shown = looked === null ? undefined : readings.get(looked);
  const shownThrough = looked === null ? undefined : throughs.get(looked);
  const goToGaugeAfter = (place: GaugePlace): void => {
    const next = gaugeAfter(place, gauges, layout);
    if (!next) return;
    const focus = (): void =>
      document.querySelector<HTMLInputElement>(`[data-gauge="${next.field} ${next.repeat}"]`)?.focus();
    if (next.cellIndex === place.cellIndex) return focus();
    onSelect(next.cellIndex);
    // The fields of the next cell are there after the next drawing.
    requestAnimationFrame(() => requestAnimationFrame(focus));
  };

  const readPhoto = view.photos.find((photo) => photo.id === reading?.photoId);

  const ticket = (
    <>
      {tabs}
      <TicketPart title={reading ? 'What the photo shows' : 'What you see'}>
        {reading && (
          <Figures
            rows={[
              ['Cells read', reading.cells.length],
              ['Placed by', placeWords(reading.markers, Boolean(readPhoto?.corners))],
              ...(reading.photoIds.length > 1 ? [['Photos', `${reading.photoIds.length}, merged`] as const] : []),
              ['Tones', tonesWords(reading.tones)],
              ...(hue ? [['Hue', hue.words] as const] : []),
              ['Read in', `${plainNumber(reading.tookS, 2)} s`],
            ]}
          />
        )}
        {through && (
          <Figures
            rows={[
              ['On the light table', `${through.cells.length} cells`],
              ...(through.photoIds.length > 1 ? [['Photos there', `${through.photoIds.length}, merged`] as const] : []),
              ...(holes
                ? [['Open', `${through.cells.filter((one) => holeOf(one) === 'open').length}`] as const]
                : [['Bare stock lets through', bareThroughWords(through)] as const]),
            ]}
          />
        )}
        <FaultNotices faults={faults} layout={layout} />
        {doubted.length > 0 && (
          <Notice
            look="straw"
            title={doubted.length === 1 ? 'One cell needs your eye' : `${doubted.length} cells need your eye`}
          >
            <p>Framed in dashes: the photo alone cannot be trusted there. Look at the piece and say.</p>
            <ul className={styles.reasons}>
              {doubtReasons(doubted).map(({ count, words }) => (
                <li key={words}>
                  {count}: {words}.
                </li>
              ))}
            </ul>
            <Button onClick={() => onSelect(nextDoubted(doubted, selected)!)}>Next of them</Button>
          </Notice>
        )}
        {reading && doubted.length === 0 && <Notice>No cell is in doubt.</Notice>}
        {ofCard.map((ask) => (
          <EyeQuestion
            key={ask.field}
            ask={ask}
            seen={seen}
            cellIndex={null}
            onAnswer={(value) => say(ask.field, null, value)}
          />
        ))}
        {onBench && handHasLeft && <TapSheet cardId={card.id} does={does} onTapped={onChanged} />}
        <Button look="main" disabled={!reading && !through && answers.length === 0} onClick={onNext}>
          See what it says
        </Button>
      </TicketPart>
      {mates && (
        <MatesPart
          ask={MATE}
          layout={layout}
          seen={seen}
          liked={machine.likedUnits}
          onAnswer={({ cellIndex, other }, value) => say(MATE.field, cellIndex, value, other)}
          onUndo={takeBack}
        />
      )}
      {cell ? (
        <TicketPart title={`Cell ${cell.index + 1}: ${levelWords(cell.levels, machine.likedUnits).join(', ')}`}>
          {askedOf(ofCell, cell).map((ask) => (
            <EyeQuestion
              key={ask.field}
              ask={ask}
              seen={seen}
              cellIndex={cell.index}
              onAnswer={(value) => say(ask.field, cell.index, value)}
            />
          ))}
          {askedOf(gauges, cell).map((ask) => (
            <div key={ask.field} role="group" aria-label={ask.question} className={styles.ask}>
              <p>{ask.question}</p>
              <div className={styles.gauges}>
                {Array.from({ length: ask.repeats }, (_, repeat) => {
                  const place = { cellIndex: cell.index, field: ask.field, repeat };
                  return (
                    <GaugeRow
                      key={`${cell.index} ${ask.field} ${repeat}`}
                      ask={ask}
                      repeat={repeat}
                      nearMm={nearOf(ask, cell)}
                      value={standingAnswer(answers, place).value as number | null}
                      onAnswer={(value) => say(ask.field, cell.index, value, repeat)}
                      onEnter={() => goToGaugeAfter(place)}
                    />
                  );
                })}
              </div>
              <SimulatedCaliper view={view} field={ask.field} cellIndex={cell.index} />
            </div>
          ))}
          <TextField
            key={`note ${cell.index}`}
            label="Note"
            defaultValue={wordOf(seen, NOTE_FIELD, cell.index) ?? ''}
            maxLength={500}
            onBlur={(event) => {
              const text = event.target.value.trim();
              if (text !== (wordOf(seen, NOTE_FIELD, cell.index) ?? ''))
                say(NOTE_FIELD, cell.index, text === '' ? null : text);
            }}
          />
          <div className={styles.pair}>
            <Button shortcut="U" disabled={undo.length === 0} onClick={takeBack}>
              Undo
            </Button>
            <Button shortcut="0" disabled={!answered.has(cell.index)} onClick={() => clear(cell.index)}>
              Clear
            </Button>
          </div>
          <ProblemNotice problem={action.problem} />
          {shownThrough && (
            <>
              <Figures
                rows={[
                  ['Light through', lightWords(shownThrough)],
                  ['Darkest tenth', `${plainNumber(100 * shownThrough.darkestTenth, 2)} %`],
                ]}
              />
              {shownThrough.doubts.length > 0 && (
                <Notice look="straw">In doubt on the light table: {throughDoubtWords(shownThrough)}.</Notice>
              )}
            </>
          )}
          {shown && isToneless(cell) ? (
            <Figures rows={tonelessRows(cell, shown, machine.likedUnits)} />
          ) : (
            shown && (
              <>
                <ReadingFigures cell={shown} stock={stock} liked={machine.likedUnits} />
                <a href={matchAddress(view.pairing.id, shown)}>What gives this tone elsewhere</a>
              </>
            )
          )}
        </TicketPart>
      ) : (
        <TicketPart>
          <FinishNotice setup={card.plan.setup} photo={readPhoto} />
          <p>Choose a cell on the mat. Arrows move; the keys shown on the buttons answer; U undoes, 0 clears.</p>
        </TicketPart>
      )}
    </>
  );

  return (
    <BenchFrame
      cardFirst
      title={title}
      ladder={ladder}
      ticket={ticket}
      mat={
        <Mat
          label={reading ? 'The straightened photo with its cells' : 'The card with its cells'}
          ruled={!layout.stations}
          extent={{ x: -2, y: -2, width: layout.widthMm + 4, height: layout.heightMm + 4 }}
          {...(faultsShown && { overlay: (drawn) => <FaultChips faults={faults} layout={layout} view={drawn} /> })}
          tools={
            <>
              {isPlaced && (
                <button type="button" aria-pressed={showFaults} onClick={() => setShowFaults(!showFaults)}>
                  Faults of the photo
                </button>
              )}
              <button type="button" aria-pressed={showNumbers} onClick={() => setShowNumbers(!showNumbers)}>
                Numbers
              </button>
              {through && (
                <button type="button" aria-pressed={showThrough} onClick={() => setShowThrough(!showThrough)}>
                  On the light table, %
                </button>
              )}
              {(gauges.length > 0 || byHand.length > 0 || mates) && onBench && (
                <button type="button" aria-pressed={lit} onClick={() => setLit(!lit)}>
                  {lit && !litReady ? 'Lighting up …' : 'Simulated light table'}
                </button>
              )}
            </>
          }
        >
          {() => (
            <>
              {((!reading && !backlit) || layout.stations) && <CardPiece layout={layout} colour={stock.colour} />}
              {backlit ? (
                <CardPhotos layout={layout} shown={[{ photoId: through.photoId, station: null }]} />
              ) : (
                reading && <CardPhotos layout={layout} shown={reading.shown} />
              )}
              {lit && (
                <image
                  href={`/api/cards/${card.id}/light-table`}
                  x={-BENCH_MARGIN_MM}
                  y={-BENCH_MARGIN_MM}
                  width={layout.widthMm + 2 * BENCH_MARGIN_MM}
                  height={layout.heightMm + 2 * BENCH_MARGIN_MM}
                  preserveAspectRatio="none"
                  onLoad={() => setLitReady(true)}
                />
              )}
              <CardDrawing
                layout={layout}
                marksVisible={!reading && !backlit && !(lit && litReady)}
                markColour={burnedColourOf(stock)}
                selected={selected}
                onSelect={onSelect}
                onCellKey={onCellKey}
                look={(drawn) => ({
                  fill:
                    reading || lit || backlit ? 'transparent' : mixColours(stock.colour, burnedColourOf(stock), 0.35),
                  ...(doubted.some(({ cellIndex }) => cellIndex === drawn.index) ? { ring: 'asked' as const } : {}),
                })}
                describe={(drawn) => {
                  const found = readings.get(drawn.index);
                  const words = levelWords(drawn.levels, machine.likedUnits);
                  const open = throughs.get(drawn.index);
                  if (open) words.push(`light through ${lightWords(open)}`);
                  if (found) {
                    const low = found.confidence < LOW_CONFIDENCE ? ', low confidence' : '';
                    words.push(
                      isToneless(drawn)
                        ? tonelessRows(drawn, found, machine.likedUnits)[0]!.join(' ')
                        : `${formatAgainstBare(found.lightness, stock.bareLightness)}${low}`,
                    );
                  }
                  return [...words, ...saidWords(asks, seen, drawn.index)].join(', ');
                }}
              />
              {faultsShown && <FaultMarks faults={faults} />}
              <CellNumbers
                layout={layout}
                asks={asks}
                seen={seen}
                readings={readings}
                throughs={backlit ? throughs : null}
                showNumbers={showNumbers}
                lit={lit && litReady}
              />
            </>
          )}
        </Mat>
      }
    />
  );
}

const askedOf = <Of extends Ask>(asks: readonly Of[], cell: Cell): Of[] => asks.filter((ask) => isAskedOf(ask, cell));

/** When the piece is to be looked at, and what is done to it first. */
function FinishNotice({ setup, photo }: { setup: WorkSetup; photo: PhotoView | undefined }) {
  const { finish, lookedAt } = setup;
  if (finish === 'none') return null;
  const when =
    lookedAt === 'both'
      ? `before and after it is ${finish}: answer by what you see in the end`
      : momentWords(setup, lookedAt);
  const read = momentWords(setup, photo?.finish ?? null);
  return (
    <Notice title="How it is looked at">
      Look {when}. {read && `What was read comes from a photo taken ${read}. `}Soot is brushed or blown off first, never
      rubbed in: rubbed soot reads as a darker mark.
    </Notice>
  );
}

/** Where benches are compared by what gives the tone of a cell on each. */
const matchAddress = (pairingId: number, { lightness, lightnessSigma }: CellReading): string =>
  `/compare?pairing=${pairingId}&lightness=${lightness.toFixed(1)}&sigma=${lightnessSigma.toFixed(2)}`;
