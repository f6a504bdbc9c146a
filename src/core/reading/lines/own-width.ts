import { normalSum } from '../../stats/normal';

/** How wide a line is seen in mm: at half its height, and at a quarter and at three quarters of it, which tell its shape. */
export interface SeenWidths {
  readonly quarterMm: number;
  readonly halfMm: number;
  readonly threeQuartersMm: number;
}

const TURNS = 26;
/** A band so many times as wide as its edges are soft is hard-edged. */
const HARD = 30;

function bisected(from: number, to: number, isTooLow: (value: number) => boolean): number {
  let [low, high] = [from, to];
  for (let turn = 0; turn < TURNS; turn++) {
    const middle = (low + high) / 2;
    if (isTooLow(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** How wide an even band, softened by a normal law, is at a part of its height. */
function widthAt(part: number, bandMm: number, softMm: number): number {
  if (softMm <= 0) return bandMm;
  const heightAt = (x: number): number =>
    bandMm < 1e-6 * softMm
      ? Math.exp(-((x / softMm) ** 2) / 2)
      : normalSum((x + bandMm / 2) / softMm) - normalSum((x - bandMm / 2) / softMm);
  const level = part * heightAt(0);
  return 2 * bisected(0, bandMm / 2 + 4 * softMm, (x) => heightAt(x) > level);
}

/** The band that is seen so wide at half its height once it is softened by so much; 0 where softness alone is wider. */
const bandOf = (halfMm: number, softMm: number): number =>
  bisected(0, halfMm, (band) => widthAt(0.5, band, softMm) < halfMm);

/**
 * How wide a line is at half its height without the camera's blur, a normal law of `blurMm`. The line is taken for an even band with soft edges: how
 * much narrower it is seen high up than low down tells how soft they are, between a hard-edged band, which a blur hardly widens, and a normal law, which
 * it widens most. Softness is the blur's first and the line's own beyond that. 0 where the blur alone is as wide.
 */
export function ownWidth({ quarterMm, halfMm, threeQuartersMm }: SeenWidths, blurMm: number): number {
  const shape = threeQuartersMm / quarterMm;
  const times = bisected(0, HARD, (band) => widthAt(0.75, band, 1) / widthAt(0.25, band, 1) < shape);
  const softMm = halfMm / widthAt(0.5, times, 1);
  if (softMm <= blurMm) return bandOf(halfMm, blurMm);
  return widthAt(0.5, times * softMm, Math.sqrt(softMm ** 2 - blurMm ** 2));
}
