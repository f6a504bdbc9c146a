import { useEffect, useMemo, useState } from 'react';
import { BenchFrame, Figures, TicketPart } from '../../../components/BenchFrame';
import { Button } from '../../../components/Button';
import type { FindingProps } from '../../../components/finding-props';
import { KeepPart, pressKeep } from '../../../components/KeepPart';
import { CardDrawing } from '../../../components/CardDrawing';
import { Mat } from '../../../components/Mat';
import { Notice } from '../../../components/Notice';
import { provenShade, shadesOf } from '../../../core/book/shades';
import { ShadeField } from '../../../components/ShadeField';
import { quantityKinds } from '../../../components/quantity-kinds';
import { burnedColourOf } from '../../../core/stock/families';
import {
  formatAgainstBare,
  formatDuration,
  formatPower,
  formatSpeed,
  plainNumber,
} from '../../../core/quantities/format';
import { numbersOf } from '../../../core/card/asks';
import { levelWords } from '../../../core/card/channels';
import { mainBurn } from '../../../core/card/layout';
import { LOW_CONFIDENCE } from '../../../core/reading/observations';
import { findInGrid, type GridFinding, type GridWish } from '../find';
import { surfaceOfGrid, type Level } from '../surface';
import { ComparePair } from '../../../components/ComparePair';
import { LikedPart } from '../../../components/LikedPart';
import { bestOf, useComparing } from '../../../components/use-comparing';
import { FrontierChart } from './FrontierChart';
import { foretoldRows } from './foretold-rows';
import { SurfaceBoard } from './SurfaceBoard';
import { SurfacePart } from './SurfacePart';
import { WishPart } from './WishPart';
import { throughWords } from '../../../components/through-words';
import styles from './Finding.module.css';

/** More cells than these are too many for an eye to rank. */
const MOST_COMPARED = 8;

/** The cells that are compared: those that meet the wish and are nearest to its tone, in the card's order. */
function nearestToWish({ candidates, wantedLightness }: GridFinding): number[] {
  const off = (lightness: number): number => Math.abs(lightness - (wantedLightness ?? 0));
  return candidates
    .filter(({ meets }) => meets)
    .sort((a, b) => off(a.lightness) - off(b.lightness))
    .slice(0, MOST_COMPARED)
    .map(({ cellIndex }) => cellIndex)
    .sort((a, b) => a - b);
}

/** The picking screen of a grid: the darkness map in the stock's own colour, the wish, the frontier, one proposal. */
export default function GridFindingScreen(props: FindingProps) {
  const { view, selected, onSelect, tabs, title, ladder, onKept, onAnswered } = props;
  const { card, reading, through, answers, known } = view;
  const { machine, stock } = card.madeFor;
  const [wish, wishFor] = useState<GridWish>({ lightness: null, powerCap: machine.powerCap, pace: 'fast-and-strong' });
  // A page that asks for a tone names it in the address.
  useEffect(() => {
    const asked = Number(new URLSearchParams(window.location.search).get('lightness') ?? NaN);
    if (asked > 0 && asked < 100) wishFor((now) => ({ ...now, lightness: asked }));
  }, []);
  const shades = shadesOf(known.facts);
  // A card that proves a setting answers for the shade it was brought along as.
  const [shade, setShade] = useState(() => provenShade(known.facts, card.layout));
  const setWish = (next: GridWish): void => {
    wishFor(next);
    selectCell(null);
  };
  const kinds = useMemo(() => quantityKinds(machine.likedUnits, machine.ratedPowerW), [machine]);
  const seen = useMemo(
    () => ({ readings: reading?.cells ?? [], ...(through && { through: through.cells }), answers }),
    [reading, through, answers],
  );
  const surface = useMemo(() => surfaceOfGrid(card.layout, seen, stock.bareLightness), [card, seen, stock]);
  const finding = useMemo(
    () => findInGrid(card.layout, seen, known, wish, surface),
    [card, seen, known, wish, surface],
  );
  const [shows, setShows] = useState<'card' | 'surface' | 'pair'>('card');
  const nearest = useMemo(() => nearestToWish(finding), [finding]);
  const comparing = useComparing(
    card.id,
    nearest,
    useMemo(() => bestOf(nearest), [nearest]),
    seen,
    onAnswered,
  );
  const [place, setPlace] = useState<Level | null>(null);
  const choosePlace = (next: Level | null): void => {
    setPlace(next);
    if (next) onSelect(null);
  };
  const selectCell = (cellIndex: number | null): void => {
    setPlace(null);
    onSelect(cellIndex);
  };
  const candidates = new Map(finding.candidates.map((candidate) => [candidate.cellIndex, candidate]));
  const readings = new Map(reading?.cells.map((cell) => [cell.cellIndex, cell]));
  const proposed = finding.proposal?.cellIndex ?? null;
  const chosen = selected ?? proposed;
  const chosenCell = chosen === null ? undefined : card.layout.cells[chosen];
  const settings = chosenCell && mainBurn(chosenCell).settings;
  const chosenReading = chosen === null ? undefined : readings.get(chosen);
  const chosenCandidate = chosen === null ? undefined : candidates.get(chosen);
  const chosenThrough = through?.cells.find(({ cellIndex }) => cellIndex === chosen);
  const depths = chosen === null ? [] : numbersOf({ readings: [], answers }, 'depth', chosen);
  // Newest first in the view: turned round, a cell kept twice shows its newest number.
  const keptCells = new Map([...view.kept].reverse().map((kept) => [kept.cellIndex, kept.version]));

  const foretold = place && surface && foretoldRows(surface, place, machine);
  const meeting = new Set(finding.candidates.filter(({ meets }) => meets).map(({ cellIndex }) => cellIndex));

  const ticket = (
    <>
      {tabs}
      {finding.missing.length > 0 && <Notice look="straw">{finding.missing.join(' ')}</Notice>}
      {finding.remark && <Notice look="straw">{finding.remark}</Notice>}
      {finding.range && finding.stops && (
        <WishPart
          finding={finding}
          wish={wish}
          onWish={setWish}
          onStop={setShade}
          throughLight={through != null}
          kinds={kinds}
        />
      )}
      {finding.surface && surface && (
        <SurfacePart
          found={finding.surface}
          surface={surface}
          place={place}
          onPlace={choosePlace}
          machine={machine}
          kinds={kinds}
          shows={shows === 'surface' ? 'surface' : 'card'}
          onShow={setShows}
        />
      )}
      {finding.candidates.length > 0 && (
        <LikedPart
          liked={finding.liked}
          candidates={comparing.candidates}
          are="cells that meet the wish"
          tooFew="Fewer than two cells meet the wish: widen it to have some to compare."
          more={comparing.pair !== null}
          layout={card.layout}
          likedUnits={machine.likedUnits}
          problem={comparing.problem}
          onCompare={() => setShows('pair')}
        />
      )}
      {place && foretold && (
        <KeepPart
          title="A place between the cells"
          cardId={card.id}
          wish={wish}
          choice={{ at: { across: place.across, down: place.down }, shade }}
          kept={view.kept.length}
          words="Keep this to be proven"
          onKept={onKept}
        >
          <Figures rows={foretold} />
          <ShadeField shade={shade} onShade={setShade} known={shades} />
          <p className={styles.caption}>
            Nobody burned this yet: it goes into the book as foretold, and the next card proves it.
          </p>
        </KeepPart>
      )}
      {!place && chosenCell && settings && (
        <KeepPart
          title={chosen === proposed ? 'The proposed cell' : `Cell ${chosenCell.index + 1}, your pick`}
          cardId={card.id}
          wish={wish}
          choice={{ cellIndex: chosenCell.index, shade }}
          kept={view.kept.length}
          words={
            keptCells.has(chosenCell.index)
              ? `Keep again (is v${keptCells.get(chosenCell.index)})`
              : 'Keep this setting'
          }
          disabled={chosenCell.leftOut}
          onKept={onKept}
        >
          <Figures
            rows={[
              ['Power', formatPower(settings.powerFraction)],
              ['Speed', formatSpeed(settings.speedMmPerS, machine.likedUnits)],
              ['Line interval', kinds.interval.format(settings.intervalMm)],
              [
                'Tone',
                chosenReading
                  ? `${formatAgainstBare(chosenReading.lightness, stock.bareLightness)} ± ${plainNumber(2 * chosenReading.lightnessSigma, 2)}`
                  : 'not read',
              ],
              ...(depths.length > 0
                ? [['Depth', `${plainNumber(depths.reduce((sum, mm) => sum + mm, 0) / depths.length, 3)} mm`] as const]
                : []),
              ...(chosenThrough
                ? [['Light through', throughWords(chosenThrough, chosenCandidate?.cleared)] as const]
                : []),
              ['10 × 10 cm take', chosenCandidate ? formatDuration(chosenCandidate.timeS) : '–'],
            ]}
          />
          <ShadeField shade={shade} onShade={setShade} known={shades} />
          {chosenReading && chosenReading.confidence < LOW_CONFIDENCE && (
            <Notice look="straw">Read with low confidence: look at the piece before you keep it.</Notice>
          )}
        </KeepPart>
      )}
      {finding.candidates.length > 0 && (
        <TicketPart title="Tone against time">
          <FrontierChart finding={finding} selected={chosen} onSelect={selectCell} />
          <p className={styles.caption}>
            Each point is a cell; the line joins those that no other beats in both contrast and time for 10 × 10 cm.
          </p>
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
        shows === 'pair' && comparing.pair ? (
          <ComparePair
            layout={card.layout}
            question="Which is better?"
            pair={comparing.pair}
            photo={reading ? `/api/photos/${reading.photoId}/images/straightened` : null}
            stockColour={stock.colour}
            wordsOf={(cell) => levelWords(cell.levels, machine.likedUnits).join(', ')}
            busy={comparing.busy}
            onAnswer={comparing.answer}
            onUndo={comparing.undo}
            onClose={() => setShows('card')}
          />
        ) : shows === 'surface' && surface ? (
          <SurfaceBoard
            surface={surface}
            layout={card.layout}
            readings={reading?.cells ?? []}
            stockColour={stock.colour}
            burnedColour={burnedColourOf(stock)}
            liked={machine.likedUnits}
            wanted={finding.wantedLightness}
            place={place ?? finding.surface?.foretold ?? null}
            onPlace={choosePlace}
            meeting={meeting}
            tools={<Button onClick={() => setShows('card')}>Show the card</Button>}
          />
        ) : (
          <Mat
            label="Darkness map of the card"
            tools={
              surface && (
                <button type="button" data-show-surface="" onClick={() => setShows('surface')}>
                  Show the surface
                </button>
              )
            }
            extent={{ x: -3, y: -3, width: card.layout.widthMm + 6, height: card.layout.heightMm + 6 }}
            onKeyDown={(event) => {
              const onCell = (event.target as Element).hasAttribute('data-cell');
              if (event.key.toLowerCase() === 'k' || (event.key === 'Enter' && onCell)) pressKeep();
              if (event.key === 'Escape') selectCell(null);
            }}
          >
            {() => (
              <>
                <rect width={card.layout.widthMm} height={card.layout.heightMm} fill={stock.colour} />
                <CardDrawing
                  layout={card.layout}
                  markColour={burnedColourOf(stock)}
                  selected={selected}
                  onSelect={selectCell}
                  look={(cell) => ({
                    fill: readings.get(cell.index)?.colour ?? stock.colour,
                    ...(cell.index === proposed
                      ? { ring: 'proposed' as const }
                      : keptCells.has(cell.index)
                        ? { ring: 'kept' as const }
                        : candidates.get(cell.index)?.meets
                          ? { ring: 'meets' as const }
                          : {}),
                  })}
                  describe={(cell) => {
                    const seen = readings.get(cell.index);
                    const words = levelWords(cell.levels, machine.likedUnits);
                    if (seen) words.push(formatAgainstBare(seen.lightness, stock.bareLightness));
                    if (candidates.get(cell.index)?.meets) words.push('meets the wish');
                    if (cell.index === proposed) words.push('proposed');
                    return words.join(', ');
                  }}
                />
              </>
            )}
          </Mat>
        )
      }
    />
  );
}
