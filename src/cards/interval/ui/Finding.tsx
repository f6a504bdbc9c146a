import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { bestOf } from '../../../components/use-comparing';
import { formatDuration, formatInterval, formatLength, plainNumber } from '../../../core/quantities/format';
import { findInterval } from '../find';

const WORDS = { apart: 'lines show', even: 'even', mud: 'muddy' } as const;

/** The interval: what each strip looks like, and the time each costs. */
export default function IntervalFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findInterval(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { strips, intervalMm, cellIndex, sigmaMm } = finding;
  const said = new Map(strips.map((strip) => [strip.cellIndex, strip]));
  const chosen = strips.find((strip) => strip.cellIndex === cellIndex);
  // What the eye called muddy nobody need compare.
  const compared = useMemo(
    () =>
      card.layout.order.filter(
        (index) => !finding.strips.some((strip) => strip.cellIndex === index && strip.word === 'mud'),
      ),
    [card, finding],
  );
  const next = useMemo(() => bestOf(compared), [compared]);
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this interval"
      ringed={cellIndex === null ? [] : [cellIndex]}
      words={(cell) => {
        const strip = said.get(cell.index);
        return strip ? `${WORDS[strip.word]}, by ${strip.by === 'eye' ? 'eye' : 'the photo'}` : '';
      }}
      rows={
        intervalMm === null
          ? []
          : [
              ['Line interval', formatInterval(intervalMm, liked)],
              ['How sure', sigmaMm === null ? 'open towards coarser' : `± ${formatLength(2 * sigmaMm, liked, 2)}`],
              ...(chosen ? [['10 × 10 cm take', formatDuration(chosen.timeS)] as const] : []),
              ['Strips told', `${strips.length}, ${strips.filter((strip) => strip.by === 'eye').length} by eye`],
            ]
      }
      byEye={{ candidates: compared, next, liked: finding.liked, are: 'strips' }}
      caption="Each point is a strip: how long 10 × 10 cm take at its interval. The line is what was found."
      chart={
        strips.length > 0 && (
          <PointChart
            label="Time over line interval"
            x={{ title: 'line interval, mm', show: (value) => plainNumber(value, 2) }}
            y={{ title: 'min for 10 × 10 cm', show: (value) => plainNumber(value, 2), from: 0 }}
            points={strips.map((strip) => ({ x: strip.intervalMm, y: strip.timeS / 60, cellIndex: strip.cellIndex }))}
            {...(intervalMm === null
              ? {}
              : {
                  pick: {
                    x: intervalMm,
                    ...(sigmaMm === null ? {} : { low: intervalMm, high: intervalMm + sigmaMm * Math.sqrt(12) }),
                  },
                })}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
