import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { formatLength, plainNumber, type LikedUnits } from '../../../core/quantities/format';
import { findShowpiece, HOLDS_SHARE, wordOfPart, type ShownPart } from '../find';
import type { PartName } from '../plan';

const NAMES: Readonly<Record<PartName, string>> = {
  broad: 'Drawing',
  lettering: 'Capitals of',
  hairline: 'Hairlines of',
  point: 'Points of',
};

const nameOf = ({ part, sizeMm }: ShownPart, liked: LikedUnits): string =>
  `${NAMES[part]}${sizeMm === null ? '' : ` ${formatLength(sizeMm, liked, 3)}`}`;
const percent = (share: number): string => `${plainNumber(100 * share, 2)} %`;

/** Whether each part holds, by eye and by the photo, and how far small ones stand out against the broad drawing. */
export default function ShowpieceFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const finding = useMemo(
    () => findShowpiece(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const liked = card.madeFor.machine.likedUnits;
  const byCell = new Map(finding.parts.map((part) => [part.cellIndex, part]));
  const small = finding.parts.filter(({ part }) => part !== 'broad');
  const shown = small.filter(({ share }) => share !== null);
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={finding.missing.length > 0 ? null : 'Keep what holds'}
      ringed={finding.parts.filter(({ holds }) => holds === false).map(({ cellIndex }) => cellIndex)}
      words={(cell) => {
        const part = byCell.get(cell.index);
        return part ? wordOfPart(part) : '';
      }}
      rows={small.map((part) => [nameOf(part, liked), wordOfPart(part)] as const)}
      caption={`By the photo, how far each part stands out of what lies between, against the drawing: ${percent(HOLDS_SHARE)} is where small things are still told (from memory). Left to right as in the list above.`}
      chart={
        shown.length > 0 && (
          <PointChart
            label="How far each part stands out"
            x={{ title: 'capitals | hairlines | points', show: () => '', from: 0, to: small.length + 1 }}
            y={{ title: 'of the drawing’s contrast', show: percent, from: 0, to: 1.2 }}
            points={shown.map((part) => ({
              x: small.indexOf(part) + 1,
              y: part.share!,
              sigma: part.shareSigma!,
              cellIndex: part.cellIndex,
            }))}
            fit={[0, small.length + 1].map((x) => ({ x, y: HOLDS_SHARE, low: HOLDS_SHARE, high: HOLDS_SHARE }))}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
