import { useMemo, useState } from 'react';
import { TicketPart } from '../../../components/BenchFrame';
import { SelectField } from '../../../components/Field';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { FLAP, STITCH } from '../../../core/card/usual-asks';
import { formatLength, formatPower } from '../../../core/quantities/format';
import { findScore, USUAL_SCORE_WISH, type ScoreWish } from '../find';

const NAMES = new Map([FLAP, STITCH].flatMap(({ options }) => options.map(({ id, name }) => [id, name] as const)));

/** What each line did when its flap was bent, and the one for what is wanted. */
export default function ScoreFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const [wish, setWish] = useState<ScoreWish>(USUAL_SCORE_WISH);
  const finding = useMemo(
    () => findScore(card.layout, { readings: reading?.cells ?? [], answers }, known, wish),
    [card, reading, answers, known, wish],
  );
  const { lines, chosen } = finding;
  const did = new Map(lines.map((line) => [line.cellIndex, NAMES.get(line.did) ?? line.did]));
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this line"
      wish={{
        value: wish,
        fields: (
          <TicketPart title="What is wanted">
            <SelectField
              label="The line shall"
              value={wish.want}
              onChange={(event) => setWish({ want: event.target.value as ScoreWish['want'] })}
            >
              <option value="tear">tear clean</option>
              <option value="fold">fold and hold</option>
              <option value="stitch">look like stitching</option>
            </SelectField>
          </TicketPart>
        ),
      }}
      ringed={chosen ? [chosen.cellIndex] : []}
      words={(cell) => did.get(cell.index) ?? ''}
      rows={[...lines]
        .sort((a, b) => a.cellIndex - b.cellIndex)
        .map(({ cellIndex, isStitch, dashMm, skipMm, score }): [string, string] => [
          isStitch
            ? `Stitch ${formatLength(dashMm!, liked, 3)}, ${formatLength(skipMm!, liked, 3)} between`
            : dashMm === null
              ? `Scored at ${formatPower(score!)}`
              : `Dash ${formatLength(dashMm, liked, 3)}, skip ${formatLength(skipMm!, liked, 3)}`,
          did.get(cellIndex)!,
        ])}
    />
  );
}
