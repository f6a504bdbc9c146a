import { useMemo, useState } from 'react';
import { TicketPart } from '../../../components/BenchFrame';
import { CertaintyFields } from '../../../components/CertaintyFields';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { quantityKinds } from '../../../components/quantity-kinds';
import { formatDuration, formatLength, plainNumber } from '../../../core/quantities/format';
import { findPassCount, USUAL_PASS_COUNT_WISH, type PassCountFinding, type PassCountWish } from '../find';

/** After how many passes the square dropped, and how many surely drop a part. */
export default function PassCountFindingScreen(props: FindingProps) {
  const { card, answers, known } = props.view;
  const { machine } = card.madeFor;
  const liked = machine.likedUnits;
  const kinds = useMemo(() => quantityKinds(liked, machine.ratedPowerW), [liked, machine]);
  const [wish, setWish] = useState<PassCountWish>(USUAL_PASS_COUNT_WISH);
  const finding = useMemo(
    () => findPassCount(card.layout, { readings: [], answers }, known, wish),
    [card, answers, known, wish],
  );
  const { passes, cut, outlineMm, thicknessMm } = finding;
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this cut"
      ringed={[]}
      words={() => (passes === null ? '' : `dropped in pass ${passes}`)}
      wish={{
        value: wish,
        fields: (
          <TicketPart title="What is wanted">
            <CertaintyFields
              certainty={wish.certainty}
              outlineMm={wish.outlineMm ?? outlineMm}
              kinds={kinds}
              onSet={(change) => setWish({ ...wish, ...change })}
            />
          </TicketPart>
        ),
      }}
      rows={
        cut
          ? [
              ['1 m takes', formatDuration((1000 * cut.settings.passes) / cut.settings.speedMmPerS)],
              [
                'Good for sheets of',
                `${formatLength(thicknessMm.from, liked, 3)} to ${formatLength(thicknessMm.to, liked, 3)}`,
              ],
            ]
          : []
      }
      caption="The share of parts that drop after so many passes, with its 95 % band: it is wide, since one square tells of one place."
      chart={
        finding.window && (
          <PointChart
            label="Parts that drop by passes"
            x={{ title: 'passes', show: (value) => (Number.isInteger(value) ? String(value) : '') }}
            y={{ title: 'parts that drop, %', show: (value) => plainNumber(value, 3), from: 0, to: 100 }}
            points={passes === null ? [] : [{ x: passes, y: 100, cellIndex: 0 }]}
            fit={curveOf(finding)}
            {...(cut ? { pick: { x: cut.settings.passes } } : {})}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}

function curveOf({ window, passes, eachPass, outlineMm, cut }: PassCountFinding) {
  if (!window || passes === null) return [];
  return Array.from({ length: Math.max(2 * passes, cut?.settings.passes ?? 0) }, (_, k) => {
    const { chance, low, high } = window.chanceAt((k + 1) * eachPass, k + 1, outlineMm);
    return { x: k + 1, y: 100 * chance, low: 100 * low, high: 100 * high };
  });
}
