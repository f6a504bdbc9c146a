import type { BedPlace } from '../core/card/check';
import type { Layout } from '../core/card/layout';
import type { Step } from '../core/card/steps';
import { PLAIN_EXTRAS } from '../core/card/settings';
import { rectOutline } from '../core/card/shape';
import { programAxes, toProgram } from '../core/machine/coordinates';
import { ZERO_PLACES, type Machine } from '../core/machine/machine';
import { FULL_POWER_S, programComment, programNumber } from './gcode';

/** Slow enough to be followed by eye. */
const SLOW_MM_PER_S = 40;
/** Fast enough that the lowest power that fires leaves as little as can be. */
const QUICK_MM_PER_S = 200;

/**
 * A program that goes once round a card's outline, so that its place can be seen before anything is burned: without power, or with the
 * lowest power that fires, as fast as the head goes, for machines that have no pointer. The lit one may leave a faint line; eyewear on.
 */
export function outlineProgram(layout: Layout, machine: Machine, place: BedPlace, lit: boolean): string {
  const { widthMm, heightMm } = layout;
  const axes = programAxes(machine, { ...place, widthMm, heightMm });
  const at = (x: number, y: number): string => {
    const to = toProgram(axes, { x: place.leftMm + x, y: place.rearMm + y });
    return `X${programNumber(to.x)} Y${programNumber(to.y)}`;
  };
  const [start, ...rest] = rectOutline({ x: 0, y: 0, width: widthMm, height: heightMm });
  const top = Math.min(machine.topSpeedXMmPerS, machine.topSpeedYMmPerS);
  const speed = Math.min(top, lit ? QUICK_MM_PER_S : SLOW_MM_PER_S);
  // Rounded up: what is below the lowest command does not fire at all.
  const s = lit ? Math.max(1, Math.ceil(machine.lowestFiringCommand * FULL_POWER_S)) : 0;
  const lines = [
    `(outline of card ${layout.code}, ${lit ? 'lowest power that fires: may leave a faint line' : 'no power'})`,
    `(zero: ${programComment(ZERO_PLACES[machine.zero])})`,
    'G21',
    'G90',
    'G94',
    'G17',
    'M5',
    'M9',
    ...(machine.zero === 'head' ? ['G92 X0 Y0'] : []),
    ...(lit ? [machine.rampPower === 'follows-speed' ? 'M4 S0' : 'M3 S0'] : []),
    `G0 ${at(start!.x, start!.y)} S0`,
    ...rest.map(({ x, y }, index) => `G1 ${at(x, y)}${index === 0 ? ` F${programNumber(speed * 60)}` : ''} S${s}`),
    'M5',
    ...(machine.zero === 'head' ? ['G92.1'] : []),
    'M2',
    '',
  ];
  return lines.join('\n');
}

/** The outline as a step of its own, for drawing programs. */
export function outlineStep({ widthMm, heightMm }: Layout, machine: Machine): Step {
  return {
    number: 1,
    name: 'outline only',
    does: 'follow',
    settings: {
      powerFraction: machine.lowestFiringCommand,
      speedMmPerS: SLOW_MM_PER_S,
      intervalMm: 1,
      passes: 1,
      focusOffsetMm: 0,
      air: 'off',
      direction: 'horizontal',
      bothWays: true,
      ...PLAIN_EXTRAS,
    },
    shapes: [{ do: 'follow', lines: [rectOutline({ x: 0, y: 0, width: widthMm, height: heightMm })] }],
    cells: [],
  };
}
