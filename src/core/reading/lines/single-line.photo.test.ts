import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { drawnPatch, type DrawnPatch } from '../../../../tests/support/drawn-lines';
import { meanAndSpread } from '../../stats/robust';
import { blurBetween } from './blur';
import { lineIn, offsetBetween } from './single-line';

const LONG = 6;
const HIGH = 0.8;
interface Line {
  readonly wide: number;
  readonly beside?: number;
  readonly dark?: number;
  readonly ragged?: number;
  readonly seed?: string;
}
/** One horizontal line in the middle of a band; each edge wanders by steps of half a millimetre, by a normal law. */
function line({ wide, beside = 0, dark = 0.2, ragged = 0, seed = 'line' }: Line): DrawnPatch['share'] {
  const random = seedrandom(seed);
  const steps = Array.from({ length: 2 * LONG + 2 }, () =>
    [0, 1].map(() => ragged * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())),
  );
  return (x, y) => {
    const [above, below] = steps[Math.max(0, Math.min(steps.length - 1, Math.floor(2 * x)))]!;
    const across = y - HIGH / 2 - beside;
    return across > -wide / 2 + above! && across < wide / 2 + below! ? dark : 1;
  };
}
const photo = (share: DrawnPatch['share'], more: Partial<DrawnPatch> = {}) =>
  drawnPatch({ widthMm: LONG, heightMm: HIGH, pxPerMm: 44, turned: 0.9, noise: 0.004, share, ...more });
const BAND = { x: 0.5, y: 0, width: LONG - 1, height: HIGH };
const pixel = (pxPerMm: number): number => 1 / Math.sqrt(12) / pxPerMm;
const look = (share: DrawnPatch['share'], more: Partial<DrawnPatch> = {}) => {
  const blurMm = Math.hypot(more.blurMm ?? 0, pixel(more.pxPerMm ?? 44));
  return lineIn(photo(share, more), BAND, { run: 'horizontal', blur: blurBetween(blurMm, blurMm) });
};

describe('a line by itself', () => {
  it.each([0.06, 0.1, 0.2])('of %d mm is as wide as it was drawn, sharp and blurred', (wide) => {
    expect(Math.abs(look(line({ wide }))!.widthMm! - wide)).toBeLessThan(0.004);
    expect(Math.abs(look(line({ wide }), { blurMm: 0.03 })!.widthMm! - wide)).toBeLessThan(0.008);
    // A bright line on dark stock is one as well.
    expect(Math.abs(look(line({ wide, dark: 1.7 }))!.widthMm! - wide)).toBeLessThan(0.004);
  });

  it('is told to be less sure of where the blur is not known', () => {
    const by = (leastMm: number, mostMm: number) =>
      lineIn(photo(line({ wide: 0.06 }), { blurMm: 0.02 }), BAND, {
        run: 'horizontal',
        blur: blurBetween(leastMm, mostMm),
      })!;
    const seen = by(0.008, 0.025);
    expect(seen.widthSigmaMm!).toBeGreaterThan(1.5 * by(0.02, 0.02).widthSigmaMm!);
    expect(Math.abs(seen.widthMm! - 0.06)).toBeLessThan(2 * seen.widthSigmaMm!);
  });

  it('is told without a width where it is sharper than the camera is said to show anything', () => {
    const seen = lineIn(photo(line({ wide: 0.06 })), BAND, { run: 'horizontal', blur: blurBetween(0.06, 0.09) })!;
    expect(Math.abs(seen.besideMm)).toBeLessThan(0.005);
    expect([seen.widthMm, seen.widthSigmaMm, seen.raggedMm, seen.depth, seen.profile]).toEqual([
      null,
      null,
      null,
      null,
      null,
    ]);
  });

  it('that falls like a normal law is as wide as that, and no wider than a hard-edged one that is seen so', () => {
    const [sigma, blurMm] = [0.02, 0.015];
    const soft: DrawnPatch['share'] = (_, y) => 1 - 0.6 * Math.exp(-(((y - HIGH / 2) / sigma) ** 2) / 2);
    const seen = look(soft, { blurMm })!;
    expect(Math.abs(seen.widthMm! - 2.3548 * sigma)).toBeLessThan(0.004);
    expect(Math.abs(seen.widthMm! - 2.3548 * sigma)).toBeLessThan(2.5 * seen.widthSigmaMm!);
  });

  it('over a stain is no surer for standing out: it is not seen to fall to a quarter of its height, and its shape is not known then', () => {
    // A broad stain lies under the line, a third as strong.
    const [sigma, blurMm] = [0.02, 0.015];
    const soft = (y: number): number => 0.6 * Math.exp(-(((y - HIGH / 2) / sigma) ** 2) / 2);
    const stained: DrawnPatch['share'] = (_, y) => 1 - soft(y) - (Math.abs(y - HIGH / 2) < 0.22 ? 0.26 : 0);
    const [clean, seen] = [look((_, y) => 1 - soft(y), { blurMm })!, look(stained, { blurMm })!];
    expect(seen.widthSigmaMm!).toBeGreaterThan(clean.widthSigmaMm!);
  });

  it('is so ragged as its edges wander, and straight ones are not ragged', () => {
    const seen = Array.from({ length: 8 }, (_, k) => look(line({ wide: 0.15, ragged: 0.012, seed: `ragged ${k}` }))!);
    const ragged = meanAndSpread(seen.map(({ raggedMm }) => raggedMm!));
    // Eight lines of ten steps and two edges each: sure to 8 %.
    expect(Math.abs(ragged.mean - 0.012)).toBeLessThan(0.003);
    expect(ragged.spread).toBeLessThan(3 * seen[0]!.raggedSigmaMm!);
    const straight = look(line({ wide: 0.15 }))!;
    expect(straight.raggedMm!).toBeLessThan(3 * straight.raggedSigmaMm!);
    expect(straight.raggedMm!).toBeLessThan(0.004);
  });

  it('lies where it was drawn, from 15 px/mm on', () => {
    const [from, to] = [0.013, -0.037].map((beside) => look(line({ wide: 0.12, beside }), { pxPerMm: 16 })!);
    expect(from!.widthMm).toBeNull();
    expect(from!.raggedMm).toBeNull();
    const offset = offsetBetween(from!, to!);
    expect(Math.abs(offset.mm + 0.05)).toBeLessThan(Math.max(0.003, 3 * offset.sigmaMm));
    expect(offset.sigmaMm).toBeLessThan(0.004);
  });

  it('is told by what stands out of it: stretches far paler than the others have no edges there', () => {
    const faint = (from: number, part: number): DrawnPatch['share'] => {
      const whole = line({ wide: 0.12 });
      return (x, y) => (x < from ? 1 - part * (1 - whole(x, y)) : whole(x, y));
    };
    const [seen, plain] = [look(faint(2.4, 0.3))!, look(line({ wide: 0.12 }))!];
    expect(Math.abs(seen.widthMm! - 0.12)).toBeLessThan(0.006);
    expect(seen.raggedMm!).toBeLessThan(0.006);
    expect(seen.besideSigmaMm).toBeLessThan(3 * plain.besideSigmaMm);
    // Where less than half of it does, no line is told.
    expect(look(faint(4.6, 0.1))).toBeNull();
  });
  it('is not told by fewer pixels, nor where none is', () => {
    expect(look(line({ wide: 0.12 }), { pxPerMm: 14 })).toBeNull();
    expect(look(() => 1)).toBeNull();
    expect(look(line({ wide: 0.12, dark: 0.99 }), { noise: 0.02 })).toBeNull();
  });
});
