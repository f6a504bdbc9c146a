import { letterOf } from '../../core/card/channels';
import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rectOutline, rectRing } from '../../core/card/shape';
import { PATTERN_NAMES, slitsIn } from '../../core/hinge/lattice';
import { visitNearest } from '../../core/geometry/visit';
import { stripsOf, type HingePlan } from './plan';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Strips side by side, bent along Y: the slits of each first, then its outline. */
export function drawHinges(plan: HingePlan, on: Pairing): Drawn {
  const { widthMm, fieldMm, holdMm, gapMm, cut } = plan;
  const liked = on.machine.likedUnits;
  const heightMm = fieldMm + 2 * holdMm;
  const strips = stripsOf(plan);
  const patterns = new Set(strips.map(({ lattice }) => lattice.pattern));
  const cells = strips.map(({ level, lattice }, index) => {
    const x = round(index * (widthMm + gapMm));
    const strip = { x, y: 0, width: widthMm, height: heightMm };
    const field = { x, y: holdMm, width: widthMm, height: fieldMm };
    const slits = visitNearest(slitsIn(lattice, field), { x, y: holdMm });
    return {
      box: strip,
      levels: { ...(patterns.size > 1 && { part: PATTERN_NAMES[lattice.pattern] }), pitch: level },
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
        hinge: lattice,
      },
    };
  });
  const unit = letterOf('pitch', strips[0]!.level, liked).unit.toUpperCase();
  return {
    widthMm: round(cells.at(-1)!.box.x + widthMm),
    heightMm,
    cells,
    before: [],
    after: [],
    labels: cells.map(({ box }, index) => {
      const { level, lattice } = strips[index]!;
      const { text, means } = letterOf('pitch', level, liked);
      const sign = patterns.size < 2 ? '' : lattice.pattern === 'rows' ? 'R ' : 'X ';
      return {
        text: `${sign}${text}`,
        means: `${sign && `${PATTERN_NAMES[lattice.pattern]}, `}${means}`,
        edge: 'above' as const,
        box,
      };
    }),
    lettersAll: true,
    units: `HINGE ${unit}`,
    caption: [
      'HINGE',
      ...(patterns.has('rows') ? [`${unit} FROM ROW TO ROW`] : []),
      ...(patterns.has('crossed') ? [`${unit} BETWEEN CROSSED SLITS`] : []),
    ].join(', '),
    constants: cutText(cut, liked),
    markers: 'none',
    air: cut.air,
  };
}
