import { useMemo, useState } from 'react';
import { TicketPart } from '../../../components/BenchFrame';
import { SelectField } from '../../../components/Field';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { FitChart } from '../../../components/FitChart';
import { stepsOfPair } from '../../../core/card/mates-of-card';
import { FIT_WORDS, WANTED_FITS } from '../../../core/fit/fit-bounds';
import { nameOfMate } from '../../../core/joint/mates';
import { formatLength } from '../../../core/quantities/format';
import { findKnobs, USUAL_KNOBS_WISH, type KnobsWish, type TriedPair } from '../find';

const NAMES = { press: 'held by itself: pressed in', snug: 'snug by hand', slip: 'slipping in, no play' } as const;
const BEGINS = { press: 'Goes in up to', snug: 'Snug up to', slip: 'Slips in up to', loose: 'Loose up to' } as const;

/** How much tighter hole and part are drawn for each fit, in all, and how that may be shared. */
export default function KnobsFindingScreen(props: FindingProps) {
  const { card, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const [wish, setWish] = useState<KnobsWish>(USUAL_KNOBS_WISH);
  const finding = useMemo(
    () => findKnobs(card.layout, { readings: [], answers }, known, wish),
    [card, answers, known, wish],
  );
  const { pairs, mates, bounds, tighterMm, betweenMm, odd } = finding;
  const mm = (value: number): string => formatLength(Math.round(value * 1000) / 1000, liked, 3);
  const nameOf = (pair: TriedPair): string => {
    const { hole, part } = stepsOfPair(card.layout, pair);
    return `${nameOfMate('part', part)} in ${nameOfMate('hole', hole)}`;
  };
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this joint"
      ringed={[]}
      words={(cell) =>
        pairs
          .filter(({ cellIndex }) => cellIndex === cell.index)
          .map((pair) => `${nameOf(pair)} ${FIT_WORDS[pair.fit]}`)
          .join(', ')
      }
      rows={[
        ...(bounds && tighterMm !== null && betweenMm !== null && mates
          ? ([
              ['Shared by both', `part ${mm(tighterMm / 2)} a side larger, hole ${mm(tighterMm / 2)} a side smaller`],
              ['On the part alone', `${mm(tighterMm)} a side, ${mm(2 * tighterMm)} full width larger`],
              ['On the hole alone', `${mm(tighterMm)} a side, ${mm(2 * tighterMm)} full width smaller`],
              [
                'The cuts take',
                `${mm(mates.kerfMm.hole)} of the hole, ${mm(mates.kerfMm.part)} of the part, full width${mates.otherStock === null ? '' : ': two stocks'}`,
              ],
              [
                'Between them then',
                `${mm(betweenMm)} full width${betweenMm < 0 ? ': they press' : ''}, by these kerfs`,
              ],
              ...(['press', 'snug', 'slip', 'loose'] as const).map((fit): [string, string] => [
                BEGINS[fit],
                `${mm(-bounds.from[fit].atMm / 2)} ± ${mm(bounds.from[fit].sigmaMm)} a side in all`,
              ]),
            ] as [string, string][])
          : []),
        ...(odd.length > 0 ? [['Try again', odd.map(nameOf).join(', ')] as [string, string]] : []),
      ]}
      wish={{
        value: wish,
        fields: (
          <TicketPart title="What is wanted">
            <SelectField
              label="The part shall be"
              value={wish.fit}
              onChange={(event) => setWish({ fit: event.target.value as KnobsWish['fit'] })}
            >
              {WANTED_FITS.map((fit) => (
                <option key={fit} value={fit}>
                  {NAMES[fit]}
                </option>
              ))}
            </SelectField>
          </TicketPart>
        ),
      }}
      caption="Each point is one pair: what hole and part together are drawn tighter on every side, and how they went. The line is what is to be expected."
      chart={
        pairs.length > 0 && (
          <FitChart
            label="How each pair went together"
            across="drawn tighter a side in all, mm"
            tried={pairs.map(({ tighterMm: x, fit, cellIndex }) => ({ x, fit, cellIndex }))}
            bounds={bounds}
            clearanceAt={(x) => -2 * x}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
