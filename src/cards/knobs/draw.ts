import { letterOf } from '../../core/card/channels';
import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { letter } from '../../core/card/lettering';
import type { Burn } from '../../core/card/shape';
import type { Point, Rect } from '../../core/geometry/point';
import { knobOutline, knobReachMm } from '../../core/joint/knob';
import { nameOfMate, type MateSide } from '../../core/joint/mates';
import { boxOfRing } from '../../core/part/polygons';
import { laddersOf, mostMovedMm, type KnobsPlan } from './plan';

/** Of a part's number, by its head. */
const NUMBER_SHARE = 0.3;

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

const roundedBox = ({ x, y, width, height }: Rect): Rect => ({
  x: round(x),
  y: round(y),
  width: round(width),
  height: round(height),
});

/** What is cut from this sheet, in order: its sides, and how much tighter each is drawn. */
export function cutHereOf(
  plan: KnobsPlan,
): { readonly side: MateSide; readonly tighterMm: number; readonly step: number }[] {
  const { holesMm, partsMm } = laddersOf(plan);
  const of = (side: MateSide, ladder: readonly number[]) =>
    ladder.map((tighterMm, step) => ({ side, tighterMm, step }));
  return [
    ...(plan.cutHere === 'parts' ? [] : of('hole', holesMm)),
    ...(plan.cutHere === 'holes' ? [] : of('part', partsMm)),
  ];
}

/** Holes on the left, parts on the right, in one row; every part with its number on its head. */
export function drawKnobs(plan: KnobsPlan, on: Pairing): Drawn {
  const { shape, headMm, gapMm, cut, cutHere, kerfMm, otherKerfMm, otherStock, frame } = plan;
  const liked = on.machine.likedUnits;
  const { holesMm, partsMm } = laddersOf(plan);
  const { up, down } = knobReachMm(shape, headMm);
  // What is moved outward most reaches further up and down.
  const most = mostMovedMm(plan);
  const allMm = round(up + down + 2 * most);
  // All stand as if nothing was moved: a head's middle every so far.
  const stride = headMm + gapMm;
  const middleOf = (place: number): Point => ({ x: gapMm / 2 + headMm / 2 + place * stride, y: round(up + most) });
  const here = cutHereOf(plan);
  const cells = here.map(({ side, tighterMm }, place) => {
    const middle = middleOf(place);
    const outline = knobOutline(shape, headMm, side === 'part' ? tighterMm : -tighterMm).map(({ x, y }) => ({
      x: round(x + middle.x),
      y: round(y + middle.y),
    }));
    return {
      box: roundedBox(boxOfRing(outline)),
      levels: { side, tighter: tighterMm },
      burns: [{ shape: { do: 'follow' as const, lines: [[...outline, outline[0]!]] }, settings: cut }],
      risk: deliveredBy(cut, on).lineJPerMm,
      expected: null,
      leftOut: false,
      wanted: { outline, on: { x: round(middle.x), y: round(middle.y) } },
    };
  });
  const heightMm = NUMBER_SHARE * headMm;
  const numbers: Burn[] = here.flatMap(({ side, step }, place): Burn[] => {
    if (side === 'hole') return [];
    const { x, y } = middleOf(place);
    const lines = letter(nameOfMate(side, step), { x, y: y - heightMm / 2, heightMm, anchor: 'middle' });
    const { powerFraction, speedMmPerS } = frame.lettering;
    const settings = { ...cut, powerFraction, speedMmPerS, passes: 1, focusOffsetMm: 0 };
    return [{ shape: { do: 'follow', lines }, settings }];
  });
  const unit = letterOf('tighter', here[0]!.tighterMm, liked).unit.toUpperCase();
  return {
    widthMm: round(here.length * stride),
    heightMm: allMm,
    cells,
    before: numbers,
    after: [],
    labels: here.map(({ side, tighterMm, step }, place) => {
      const { text, means } = letterOf('tighter', tighterMm, liked);
      const { x } = middleOf(place);
      return {
        text: `${nameOfMate(side, step)} ${text}`,
        means: `${side} ${nameOfMate(side, step)}, ${means} tighter on every side`,
        edge: 'above' as const,
        box: { x: round(x - stride / 2), y: 0, width: stride, height: allMm },
      };
    }),
    // Each half is kept, and tried once more with what is cut later.
    lettersAll: true,
    units: `TIGHTER A SIDE, ${unit}`,
    caption: `HOLES BY LETTERS, PARTS BY NUMBERS, TIGHTER ON EVERY SIDE BY ${unit}`,
    constants: cutText(cut, liked),
    markers: 'none',
    air: cut.air,
    mates: {
      own: cutHere === 'parts' ? 'part' : 'hole',
      othersMm: cutHere === 'parts' ? holesMm : partsMm,
      kerfMm:
        cutHere === 'both'
          ? { hole: kerfMm, part: kerfMm }
          : cutHere === 'holes'
            ? { hole: kerfMm, part: otherKerfMm }
            : { hole: otherKerfMm, part: kerfMm },
      otherStock: cutHere === 'both' ? null : otherStock,
      shape: `${shape} of ${headMm} mm`,
    },
  };
}
