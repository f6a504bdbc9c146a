import { useMemo, useState } from 'react';
import { BlockMap } from '../../../components/chart/BlockMap';
import { SelectField } from '../../../components/Field';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import type { BedVerdict } from '../../../core/book/fact-values';
import { formatLength, plainNumber, type LikedUnits } from '../../../core/quantities/format';
import { burnedColourOf } from '../../../core/stock/families';
import { findBed, type PlaceSeen } from '../find';

const MAPS = { heights: 'how high the sheet stands', strengths: 'how strong marks are' } as const;

/** Low and high, told apart in black and white too. */
const HEIGHT_COLOURS = ['#1d5c73', '#f2c46d'] as const;
/** The key reaches so far at the least, so that a level bed does not look like a hill. */
const LEAST_REACH_MM = 0.1;
const LEAST_REACH_L = 1;

const signed = (mm: number, liked: LikedUnits): string => `${mm > 0 ? '+' : ''}${formatLength(mm, liked, 2)}`;

/** Heights and strengths over the bed, and what would have to be moved where. */
export default function BedFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const { machine, stock } = card.madeFor;
  const liked = machine.likedUnits;
  const [which, setWhich] = useState<keyof typeof MAPS>('heights');
  const finding = useMemo(
    () => findBed(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { places, verdict, corners, middle, focusDepthMm, offPlaneMm, drifts, columns, rows, widthMm, depthMm } =
    finding;
  const placeOf = new Map(places.flatMap((place) => place.cells.map((cell) => [cell, place])));
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={verdict === null ? null : 'Keep what the bed is like'}
      ringed={[]}
      words={(cell) => {
        const height = placeOf.get(cell.index)?.height;
        return height ? `the sheet stands at ${signed(height.value, liked)}` : '';
      }}
      rows={
        verdict === null || !middle
          ? []
          : [
              [
                'The middle is sharpest at',
                `${signed(middle.value, liked)} ± ${formatLength(2 * middle.sigma, liked, 2)}`,
              ],
              ...(verdict === 'bent'
                ? [['Places lie off a plane by', formatLength(offPlaneMm!, liked, 2)] as const]
                : corners.map(
                    ({ corner, value, sigma }) =>
                      [
                        `${corner[0]!.toUpperCase()}${corner.slice(1)}`,
                        moveWords(value, sigma, verdict, (mm) => formatLength(mm, liked, 2)),
                      ] as const,
                  )),
              ...(focusDepthMm === null
                ? []
                : [['Nearly as sharp', `${formatLength(focusDepthMm, liked, 2)} to either side`] as const]),
              ...drifts.map(
                ({ toward, strongerL, sigma }) =>
                  [
                    `Stronger to the ${toward}`,
                    `${plainNumber(strongerL, 2)} L* ± ${plainNumber(2 * sigma, 2)}`,
                  ] as const,
              ),
            ]
      }
      caption="Plus: the sheet stands closer to the head than the focus that you set, minus: further away. The map is seen from the front of the machine, its rear at the top."
      chart={
        places.some(({ height, strength }) => height ?? strength) && (
          <>
            <SelectField
              label="Show"
              value={which}
              onChange={(event) => setWhich(event.target.value as keyof typeof MAPS)}
            >
              {Object.entries(MAPS).map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </SelectField>
            <BlockMap
              {...mapOf(which, places, burnedColourOf(stock), stock.colour)}
              columns={columns}
              rows={rows}
              // Each place in the middle of its block.
              widthMm={(widthMm * columns) / Math.max(1, columns - 1)}
              heightMm={(depthMm * rows) / Math.max(1, rows - 1)}
            />
          </>
        )
      }
    />
  );
}

/** What to do about a corner of a tilted bed, where its height stands clear of its doubt. */
function moveWords(mm: number, sigma: number, verdict: BedVerdict, length: (mm: number) => string): string {
  if (verdict === 'level' || Math.abs(mm) <= 2 * sigma) return `level, to ${length(Math.abs(mm) + 2 * sigma)}`;
  return `${mm > 0 ? 'lower it' : 'raise it'} by ${length(Math.abs(mm))} ± ${length(2 * sigma)}`;
}

/** Values and words of one map. */
function mapOf(which: keyof typeof MAPS, places: readonly PlaceSeen[], burned: string, bare: string) {
  const told = places.map(({ height, strength }) => (which === 'heights' ? height : strength));
  const values = Float32Array.from(told, (one) => one?.value ?? NaN);
  const texts = places.map(({ name, by }, index) => {
    const one = told[index];
    if (!one) return [name, 'not told'];
    const number = which === 'heights' ? `${one.value > 0 ? '+' : ''}${one.value.toFixed(2)}` : one.value.toFixed(1);
    return [name, which === 'heights' && by === 'eye' ? `${number}, by eye` : number];
  });
  const known = [...values].filter((value) => !Number.isNaN(value));
  if (which === 'heights') {
    const reach = Math.max(LEAST_REACH_MM, ...known.map(Math.abs));
    return {
      label: 'Height of the sheet, mm',
      unit: 'mm',
      values,
      texts,
      from: { value: -reach, colour: HEIGHT_COLOURS[0] },
      to: { value: reach, colour: HEIGHT_COLOURS[1] },
    };
  }
  const middle = known.reduce((sum, value) => sum + value, 0) / Math.max(1, known.length);
  const reach = Math.max(LEAST_REACH_L, ...known.map((value) => Math.abs(value - middle)));
  return {
    label: 'Strength of marks, L* from bare stock',
    unit: 'L*',
    values,
    texts,
    from: { value: middle - reach, colour: bare },
    to: { value: middle + reach, colour: burned },
  };
}
