import { useMemo, useState } from 'react';
import { BlockMap } from '../../../components/chart/BlockMap';
import { SelectField } from '../../../components/Field';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { bestOf } from '../../../components/use-comparing';
import { mainBurn } from '../../../core/card/layout';
import { boxOfShape } from '../../../core/card/shape';
import { formatLength, plainNumber } from '../../../core/quantities/format';
import { burnedColourOf } from '../../../core/stock/families';
import { burnToGoBy, blackOf, findPicture, toneWords, viewingWords, type PicturePart } from '../find';

const MAPS = { off: 'how far it is off', seen: 'how it came out', wanted: 'what was wanted' } as const;
/** L* off at the dark end of the key. */
const END_L = 10;
const OFF_COLOURS = ['#f6f8f6', '#0a3a2b'] as const;

/** A picture that lies nearer to its place than this is in it: markers tell no better. */
const IN_PLACE_MM = 0.05;

const nameOf = ({ corrected }: PicturePart): string => (corrected ? 'Through the table' : 'Without the table');

/** How each burn of the picture came out: what was wanted, what is there, and the difference place by place. */
export default function PictureFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const { stock, machine } = card.madeFor;
  const finding = useMemo(
    () => findPicture(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const next = useMemo(() => bestOf(card.layout.order), [card]);
  const [which, setWhich] = useState<keyof typeof MAPS>('off');
  const { parts } = finding;
  const best = burnToGoBy(finding);
  const shown = parts.find(({ cellIndex }) => cellIndex === props.selected) ?? best ?? parts[0];
  const box = shown && boxOfShape(mainBurn(card.layout.cells[shown.cellIndex]!).shape);
  const values = useMemo(
    () => shown && (which === 'off' ? shown.fit.off.map(Math.abs) : shown.fit[which]),
    [shown, which],
  );
  const liked = machine.likedUnits;
  const place = ({ fit }: PicturePart): string => {
    const { x, y } = fit.shiftMm;
    const sides = [
      [x, x < 0 ? 'to the left' : 'to the right'],
      [y, y < 0 ? 'above' : 'below'],
    ] as const;
    return sides
      .filter(([mm]) => Math.abs(mm) >= IN_PLACE_MM)
      .map(([mm, side]) => `${formatLength(Math.abs(mm), liked, 2)} ${side}`)
      .join(', ');
  };
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={best === null ? null : 'Keep this for pictures'}
      ringed={best ? [best.cellIndex] : []}
      words={(cell) => {
        const part = parts.find(({ cellIndex }) => cellIndex === cell.index);
        return part ? `${plainNumber(part.fit.rmsL, 2)} L* off` : '';
      }}
      rows={parts.flatMap((part) => [
        [nameOf(part), `${plainNumber(part.fit.rmsL, 2)} L* off, rms`] as const,
        ['Its black', `${plainNumber(blackOf(part), 3)} L* from bare stock`] as const,
        ['Its tones', toneWords(part.fit).join(', ') || 'light, middle and dark within 2 L*'] as const,
        ...(place(part) === '' ? [] : [['It lies', place(part)] as const]),
        ...(part.word === null ? [] : [['You say', part.word] as const]),
      ])}
      {...(card.layout.order.length > 1
        ? { byEye: { candidates: card.layout.order, next, liked: finding.liked, are: 'burns of the picture' } }
        : {})}
      caption={`${shown ? `As an eye sees it from ${viewingWords(shown.fit, liked)}. ` : ''}Compared are tones: how deep black is, and by how little the picture lies beside its place, are told above and not counted as off.`}
      chart={
        shown &&
        box &&
        values && (
          <>
            <SelectField
              label={`${nameOf(shown)}: show`}
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
              label={`${MAPS[which]}, L*`}
              values={values}
              columns={shown.fit.columns}
              rows={shown.fit.rows}
              widthMm={box.width}
              heightMm={box.height}
              unit="L*"
              from={{ value: 0, colour: which === 'off' ? OFF_COLOURS[0] : stock.colour }}
              to={
                which === 'off'
                  ? { value: END_L, colour: OFF_COLOURS[1] }
                  : { value: shown.fit.strongest, colour: burnedColourOf(stock) }
              }
            />
          </>
        )
      }
    />
  );
}
