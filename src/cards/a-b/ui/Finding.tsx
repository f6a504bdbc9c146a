import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { plainNumber } from '../../../core/quantities/format';
import { MOST_LOOKS } from '../../../core/stats/two-looks';
import { findAB, isLookedAtTwice } from '../find';
import { sidesInTurn } from './sides-in-turn';

/** How light the patches of both sides came out, side by side, and what tells them apart. */
export default function ABFindingScreen(props: FindingProps) {
  const { card, reading, before, answers, known } = props.view;
  const finding = useMemo(
    () =>
      findAB(card.layout, { readings: reading?.cells ?? [], ...(before && { before: before.cells }), answers }, known),
    [card, reading, before, answers, known],
  );
  const { a, b, cells, looks, told, eye, liked } = finding;
  const read = new Map(cells.map((cell) => [cell.cellIndex, cell]));
  const ofA = cells.filter(({ side }) => side === 'a');
  const { layout } = card;
  const next = useMemo(() => sidesInTurn(layout), [layout]);
  const isTwice = isLookedAtTwice(layout);
  const isPaired = looks.at(-1)?.paired === true;
  const ordered = [...ofA, ...cells.filter(({ side }) => side === 'b')];
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={
        told === null && eye === null ? null : told?.verdict === 'more' ? 'Keep this first look' : 'Keep what was found'
      }
      ringed={[]}
      words={(cell) => {
        const patch = read.get(cell.index);
        return patch ? `L* ${plainNumber(patch.lightness, 3)} ± ${plainNumber(2 * patch.sigma, 2)}` : '';
      }}
      rows={
        told
          ? [
              [
                'B less A',
                `${told.difference < 0 ? '−' : '+'}${plainNumber(Math.abs(told.difference), 2)} L* ± ${plainNumber(told.half, 2)}`,
              ],
              [isPaired ? 'Changes scatter by' : 'Patches scatter by', `${plainNumber(told.spread, 2)} L*`],
              ['Not excluded, either way', `up to ${plainNumber(told.largest, 2)} L*`],
              [
                'Looks',
                `${looks.length} of ${MOST_LOOKS}, ${isPaired ? `${ofA.length} patches seen twice` : `${cells.length} patches on this card`}`,
              ],
            ]
          : []
      }
      {...(!isTwice && {
        byEye: {
          candidates: layout.order,
          next,
          liked: null,
          are: 'patches, one of A and one of B',
          told: liked
            ? [
                [
                  `Liked better, of ${liked.comparisons}`,
                  `${liked.side.toUpperCase()}, ${plainNumber(100 * liked.chance, 2)} % sure`,
                ] as const,
              ]
            : [],
        },
      })}
      caption={`Left of the line are the patches of A (${a}), right of it those of B (${b}). What they scatter by decides how large a difference must be to be told from chance.`}
      chart={
        told && (
          <PointChart
            label="L* of the patches of A and B"
            x={{ title: `A: ${a}  |  B: ${b}`, show: () => '', from: 0, to: ordered.length + 1 }}
            y={{ title: 'L*', show: (value) => plainNumber(value, 3) }}
            points={ordered.map(({ lightness, sigma, cellIndex }, place) => ({
              x: place + 1,
              y: lightness,
              sigma,
              cellIndex,
            }))}
            pick={{ x: ofA.length + 0.5 }}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
