import { axisValues } from '../../core/card/axis';
import { letterOf } from '../../core/card/channels';
import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rectOutline, rectRing } from '../../core/card/shape';
import { slitsIn } from '../../core/hinge/lattice';
import { visitNearest } from '../../core/geometry/visit';
import { latticeAt, type HingePlan } from './plan';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Strips side by side, bent along Y: the slits of each first, then its outline. */
export function drawHinges(plan: HingePlan, on: Pairing): Drawn {
  const { widthMm, fieldMm, holdMm, gapMm, cut, pattern } = plan;
  const liked = on.machine.likedUnits;
  const heightMm = fieldMm + 2 * holdMm;
  const pitches = axisValues(plan.pitch).map(round);
  const cells = pitches.map((pitch, index) => {
    const x = round(index * (widthMm + gapMm));
    const strip = { x, y: 0, width: widthMm, height: heightMm };
    const field = { x, y: holdMm, width: widthMm, height: fieldMm };
    const slits = visitNearest(slitsIn(latticeAt(plan, pitch), field), { x, y: holdMm });
    return {
      box: strip,
      levels: { pitch },
      burns: [
        { shape: { do: 'follow' as const, lines: slits }, settings: cut },
        { shape: { do: 'follow' as const, lines: [rectOutline(strip)] }, settings: cut },
      ],
      risk: deliveredBy(cut, on).lineJPerMm,
      expected: null,
      leftOut: false,
      wanted: {
        outline: rectRing(strip),
        on: { x: round(x + widthMm / 2), y: round(holdMm / 2) },
        hinge: latticeAt(plan, pitch),
      },
    };
  });
  const unit = letterOf('pitch', pitches[0]!, liked).unit.toUpperCase();
  return {
    widthMm: round(cells.at(-1)!.box.x + widthMm),
    heightMm,
    cells,
    before: [],
    after: [],
    labels: cells.map(({ box }, index) => {
      const { text, means } = letterOf('pitch', pitches[index]!, liked);
      return { text, means, edge: 'above' as const, box };
    }),
    lettersAll: true,
    units: `HINGE ${unit}`,
    caption: pattern === 'rows' ? `HINGE, ${unit} FROM ROW TO ROW` : `HINGE, ${unit} BETWEEN SLITS`,
    constants: cutText(cut, liked),
    markers: 'none',
    air: cut.air,
  };
}
