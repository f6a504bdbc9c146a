import { useMemo, useState } from 'react';
import { Button } from '../../../components/Button';
import { TicketPart } from '../../../components/BenchFrame';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { QuantityField } from '../../../components/QuantityField';
import { DEGREES, quantityKinds } from '../../../components/quantity-kinds';
import { levelWords } from '../../../core/card/channels';
import { PATTERN_NAMES, pitchOf, slitsIn } from '../../../core/hinge/lattice';
import { formatLength, plainNumber } from '../../../core/quantities/format';
import { findHinge, USUAL_HINGE_WISH, type HingeWish, type ProposedHinge } from '../find';

/** A hinge as a drawing of its own: open lines, in millimetres. */
function svgOf({ lattice, lengthMm }: ProposedHinge, widthMm: number): string {
  const paths = slitsIn(lattice, { x: 0, y: 0, width: widthMm, height: lengthMm })
    .map((line) => line.map(({ x, y }, k) => `${k === 0 ? 'M' : 'L'}${x.toFixed(3)} ${y.toFixed(3)}`).join(''))
    .join('');
  const size = `width="${widthMm.toFixed(3)}mm" height="${lengthMm.toFixed(3)}mm" viewBox="0 0 ${widthMm.toFixed(3)} ${lengthMm.toFixed(3)}"`;
  return `<svg xmlns="http://www.w3.org/2000/svg" ${size}><path d="${paths}" fill="none" stroke="#000" stroke-width="0.1"/></svg>`;
}

function save(text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = 'hinge.svg';
  link.click();
  URL.revokeObjectURL(url);
}

/** What the strips held, how strong that makes the stock, and the hinge for a wanted bend. */
export default function HingeFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const kinds = quantityKinds(liked);
  const [wish, setWish] = useState<HingeWish>(USUAL_HINGE_WISH);
  const finding = useMemo(
    () => findHinge(card.layout, { readings: reading?.cells ?? [], answers }, known, wish),
    [card, reading, answers, known, wish],
  );
  const { samples, strengths, radii, hinges } = finding;
  const length = (mm: number): string => formatLength(Math.round(mm * 10) / 10, liked, 4);
  const set = (change: Partial<HingeWish>): void => setWish({ ...wish, ...change });
  const fields = (
    <>
      <QuantityField
        label="Bent to a radius of"
        kind={kinds.length}
        value={wish.radiusMm}
        onChange={(value) => value !== null && value > 0 && set({ radiusMm: value })}
      />
      <QuantityField
        label="By an angle of"
        kind={DEGREES}
        value={wish.angleDeg}
        onChange={(value) => value !== null && value > 0 && value <= 360 && set({ angleDeg: value })}
      />
      <QuantityField
        label="Long, along the slits"
        kind={kinds.length}
        value={wish.widthMm}
        onChange={(value) => value !== null && value > 0 && set({ widthMm: value })}
      />
      {hinges.map((hinge) => (
        <Button key={hinge.lattice.pattern} onClick={() => save(svgOf(hinge, wish.widthMm))}>
          {hinges.length === 1 ? 'Save this hinge as SVG' : `Save the ${PATTERN_NAMES[hinge.lattice.pattern]} as SVG`}
        </Button>
      ))}
    </>
  );
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this strength"
      wish={{ fields: <TicketPart title="The bend that is wanted">{fields}</TicketPart>, value: wish }}
      ringed={samples
        .filter(({ lattice }) => hinges.some((hinge) => hinge.lattice === lattice))
        .map(({ cellIndex }) => cellIndex)}
      words={(cell) => {
        const held = samples.find(({ cellIndex }) => cellIndex === cell.index);
        return held ? `held round ${length(held.heldMm)}` : '';
      }}
      rows={[
        ...radii.map(({ cellIndex, breaksMm, safeMm }): [string, string] => [
          `Rows of ${levelWords(card.layout.cells[cellIndex]!.levels, liked).join(', ')}`,
          `break at about ${length(breaksMm)}, safe from ${length(safeMm)}`,
        ]),
        ...hinges.map(({ lattice, rows, lengthMm, cutMm }): [string, string] => [
          `This bend by ${PATTERN_NAMES[lattice.pattern]}`,
          `${rows} rows, ${length(lengthMm)} long, ${plainNumber(cutMm / 1000, 2)} m of cuts${lattice.pattern === 'crossed' ? '; bends both ways' : ''}`,
        ]),
        ...strengths.map(({ pattern, strength }): [string, string] => [
          strengths.length === 1 ? 'Modulus over strength' : `Modulus over strength, ${PATTERN_NAMES[pattern]}`,
          `${plainNumber(strength.median, 2)}, strips differ by ${plainNumber(100 * strength.logSpread, 2)} %`,
        ]),
      ]}
      caption="Each point is a strip: the least radius that it held round."
      chart={
        samples.length > 0 && (
          <PointChart
            label="Radius that held, by pitch"
            x={{ title: 'pitch, mm', show: (value) => plainNumber(value, 3) }}
            y={{ title: 'held round, mm', show: (value) => plainNumber(value, 3), from: 0 }}
            points={samples.map(({ cellIndex, lattice, heldMm }) => ({ x: pitchOf(lattice), y: heldMm, cellIndex }))}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
