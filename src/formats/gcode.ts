import { cardPath, type PathStep } from '../core/card/path';
import type { BedPlace } from '../core/card/check';
import type { Layout } from '../core/card/layout';
import type { Machine } from '../core/machine/machine';
import type { Point } from '../core/geometry/point';

/** S word of full rated power. */
export const FULL_POWER_S = 1000;

const coordinate = (valueMm: number): string => {
  const text = valueMm.toFixed(3).replace(/\.?0+$/, '');
  return text === '-0' ? '0' : text;
};

const AIR_WORDS: Readonly<Record<'off' | 'low' | 'on', string>> = { off: 'M9', low: 'M7', on: 'M8' };

/**
 * A card as RS-274 G-code for a machine: absolute millimetres, feed in mm/min, origin at the bed's front left corner with y
 * away from the operator, power by the S word (0..1000), run-up as moves with S0. The words used are listed in docs/formats.md.
 * Deterministic: equal input gives equal bytes. Lines end with a line feed.
 */
export function gcodeOfCard(layout: Layout, machine: Machine, place: BedPlace): string {
  const lines: string[] = [
    `(card ${layout.code}, ${coordinate(layout.widthMm)} x ${coordinate(layout.heightMm)} mm)`,
    'G21',
    'G90',
    'G94',
    'G17',
    'M5',
    'M9',
    'M3 S0',
  ];
  const at = (point: Point): string =>
    `X${coordinate(place.leftMm + point.x)} Y${coordinate(machine.bedDepthMm - place.rearMm - point.y)}`;
  const state = { feed: '', air: 'M9', focus: 0 };
  const cut = (to: Point, speedMmPerS: number, s: number): void => {
    const feed = `F${coordinate(speedMmPerS * 60)}`;
    lines.push(`G1 ${at(to)}${feed === state.feed ? '' : ` ${feed}`} S${s}`);
    state.feed = feed;
  };
  for (const step of cardPath(layout, machine)) emit(step);
  lines.push('M5', 'M9', 'M2');
  return `${lines.join('\n')}\n`;

  function emit(step: PathStep): void {
    if (step.step === 'part') {
      lines.push(`(${step.name})`);
      const air = AIR_WORDS[step.air];
      if (air !== state.air) lines.push((state.air = air));
      if (step.focusOffsetMm !== state.focus) {
        state.focus = step.focusOffsetMm;
        lines.push(
          machine.automaticFocus
            ? `G0 Z${coordinate(step.focusOffsetMm)}`
            : `M0 (set the focus offset to ${coordinate(step.focusOffsetMm)} mm by hand)`,
        );
      }
      return;
    }
    const s = Math.round(step.powerFraction * FULL_POWER_S);
    if (step.step === 'stroke') {
      lines.push(`G0 ${at(step.points[0]!)}`);
      for (const point of step.points.slice(1)) cut(point, step.speedMmPerS, s);
      return;
    }
    const length = Math.hypot(step.to.x - step.from.x, step.to.y - step.from.y);
    const ux = (step.to.x - step.from.x) / length;
    const uy = (step.to.y - step.from.y) / length;
    const along = (distance: number): Point => ({ x: step.from.x + ux * distance, y: step.from.y + uy * distance });
    lines.push(`G0 ${at(along(-step.runUpMm))}`);
    let head = -step.runUpMm;
    for (const { fromMm, toMm } of step.lit) {
      if (fromMm > head + 1e-9) cut(along(fromMm), step.speedMmPerS, 0);
      cut(along(toMm), step.speedMmPerS, s);
      head = toMm;
    }
    cut(along(length + step.runUpMm), step.speedMmPerS, 0);
  }
}
