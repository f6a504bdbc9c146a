import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { levelWords } from '../../../core/card/channels';
import { plainNumber } from '../../../core/quantities/format';
import { findCutCheck, type CutVerdict } from '../find';

const VERDICTS: Readonly<Record<CutVerdict, string>> = {
  holds: 'still holds',
  slower: 'slower on this sheet',
  again: 'to be found anew',
};

/** Whether a kept cut still holds on this sheet, and how surely. */
export default function CutCheckFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findCutCheck(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { discs, shift, chance, verdict } = finding;
  const dropped = new Map(discs.map(({ cellIndex, drops }) => [cellIndex, drops]));
  const percent = (log: number): string => `${log > 0 ? '+' : ''}${plainNumber(100 * (Math.exp(log) - 1), 2)} %`;
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={verdict === 'again' ? null : verdict === 'slower' ? 'Keep it for this sheet' : 'It still holds'}
      ringed={[]}
      words={(cell) => {
        const drops = dropped.get(cell.index);
        return drops === undefined ? '' : drops ? 'dropped' : 'did not drop';
      }}
      rows={[
        ...discs.map(({ cellIndex, drops }): [string, string] => [
          `At ${levelWords(card.layout.cells[cellIndex]!.levels, liked).join(', ')}`,
          drops ? 'dropped' : 'did not drop',
        ]),
        ...(verdict ? [['The kept cut', VERDICTS[verdict]] as [string, string]] : []),
        ...(chance === null ? [] : [['Of 100, drop with it', plainNumber(100 * chance, 2)] as [string, string]]),
        ...(shift
          ? [
              [
                'This sheet takes',
                `${percent(shift.mean)} energy, from ${percent(shift.mean - 2 * shift.sigma)} to ${percent(shift.mean + 2 * shift.sigma)}`,
              ] as [string, string],
            ]
          : []),
      ]}
    />
  );
}
