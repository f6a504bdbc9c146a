import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { FocusSketch } from '../../../components/FocusSketch';
import { PointChart } from '../../../components/PointChart';
import { bestOf } from '../../../components/use-comparing';
import { formatLength, plainNumber } from '../../../core/quantities/format';
import type { CurvePoint } from '../../../components/chart/plot';
import type { FocusFit } from '../../../core/fit/focus';
import { findFocus, offsetWords, type PatchRipple } from '../find';

const LEVELS = { sharp: 0, closed: 1, blurred: 2 } as const;
const WORDS = ['sharp', 'closed', 'blurred'] as const;

/** The focus: where it is sharp, and the least offset at which gaps close. */
export default function FocusFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findFocus(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { patches, ripples, fit, waistMm, waistSigmaMm, depthMm, fillMm, cellIndex, sigmaMm, flat } = finding;
  // What the eye called blurred nobody need compare.
  const compared = useMemo(
    () =>
      card.layout.order.filter(
        (index) =>
          !finding.patches.some(({ cellIndex: one, word, by }) => one === index && word === 'blurred' && by === 'eye'),
      ),
    [card, finding],
  );
  const next = useMemo(() => bestOf(compared), [compared]);
  const signed = (mm: number): string => offsetWords(mm, liked);
  const said = new Map(
    patches.map((patch) => [patch.cellIndex, `${patch.word}, by ${patch.by === 'eye' ? 'eye' : 'the photo'}`]),
  );
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this offset"
      ringed={cellIndex === null ? [] : [cellIndex]}
      words={(cell) => said.get(cell.index) ?? ''}
      rows={
        fillMm === null && waistMm === null
          ? []
          : [
              [
                'For fills',
                flat
                  ? 'flat: stay at 0'
                  : fillMm === null
                    ? 'beyond these patches'
                    : `${signed(fillMm)} ± ${formatLength(2 * (sigmaMm ?? 0), liked, 2)}`,
              ],
              [
                'Sharpest at',
                waistMm === null
                  ? 'not bounded'
                  : `${signed(waistMm)} ± ${formatLength(2 * (waistSigmaMm ?? 0), liked, 2)}`,
              ],
              ...(depthMm === null
                ? []
                : [['Nearly as sharp', `${formatLength(depthMm, liked, 2)} to either side`] as const]),
            ]
      }
      byEye={{ candidates: compared, next, liked: finding.liked, are: 'patches, as fills' }}
      caption={`${fit ? 'Each point is a patch: how strongly its lines show. The line marks where they show most. ' : ''}Plus raises the head from the focus you set, minus lowers it.`}
      chart={
        (patches.length > 0 || ripples.length > 0) && (
          <>
            {fit ? (
              <PointChart
                label="How strongly lines show over focus offset"
                x={{ title: 'focus offset, mm', show: (value) => plainNumber(value, 2) }}
                y={{ title: 'ripple of lines, %', show: (value) => plainNumber(value, 3), from: 0 }}
                points={ripples.map(({ cellIndex: index, offsetMm, visibility, sigma }) => ({
                  x: offsetMm,
                  y: 100 * visibility,
                  sigma: 100 * sigma,
                  cellIndex: index,
                  hollow: !fit.used.some((one) => one.offsetMm === offsetMm),
                }))}
                fit={curveOf(fit, ripples)}
                pick={{
                  x: fit.waistMm,
                  low: fit.waistMm - 2 * fit.waistSigmaMm,
                  high: fit.waistMm + 2 * fit.waistSigmaMm,
                }}
                selected={props.selected}
                onSelect={props.onSelect}
              />
            ) : (
              <PointChart
                label="Looks over focus offset"
                x={{ title: 'focus offset, mm', show: (value) => plainNumber(value, 2) }}
                y={{ title: 'lines', show: (value) => WORDS[value] ?? '', from: -0.3, to: 2.3 }}
                points={patches.map((patch) => ({
                  x: patch.offsetMm,
                  y: LEVELS[patch.word],
                  cellIndex: patch.cellIndex,
                }))}
                {...(fillMm === null ? {} : { pick: { x: fillMm } })}
                selected={props.selected}
                onSelect={props.onSelect}
              />
            )}
            {fillMm !== null && <FocusSketch offsetMm={fillMm} liked={liked} />}
          </>
        )
      }
    />
  );
}

const CURVE_STEPS = 48;

/** The fitted law over all offsets that were burned. */
function curveOf(fit: FocusFit, ripples: readonly PatchRipple[]): CurvePoint[] {
  const [from, to] = [ripples[0]!.offsetMm, ripples.at(-1)!.offsetMm];
  return Array.from({ length: CURVE_STEPS + 1 }, (_, step) => {
    const x = from + ((to - from) * step) / CURVE_STEPS;
    const { visibility, low, high } = fit.at(x);
    return { x, y: 100 * visibility, low: 100 * low, high: 100 * high };
  });
}
