import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { formatPower } from '../../../core/quantities/format';
import { findThreshold } from '../find';

/** The floor: which patches marked, the chance of a mark over power, one step below the lowest mark. */
export default function ThresholdFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const finding = useMemo(
    () => findThreshold(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { half, faint, floor, patches, firing } = finding;
  const said = new Map(patches.map((patch) => [patch.cellIndex, patch]));
  const end = (power: number | null): string => (power === null ? 'open' : formatPower(power));
  const between = ({ low, high }: NonNullable<typeof half>): string => `${end(low)} to ${end(high)}`;
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={firing ? 'Keep this for the machine' : 'Keep this floor'}
      ringed={patches.filter((patch) => patch.powerFraction === floor).map((patch) => patch.cellIndex)}
      words={(cell) => {
        const patch = said.get(cell.index);
        return patch ? `${patch.marked ? 'a mark' : 'nothing'}, by ${patch.by === 'eye' ? 'eye' : 'the photo'}` : '';
      }}
      rows={
        firing
          ? [
              ['Begins to fire at', formatPower(firing.power)],
              ['95 % sure between', between(firing)],
            ]
          : floor === null || !half
            ? []
            : [
                ['White stays white to', formatPower(floor)],
                ...(faint
                  ? [['One in fifty marks at', `${formatPower(faint.power)}, ${between(faint)}`] as const]
                  : []),
                ['First mark, even chance', formatPower(half.power)],
                ['95 % sure between', between(half)],
                ['Patches told', `${patches.length}, ${patches.filter((patch) => patch.by === 'eye').length} by eye`],
              ]
      }
      caption="Each point is a patch: at the top those that marked. The line is where a mark is as likely as none, the band 95 % sure. An end is open where no patch stands against it: a longer strip would close it."
      chart={
        patches.length > 0 && (
          <PointChart
            label="Patches that marked, over power"
            x={{ title: 'power, %', show: (value) => `${Math.round(value * 10) / 10}`, log: true }}
            y={{ title: 'mark', show: (value) => (value === 1 ? 'yes' : value === 0 ? 'no' : ''), from: -0.2, to: 1.2 }}
            points={patches.map((patch) => ({
              x: patch.powerFraction * 100,
              y: patch.marked ? 1 : 0,
              cellIndex: patch.cellIndex,
            }))}
            {...(half
              ? {
                  pick: {
                    x: half.power * 100,
                    ...(half.low === null || half.high === null ? {} : { low: half.low * 100, high: half.high * 100 }),
                  },
                }
              : {})}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
