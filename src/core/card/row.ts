import type { Rect } from '../geometry/point';

/** Boxes of `count` equal cells side by side, from the left. */
export function rowOfBoxes(count: number, widthMm: number, heightMm: number, gapMm: number): Rect[] {
  const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;
  return Array.from({ length: count }, (_, index) => ({
    x: round(index * (widthMm + gapMm)),
    y: 0,
    width: widthMm,
    height: heightMm,
  }));
}

/** Boxes of `count` equal cells under one another, from the top. */
export function columnOfBoxes(count: number, widthMm: number, heightMm: number, gapMm: number): Rect[] {
  return rowOfBoxes(count, heightMm, widthMm, gapMm).map(({ x, width, height }) => ({
    x: 0,
    y: x,
    width: height,
    height: width,
  }));
}
