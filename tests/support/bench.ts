import { expect } from 'vitest';
import { SimulatedLaser, type Trace } from '../../src/bench/laser';
import { letsThroughOf } from '../../src/bench/light-through';
import type { BurnRequest } from '../../src/bench/piece';
import { SPECIMENS } from '../../src/bench/specimens';
import type { LaserTruth } from '../../src/bench/truth';
import { tuples } from './tuples';

/** A laser without errors, whose numbers can be followed by hand. */
export const TRUTH: LaserTruth = {
  ratedPowerW: 20,
  efficiency: 1,
  powerExponent: 1,
  firingCommand: 0.05,
  accelerationXMmPerS2: 1000,
  accelerationYMmPerS2: 500,
  topSpeedXMmPerS: 300,
  topSpeedYMmPerS: 200,
  lineOverheadS: 0,
  lagS: 0,
  slowOnS: 0,
  scaleX: 1,
  scaleY: 1,
  linedUpX: 0,
  linedUpY: 0,
  cornerMm: 0.01,
  board: null,
  bedWidthMm: 200,
  bedDepthMm: 150,
  laserMode: true,
  addsRunUp: false,
  setFocusMm: 20,
  clearanceMm: 5,
  handOffMm: [0],
  tiltX: 0,
  tiltY: 0,
  lossAlongX: 0,
  lossAlongY: 0,
  zeroX: 0,
  zeroY: 0,
  xSign: 1,
  ySign: 1,
  startX: 0,
  startY: 150,
  mirrors: null,
  fieldMm: null,
};

/** What it draws under lines of a program, each of which it must take, and how long it was about it. */
export function run(
  lines: readonly string[],
  truth: Partial<LaserTruth> = {},
): { traces: readonly Trace[]; elapsedS: number } {
  const laser = new SimulatedLaser({ ...TRUTH, ...truth });
  for (const line of lines) expect(laser.send(line), line).toEqual({ ok: true });
  return { traces: laser.finish(), elapsedS: laser.elapsedS };
}

/** A filled square of 6 mm in the middle of a 10 mm card. */
export function square(joulesPerMm2: number, change: Partial<BurnRequest> = {}): BurnRequest {
  const interval = 0.1;
  const traces: Trace[] = [];
  for (let y = 2; y < 8; y += interval)
    traces.push({
      x0: 2,
      y0: y,
      x1: 8,
      y1: y,
      joulesPerMm: joulesPerMm2 * interval,
      watts: 10,
      speedMmPerS: 100,
      focusOffsetMm: 0,
      air: 'on',
    });
  return {
    specimen: { ...SPECIMENS['mdf']!, smoke: 0 },
    lets: letsThroughOf({ family: 'mdf', type: '' }),
    traces,
    widthMm: 10,
    heightMm: 10,
    marginMm: 1,
    thicknessMm: 3,
    wiped: false,
    spot: { xMm: 0.1, yMm: 0.14, rayleighMm: 1.4 },
    band: 'far',
    grainAlongX: true,
    seed: 'square',
    ...change,
  };
}
export const CELL = { x: 2, y: 2, width: 6, height: 6 };

/** A square of 8 mm followed round, with so much energy for each mm, in so many passes. */
export function cutSquare(joulesPerMm: number, passes: number, change: Partial<BurnRequest> = {}): BurnRequest {
  const corners = tuples([4, 4], [12, 4], [12, 12], [4, 12], [4, 4]);
  const traces: Trace[] = [];
  for (let pass = 0; pass < passes; pass++)
    for (let side = 0; side < 4; side++) {
      const [[x0, y0], [x1, y1]] = [corners[side]!, corners[side + 1]!];
      traces.push({ x0, y0, x1, y1, joulesPerMm, watts: 30, speedMmPerS: 20, focusOffsetMm: 0, air: 'on' });
    }
  return square(0, { traces, widthMm: 16, heightMm: 16, ...change });
}
export const PART = { x: 4, y: 4, width: 8, height: 8 };
