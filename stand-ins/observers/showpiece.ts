import { showpiece } from '../../src/cards/showpiece';
import { COMES_OUT_FIELD, HOLDS_SHARE, type ShowpieceFinding } from '../../src/cards/showpiece/find';
import type { LeastThatHolds } from '../../src/core/book/least-that-holds';
import { PLAIN_EXTRAS } from '../../src/core/card/settings';
import type { Cell } from '../../src/core/card/layout';
import { factNow } from '../facts';
import { looksAtPhoto, normalOf } from './measures';
import type { Burned, Observer } from './observer';
import { oncePer } from './once-per';
import { photographed } from './photographed';

/** By how much two looks at one part differ, as a share of the drawing's contrast. */
const EYE_SHARE = 0.05;

/**
 * How far a part stands out on the piece's own face: light before less light after, by how much of each pixel is drawn, as a straight line; no camera
 * is between.
 */
function contrastOf({ piece }: Pick<Burned, 'piece'>, { box, burns }: Cell): number {
  const { shape } = burns[0]!;
  if (shape.do !== 'picture') throw new Error('no drawing');
  const { columns, rows } = shape.wanted;
  const bytes = Buffer.from(shape.wanted.data, 'base64');
  const { width, pxPerMm, marginMm, before, after } = piece;
  const parts = 4;
  let [n, sm, st, smm, smt] = [0, 0, 0, 0, 0];
  for (let y = Math.ceil((box.y + marginMm) * pxPerMm); y + 1 <= (box.y + box.height + marginMm) * pxPerMm; y++)
    for (let x = Math.ceil((box.x + marginMm) * pxPerMm); x + 1 <= (box.x + box.width + marginMm) * pxPerMm; x++) {
      let drawn = 0;
      for (let k = 0; k < parts * parts; k++) {
        const u = ((x + ((k % parts) + 0.5) / parts) / pxPerMm - marginMm - box.x) / box.width;
        const v = ((y + (Math.floor(k / parts) + 0.5) / parts) / pxPerMm - marginMm - box.y) / box.height;
        if (bytes[Math.floor(v * rows) * columns + Math.floor(u * columns)]! > 0) drawn += 1 / parts ** 2;
      }
      const at = 3 * (y * width + x) + 1;
      const taken = 1 - after[at]! / before[at]!;
      n++;
      sm += drawn;
      st += taken;
      smm += drawn * drawn;
      smt += drawn * taken;
    }
  return (smt / n - (sm / n) * (st / n)) / (smm / n - (sm / n) ** 2);
}

/** How far each cell stands out, worked out once for each piece. */
export const contrastsOf = oncePer((burned: Pick<Burned, 'piece' | 'layout'>): readonly number[] =>
  burned.layout.cells.map((cell) => contrastOf(burned, cell)),
);

/** Of each part of a kind its size and how far it stands out against the drawing, from large to small. */
function sharesOf(burned: Burned, part: string): [sizeMm: number, share: number][] {
  const contrasts = contrastsOf(burned);
  return burned.layout.cells
    .filter(({ levels }) => levels.part === part)
    .map(({ index, levels }): [number, number] => [Number(levels.size), contrasts[index]! / contrasts[0]!])
    .sort((a, b) => b[0] - a[0]);
}

/** The size at which parts cease to hold, by a straight line between the two about it; of parts that all hold, or none of which does, the end. */
function limitOf(burned: Burned, part: string): number {
  const shares = sharesOf(burned, part);
  const first = shares.findIndex(([, share]) => share < HOLDS_SHARE);
  if (first < 0) return 0;
  if (first === 0) return Infinity;
  const [[large, over], [small, under]] = [shares[first - 1]!, shares[first]!];
  return small + ((HOLDS_SHARE - under) / (over - under)) * (large - small);
}

const claimOf = (least: LeastThatHolds | null): readonly [number, number] =>
  least ? [least.notMm ?? 0, least.fromMm ?? Infinity] : [0, Infinity];

const PARTS = ['lettering', 'hairline', 'point'] as const;

export const showpieceObserver: Observer<ShowpieceFinding> = {
  on: ['marl', 'mdf'],
  // Out of focus, so that small parts do not hold.
  facts: (pairing) => {
    const { plan } = showpiece.propose({ pairing, facts: [] });
    const settings = { ...plan.constants, ...PLAIN_EXTRAS, focusOffsetMm: 3 };
    return [factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null })];
  },
  look: (burned, seed) => {
    if (looksAtPhoto(seed)) return photographed(burned, seed, 3000);
    const contrasts = contrastsOf(burned);
    return {
      readings: [],
      // Nobody says anything of what they are not sure of.
      answers: burned.layout.cells.flatMap(({ index }) => {
        const share = contrasts[index]! / contrasts[0]! + EYE_SHARE * normalOf(`${seed} ${index}`);
        if (Math.abs(share - HOLDS_SHARE) < 2 * EYE_SHARE) return [];
        return [
          { field: COMES_OUT_FIELD, cellIndex: index, repeat: 0, value: share > HOLDS_SHARE ? 'clear' : 'faint' },
        ];
      }),
    };
  },
  truth: (burned) => PARTS.map((part) => limitOf(burned, part)),
  claims: ({ lettering, hairlines, points }) => [lettering, hairlines, points].map(claimOf),
  widestClaim: Infinity,
};
