import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { formatLength } from '../../../core/quantities/format';
import { findCutFocus, WAY_WORDS, type TriedWay } from '../find';

/** What each way to focus did: how many dropped, and how straight their edge is. */
export default function CutFocusFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findCutFocus(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { ways, best } = finding;
  const length = (mm: number): string => formatLength(Math.round(mm * 1000) / 1000, liked, 2);
  const rowOf = ({ way, told, dropped, taper }: TriedWay): [string, string] => [
    `Focus ${WAY_WORDS[way]}`,
    `${dropped} of ${told} dropped${taper ? `, ${length(Math.abs(taper.mm))} ± ${length(2 * taper.sigmaMm)} wider ${taper.mm >= 0 ? 'below' : 'above'}` : ''}`,
  ];
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this focus"
      ringed={best?.cells ?? []}
      words={(cell) => WAY_WORDS[cell.levels.side as TriedWay['way']]}
      rows={ways.map(rowOf)}
    />
  );
}
