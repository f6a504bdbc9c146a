import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { formatPower, plainNumber } from '../../../core/quantities/format';
import { checkedWords, findSheetCheck, HOLDS_WORDS, percent } from '../find';
import { SourcePart } from './SourcePart';

const KEEP = { holds: 'Keep it as checked today', shift: 'Keep the shifted setting', again: null } as const;

/** How light patches came out over power, beside the tone that the setting was kept with, and the chance of each verdict. */
export default function SheetCheckFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const finding = useMemo(
    () => findSheetCheck(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { patches, photo, verdict, power, wanted, powerFraction, source } = finding;
  const said = new Map(patches.map((patch) => [patch.cellIndex, patch]));
  const ends = patches.map(({ times }) => times);
  const line =
    photo &&
    [Math.min(...ends), Math.max(...ends)].map((times) => {
      const y = photo.line.at(times);
      return { x: 100 * power * times, y, low: y, high: y };
    });
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={verdict === null ? null : KEEP[verdict]}
      ringed={verdict === 'holds' ? card.layout.order.filter((index) => said.get(index)?.times === 1) : []}
      words={(cell) => {
        const patch = said.get(cell.index);
        return patch ? checkedWords(patch) : '';
      }}
      rows={
        photo && wanted
          ? [
              ['Kept with', `L* ${plainNumber(wanted.lightness, 3)} ± ${plainNumber(2 * wanted.sigma, 2)}`],
              [
                `${formatPower(power)} on this sheet`,
                `L* ${plainNumber(photo.lightness, 3)} ± ${plainNumber(2 * photo.sigma, 2)}`,
              ],
              [`Holds ${HOLDS_WORDS}`, percent(photo.chances.holds)],
              ['A shift of power brings it back', percent(photo.chances.shift)],
              ['Start again', percent(photo.chances.again)],
            ]
          : []
      }
      caption="Each point is a patch. The setting holds where the line passes the kept tone at the setting’s own power; elsewhere the power where it does is the shifted one, marked by the line across."
      chart={
        photo &&
        wanted && (
          <>
            <PointChart
              label="L* of patches over power"
              x={{ title: 'power, %', show: (value) => plainNumber(value, 3) }}
              y={{ title: 'L*', show: (value) => plainNumber(value, 3) }}
              points={patches.map(({ times, lightness, sigma, cellIndex }) => ({
                x: 100 * power * times,
                y: lightness,
                sigma,
                cellIndex,
              }))}
              {...(line ? { fit: line } : {})}
              {...(powerFraction === null ? {} : { pick: { x: 100 * powerFraction } })}
              selected={props.selected}
              onSelect={props.onSelect}
            />
            {source && <SourcePart view={props.view} source={source} />}
          </>
        )
      }
    />
  );
}
