import { useMemo, useState } from 'react';
import { TicketPart } from '../../../components/BenchFrame';
import { CertaintyFields } from '../../../components/CertaintyFields';
import { CheckField, SelectField } from '../../../components/Field';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { quantityKinds } from '../../../components/quantity-kinds';
import { formatDuration, formatLength, formatPower, formatSpeed, plainNumber } from '../../../core/quantities/format';
import type { CutChoice, Want } from '../choices';
import { cutContour } from '../contour';
import { findCut, USUAL_CUT_WISH, type CutFinding, type CutWish } from '../find';
import styles from './Finding.module.css';

const WANT_NAMES: Readonly<Record<Want, string>> = { faster: 'Faster', cooler: 'Cooler', cleaner: 'Cleaner' };
const WORDS: Readonly<Record<string, string>> = {
  clean: 'dropped clean',
  charred: 'dropped, charred',
  tip: 'dropped, detail burned away',
  knife: 'a knife frees it',
  hangs: 'hangs',
  'not-through': 'not through',
  flare: 'flare-up',
};
const CURVE_STEPS = 24;
/** Where as many parts drop as hang. */
const HALF = 0.5;
/** Where a square dropped out of the sheet. */
const HOLE = '#26332f';

/** From which energy on squares drop, and the settings that drop parts as surely as is wished. */
export default function CutFindingScreen(props: FindingProps) {
  const { card, answers, known, through } = props.view;
  const { machine } = card.madeFor;
  const liked = machine.likedUnits;
  const kinds = useMemo(() => quantityKinds(liked, machine.ratedPowerW), [liked, machine]);
  const [wish, setWish] = useState<CutWish>(USUAL_CUT_WISH);
  const finding = useMemo(
    () => findCut(card.layout, { readings: [], answers, ...(through && { through: through.cells }) }, known, wish),
    [card, answers, through, known, wish],
  );
  const { squares, choices, chosen, heldUp, outlineMm, thicknessMm } = finding;
  const said = new Map(squares.map((square) => [square.cellIndex, square]));
  const points = squares.flatMap(({ cellIndex, energy, passes, drops }) =>
    // Squares of about one energy lie beside each other, a little apart by their passes.
    drops === null ? [] : [{ x: energy, y: drops ? 100 - (passes - 1) : passes - 1, cellIndex }],
  );
  const passes = chosen?.settings.passes ?? 1;
  const contours = useMemo(
    () =>
      finding.window
        ? [HALF, wish.certainty].map((certainty) =>
            cutContour(card.layout, finding.window!, { certainty, outlineMm: finding.outlineMm }, card.madeFor),
          )
        : [],
    [card, finding, wish.certainty],
  );
  const curve = useMemo(() => curveOf(finding, passes), [finding, passes]);
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={chosen ? 'Keep this cut' : null}
      ringed={chosen ? [chosen.cellIndex] : []}
      words={(cell) => {
        const square = said.get(cell.index);
        if (!square) return '';
        const edge = square.edge ? `, ${square.edge} edge` : '';
        if (square.byPhoto) return square.drops ? 'open on the light table' : 'shut on the light table';
        return `${WORDS[square.word] ?? square.word}${edge}${heldUp.includes(cell.index) ? ', held up inside' : ''}`;
      }}
      overlay={
        <g className={styles.contour} aria-hidden="true">
          {contours.map(({ certainty, line }) => (
            <polyline
              key={certainty}
              data-certainty={certainty}
              className={certainty === HALF ? styles.half : undefined}
              points={line.map(({ x, y }) => `${x},${y}`).join(' ')}
            />
          ))}
        </g>
      }
      ground={(cell) => (said.get(cell.index)?.drops ? HOLE : undefined)}
      wish={{
        value: wish,
        fields: (
          <TicketPart title="What is wanted">
            <SelectField
              label="Of all that drop as surely, the"
              value={wish.want}
              onChange={(event) => setWish({ ...wish, want: event.target.value as Want })}
            >
              {Object.entries(WANT_NAMES).map(([value, name]) => (
                <option key={value} value={value}>
                  {name.toLowerCase()} one
                </option>
              ))}
            </SelectField>
            <CertaintyFields
              certainty={wish.certainty}
              outlineMm={wish.outlineMm ?? outlineMm}
              kinds={kinds}
              onSet={(change) => setWish({ ...wish, ...change })}
            />
            <SelectField
              label="Edges may be"
              value={wish.edge}
              onChange={(event) => setWish({ ...wish, edge: event.target.value as CutWish['edge'] })}
            >
              <option value="any">of any colour</option>
              <option value="brown">brown at the most</option>
              <option value="pale">pale only</option>
            </SelectField>
            <CheckField
              label="A part that a knife frees will do"
              checked={wish.knife}
              onChange={(event) => setWish({ ...wish, knife: event.target.checked })}
            />
          </TicketPart>
        ),
      }}
      rows={[
        ...choices.map((choice) => [namesOf(choice), choiceWords(choice, liked)] as const),
        ...(chosen
          ? ([
              [
                'Good for sheets of',
                `${formatLength(thicknessMm.from, liked, 3)} to ${formatLength(thicknessMm.to, liked, 3)}`,
              ],
              [
                'Not at full power',
                `the cap of ${formatPower(machine.powerCap)} spares the source; equal energy cuts alike`,
              ],
            ] as const)
          : []),
        ...(heldUp.length > 0
          ? [['Held up inside', heldUp.map((index) => `square ${index + 1}`).join(', ')] as const]
          : []),
      ]}
      caption={`Dark squares of the card dropped; left of the line ${plainNumber(100 * wish.certainty, 3)} of 100 do and more, left of the dashed one every second. Each point is a square, above where it dropped, below where it did not. The curve is the share that drops${passes > 1 ? ` in ${passes} passes` : ''}, with its 95 % band.`}
      chart={
        points.length > 0 && (
          <PointChart
            label="Parts that drop over energy"
            x={{ title: 'J/mm for each mm of thickness', show: (value) => plainNumber(value, 2), log: true }}
            y={{
              title: 'parts that drop, %',
              show: (value) => (value < 0 || value > 100 ? '' : plainNumber(value, 3)),
              from: -4,
              to: 104,
            }}
            points={points}
            {...(curve.length > 0 ? { fit: curve } : {})}
            {...(chosen ? { pick: { x: chosen.energy } } : {})}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}

const namesOf = ({ wants }: CutChoice): string =>
  wants.map((want, at) => (at === 0 ? WANT_NAMES[want] : WANT_NAMES[want].toLowerCase())).join(', ');

function choiceWords({ settings, secondsPerMetre, edge }: CutChoice, liked: Parameters<typeof formatSpeed>[1]): string {
  const passes = settings.passes === 1 ? '' : `, ${settings.passes} passes`;
  return `${formatPower(settings.powerFraction)}, ${formatSpeed(settings.speedMmPerS, liked)}${passes}; 1 m takes ${formatDuration(secondsPerMetre)}${edge ? `; ${edge} edge` : ''}`;
}

/** The curve over all energies that were tried, evenly spaced in their logarithm. */
function curveOf({ window, squares, outlineMm }: CutFinding, passes: number) {
  if (!window) return [];
  const energies = squares.filter(({ drops }) => drops !== null).map(({ energy }) => energy);
  const [from, to] = [Math.min(...energies), Math.max(...energies)];
  return Array.from({ length: CURVE_STEPS + 1 }, (_, step) => {
    const x = from * (to / from) ** (step / CURVE_STEPS);
    const { chance, low, high } = window.chanceAt(x, passes, outlineMm);
    return { x, y: 100 * chance, low: 100 * low, high: 100 * high };
  });
}
