import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { bestOf } from '../../../components/use-comparing';
import { formatPower, formatStrength, plainNumber } from '../../../core/quantities/format';
import { comparedPatches, findCeiling, TOLD_APART_L, wedgeWords } from '../find';

/** How strong patches are over power, where that levels off, and which steps of each wedge look the same. */
export default function CeilingFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const finding = useMemo(
    () => findCeiling(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const compared = useMemo(() => comparedPatches(card.layout, { readings: [], answers }), [card, answers]);
  const next = useMemo(() => bestOf(compared), [compared]);
  const { patches, fit, ceiling, low, high, wedges, edges } = finding;
  const said = new Map(patches.map((patch) => [patch.cellIndex, patch]));
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={ceiling === null ? null : 'Keep this ceiling'}
      ringed={ceiling === null ? [] : patches.filter(({ power }) => power >= ceiling).map(({ cellIndex }) => cellIndex)}
      words={(cell) => {
        const patch = said.get(cell.index);
        return patch ? formatStrength(patch) : '';
      }}
      rows={[
        ...(ceiling === null
          ? []
          : ([
              ['Ceiling', formatPower(ceiling)],
              ['Between', `${formatPower(low!)} and ${formatPower(high!)} (95 %)`],
            ] as const)),
        ...(fit
          ? ([['Strongest', formatStrength({ strength: fit.strongest, sigma: fit.strongestSigma })]] as const)
          : []),
        ...(fit
          ? ([
              [
                'Edges darken',
                edges
                  ? `from ${formatPower(edges.from)} (${formatPower(edges.low)} to ${formatPower(edges.high)})`
                  : `not surely by ${TOLD_APART_L} L*`,
              ],
            ] as const)
          : []),
        ...wedges.map((wedge) => [`Up to ${formatPower(wedge.top)}`, wedgeWords(wedge)] as const),
      ]}
      byEye={{ candidates: compared, next, liked: finding.liked, are: 'strong patches' }}
      caption={`Each point is a patch: by how much it differs from bare stock. From the line on none is stronger by ${TOLD_APART_L} L*, which is about what an eye tells apart side by side. Pictures are burned between floor and ceiling.`}
      chart={
        patches.length > 0 && (
          <PointChart
            label="Strength of patches over power"
            x={{ title: 'power, %', show: (value) => plainNumber(value, 2), from: 0 }}
            y={{ title: 'from bare stock, L*', show: (value) => plainNumber(value, 2) }}
            points={patches.map(({ power, strength, sigma, cellIndex }) => ({
              x: 100 * power,
              y: strength,
              sigma,
              cellIndex,
            }))}
            {...(fit
              ? {
                  fit: fit.curve.map(({ power, strength }) => ({
                    x: 100 * power,
                    y: strength,
                    low: strength,
                    high: strength,
                  })),
                }
              : {})}
            {...(ceiling === null ? {} : { pick: { x: 100 * ceiling, low: 100 * low!, high: 100 * high! } })}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
