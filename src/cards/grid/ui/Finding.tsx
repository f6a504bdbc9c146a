import { useMemo, useState } from 'react';
import { BenchFrame, Figures, TicketPart } from '../../../components/BenchFrame';
import { Button } from '../../../components/Button';
import type { FindingProps } from '../../../components/finding-props';
import { KeepPart, pressKeep } from '../../../components/KeepPart';
import { CardDrawing } from '../../../components/CardDrawing';
import { CheckField, SelectField } from '../../../components/Field';
import { Mat } from '../../../components/Mat';
import { Notice } from '../../../components/Notice';
import { QuantityField } from '../../../components/QuantityField';
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
import { findInGrid, type DarknessStop, type GridWish, type Pace } from '../find';
import { FrontierChart } from './FrontierChart';
import { throughWords } from '../../../components/through-words';
import styles from './Finding.module.css';

const STOPS: readonly DarknessStop[] = ['weak', 'medium', 'strong'];

/** The picking screen of a grid: the darkness map in the stock's own colour, the wish, the frontier, one proposal. */
export default function GridFindingScreen({ view, selected, onSelect, tabs, title, ladder, onKept }: FindingProps) {
  const { card, reading, through, answers, known } = view;
  const { machine, stock } = card.madeFor;
  const [wish, wishFor] = useState<GridWish>({ lightness: null, powerCap: machine.powerCap, pace: 'fast-and-strong' });
  const shades = shadesOf(known.facts);
  // A card that proves a setting answers for the shade it was brought along as.
  const [shade, setShade] = useState(() => provenShade(known.facts, card.layout));
  const setWish = (next: GridWish): void => {
    wishFor(next);
    onSelect(null);
  };
  const kinds = useMemo(() => quantityKinds(machine.likedUnits, machine.ratedPowerW), [machine]);
  const finding = useMemo(
    () =>
      findInGrid(
        card.layout,
        { readings: reading?.cells ?? [], ...(through && { through: through.cells }), answers },
        known,
        wish,
      ),
    [card, reading, through, answers, known, wish],
  );
  const darkens = finding.range !== null && finding.range.bare > finding.range.strongest;
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

  const ticket = (
    <>
      {tabs}
      {finding.missing.length > 0 && <Notice look="straw">{finding.missing.join(' ')}</Notice>}
      {finding.remark && <Notice look="straw">{finding.remark}</Notice>}
      {finding.range && finding.stops && (
        <TicketPart title="What is wanted">
          <div className={styles.stops} role="group" aria-label="Strength of the mark">
            {STOPS.map((stop) => (
              <Button
                key={stop}
                aria-pressed={Math.abs((finding.wantedLightness ?? 0) - finding.stops![stop]) < 0.5}
                onClick={() => {
                  setWish({ ...wish, lightness: finding.stops![stop] });
                  setShade(stop);
                }}
              >
                {stop}
              </Button>
            ))}
          </div>
          <label className={styles.slider}>
            <span>
              Wanted <strong>{formatAgainstBare(finding.wantedLightness ?? 0, finding.range.bare)}</strong>
            </span>
            <input
              type="range"
              min={Math.min(finding.range.bare, finding.range.strongest)}
              max={Math.max(finding.range.bare, finding.range.strongest)}
              step="0.5"
              value={finding.wantedLightness ?? 0}
              onChange={(event) => setWish({ ...wish, lightness: Number(event.target.value) })}
            />
            <span className={styles.ends}>
              <span>{darkens ? 'strongest cell' : 'bare stock'}</span>
              <span>{darkens ? 'bare stock' : 'strongest cell'}</span>
            </span>
          </label>
          <QuantityField
            label="Power cap"
            kind={kinds.power}
            value={wish.powerCap}
            onChange={(powerCap) =>
              powerCap !== null && powerCap > 0 && setWish({ ...wish, powerCap: Math.min(1, powerCap) })
            }
          />
          <SelectField
            label="Pace"
            value={wish.pace}
            onChange={(event) => setWish({ ...wish, pace: event.target.value as Pace })}
          >
            <option value="fast-and-strong">fast and strong: least time</option>
            <option value="slow-and-low">slow and low: minimum power</option>
          </SelectField>
          {through && (
            <CheckField
              label="Only cells whose coat is off"
              hint="by the light table, whatever their tone"
              checked={wish.cleared ?? false}
              onChange={(event) => setWish({ ...wish, cleared: event.target.checked })}
            />
          )}
          <Notice
            look={finding.proposal ? 'plain' : 'straw'}
            title={finding.proposal ? 'Proposal' : 'No cell meets this'}
          >
            {finding.proposal?.reason ??
              (wish.cleared ? finding.says : null) ??
              'Widen the wish, or pick a cell by eye. Cells marked low-confidence count once you have graded them 4 or 5.'}
          </Notice>
        </TicketPart>
      )}
      {chosenCell && settings && (
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
          <FrontierChart finding={finding} selected={chosen} onSelect={onSelect} />
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
        <Mat
          label="Darkness map of the card"
          extent={{ x: -3, y: -3, width: card.layout.widthMm + 6, height: card.layout.heightMm + 6 }}
          onKeyDown={(event) => {
            const onCell = (event.target as Element).hasAttribute('data-cell');
            if (event.key.toLowerCase() === 'k' || (event.key === 'Enter' && onCell)) pressKeep();
            if (event.key === 'Escape') onSelect(null);
          }}
        >
          {() => (
            <>
              <rect width={card.layout.widthMm} height={card.layout.heightMm} fill={stock.colour} />
              <CardDrawing
                layout={card.layout}
                markColour={burnedColourOf(stock)}
                selected={selected}
                onSelect={onSelect}
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
      }
    />
  );
}
