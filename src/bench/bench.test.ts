import { describe, expect, it } from 'vitest';
import { srgbToLinear } from '../core/color/srgb';
import { bandOfWavelength, casualShot, photograph } from './bench';
import { SimulatedLaser, type LaserTruth, type Trace } from './laser';
import { burnPiece, PIECE_PX_PER_MM, trueLuminanceRatio, type BurnRequest } from './piece';
import { LatticeNoise, NoiseTable, randomFrom } from './random';
import { SPECIMENS } from './specimens';

const TRUTH: LaserTruth = {
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
  bedWidthMm: 200,
  bedDepthMm: 150,
};

function run(
  lines: readonly string[],
  truth: Partial<LaserTruth> = {},
): { traces: readonly Trace[]; elapsedS: number } {
  const laser = new SimulatedLaser({ ...TRUTH, ...truth });
  for (const line of lines) expect(laser.send(line), line).toEqual({ ok: true });
  return { traces: laser.finish(), elapsedS: laser.elapsedS };
}

const START = ['G21', 'G90', 'M3 S0', 'G0 X0 Y0'];

describe('the simulated laser moves', () => {
  const home = run(START).elapsedS;
  // Kinematics by hand: from rest to rest at 100 mm/s with 1000 mm/s², 10 mm take 0.2 s and 5 mm 0.1414 s.
  it.each([
    [10, 0.2],
    [5, 0.141421],
    [100, 1.1],
  ])('%f mm along x in %f s', (mm, seconds) => {
    expect(run([...START, `G1 X${mm} F6000 S0`]).elapsedS - home).toBeCloseTo(seconds, 5);
  });
  it('joins legs that go straight on at one feed, and stops where power alone does not change', () => {
    const whole = run([...START, 'G1 X60 F6000 S0']).elapsedS;
    const inParts = run([...START, 'G1 X20 F6000 S0', 'G1 X40 S500', 'G1 X60 S0']).elapsedS;
    expect(inParts).toBeCloseTo(whole, 9);
    const corner = run([...START, 'G1 X30 F6000 S0', 'G1 Y30 S0']).elapsedS;
    expect(corner).toBeGreaterThan(run([...START, 'G1 X60 F6000 S0']).elapsedS);
  });
  it('keeps each axis within its own limits', () => {
    const along = run([...START, 'G0 X150']).elapsedS - home;
    const across = run([...START, 'G0 Y150']).elapsedS - home;
    expect(across).toBeGreaterThan(along);
  });
});

describe('the simulated laser burns', () => {
  it('watts over speed for each millimetre when it cruises', () => {
    const { traces } = run([...START, 'G1 X10 F6000 S0', 'G1 X40 S500', 'G1 X50 S0']);
    expect(traces).toHaveLength(1);
    expect(traces[0]).toMatchObject({ x0: 10, x1: 40, watts: 10 });
    expect(traces[0]!.joulesPerMm).toBeCloseTo(0.1, 9);
  });
  it('more at the ends of a line without run-up: dark bars', () => {
    const { traces } = run([...START, 'G1 X40 F6000 S500']);
    const middle = traces[Math.floor(traces.length / 2)]!;
    expect(traces[0]!.joulesPerMm).toBeGreaterThan(2 * middle.joulesPerMm);
  });
  it('nothing below its firing command, nothing when it is not armed', () => {
    expect(run([...START, 'G1 X40 F6000 S40']).traces).toEqual([]);
    expect(run(['G0 X0 Y0', 'G1 X40 F6000 S500']).traces).toEqual([]);
    expect(run([...START, 'M5', 'G1 X40 F6000 S500']).traces).toEqual([]);
  });
  it('late by its lag, in the direction it goes', () => {
    const lines = ['G1 X10 F6000 S0', 'G1 X40 S500', 'G1 X60 S0', 'G1 X40 S0', 'G1 X10 S500', 'G1 X0 S0'];
    const { traces } = run([...START, ...lines], { lagS: 0.001 });
    expect(traces[0]!.x0).toBeCloseTo(10.1, 6);
    expect(traces.at(-1)!.x1).toBeCloseTo(9.9, 6);
  });
});

describe('the simulated laser refuses', () => {
  it.each([
    ['an unknown word', 'G2 X1 Y1'],
    ['an unknown letter', 'G1 X1 Q3'],
    ['an unknown M word', 'M30'],
    ['a place outside the bed', 'G0 X201'],
    ['a place before the bed', 'G0 X-1'],
    ['a move without a feed', 'G1 X5 S0'],
    ['a feed of nothing', 'G1 X5 F0'],
    ['power beyond its scale', 'G1 X5 F600 S1001'],
    ['what it cannot read', 'G1 X5 Ffast'],
  ])('%s, and stays where it is', (_name, line) => {
    const laser = new SimulatedLaser(TRUTH);
    laser.send('G0 X3 Y4');
    const answer = laser.send(line);
    expect(answer.ok).toBe(false);
    expect(laser.headPlace).toEqual({ x: 3, y: 4 });
  });
  it('everything after the program’s end, but not comments and empty lines before it', () => {
    const laser = new SimulatedLaser(TRUTH);
    for (const line of ['', '(a word)', '; another', 'M2']) expect(laser.send(line)).toEqual({ ok: true });
    expect(laser.send('G0 X1').ok).toBe(false);
  });
});

/** A filled square of 6 mm in the middle of a 10 mm card. */
function square(joulesPerMm2: number, change: Partial<BurnRequest> = {}): BurnRequest {
  const interval = 0.1;
  const traces: Trace[] = [];
  for (let y = 2; y < 8; y += interval)
    traces.push({ x0: 2, y0: y, x1: 8, y1: y, joulesPerMm: joulesPerMm2 * interval, watts: 10, focusOffsetMm: 0 });
  return {
    specimen: { ...SPECIMENS['mdf']!, smoke: 0 },
    traces,
    widthMm: 10,
    heightMm: 10,
    marginMm: 1,
    spot: { xMm: 0.1, yMm: 0.14, rayleighMm: 1.4 },
    band: 'far',
    grainAlongX: true,
    seed: 'square',
    ...change,
  };
}
const CELL = { x: 2, y: 2, width: 6, height: 6 };

describe('simulated stock', () => {
  it('stays as it was where and when nothing burns it', () => {
    expect(trueLuminanceRatio(burnPiece(square(0)), CELL)).toBeCloseTo(1, 2);
    expect(trueLuminanceRatio(burnPiece(square(1)), { x: -0.8, y: 0, width: 1, height: 10 })).toBeCloseTo(1, 2);
  });
  it('darkens with energy until it is spoiled; slate and two-layer stock lighten', () => {
    const ratios = [0.05, 0.2, 0.5, 1, 2].map((energy) => trueLuminanceRatio(burnPiece(square(energy)), CELL));
    ratios.slice(1).forEach((ratio, index) => expect(ratio).toBeLessThan(ratios[index]!));
    expect(trueLuminanceRatio(burnPiece(square(8)), CELL)).toBeGreaterThan(ratios.at(-1)!);
    for (const family of ['slate', 'two-layer']) {
      expect(trueLuminanceRatio(burnPiece(square(0.8, { specimen: SPECIMENS[family]! })), CELL)).toBeGreaterThan(2);
    }
  });
  it('marks less out of focus at the same energy near the threshold, and by what it absorbs', () => {
    const sharp = trueLuminanceRatio(burnPiece(square(1)), CELL);
    const blue = trueLuminanceRatio(burnPiece(square(1, { band: 'blue' })), CELL);
    const near = trueLuminanceRatio(burnPiece(square(1, { band: 'near' })), CELL);
    expect(sharp).toBeLessThan(blue);
    expect(blue).toBeLessThan(near);
  });
  it('is the same for the same seed and another for another', () => {
    const one = burnPiece(square(1));
    expect(burnPiece(square(1)).after).toEqual(one.after);
    expect(burnPiece(square(1, { seed: 'other' })).after).not.toEqual(one.after);
    expect(one.width).toBe(12 * PIECE_PX_PER_MM);
  });
});

describe('the simulated camera', () => {
  const piece = burnPiece(square(2));
  const shot = {
    ...casualShot('test'),
    widthPx: 800,
    heightPx: 600,
    tiltDegrees: 18,
    noise: 0,
    vignette: 0,
    lightFall: 1,
  };
  it('shows the burn where it says it does', () => {
    const photo = photograph(piece, shot);
    const level = (x: number, y: number): number => {
      const at = photo.placeOf(x, y);
      return photo.data[(Math.round(at.y) * photo.width + Math.round(at.x)) * 3 + 1]!;
    };
    const inside = level(5, 5);
    const outside = level(1, 1);
    expect(inside).toBeLessThan(outside * 0.6);
    for (const [x, y] of [
      [2.3, 5],
      [7.7, 5],
      [5, 2.3],
      [5, 7.7],
    ] as const)
      expect(level(x, y)).toBeLessThan(outside * 0.8);
    for (const [x, y] of [
      [1.5, 5],
      [8.5, 5],
      [5, 1.5],
      [5, 8.5],
    ] as const)
      expect(level(x, y)).toBeGreaterThan(outside * 0.8);
  });
  it('is dimmer at one end by the light’s fall', () => {
    const photo = photograph(burnPiece(square(0)), {
      ...shot,
      lightFall: 0.5,
      lightDegrees: 0,
      tiltDegrees: 0,
      rollDegrees: 0,
    });
    const linear = (x: number): number => {
      const at = photo.placeOf(x, 5);
      return srgbToLinear(photo.data[(Math.round(at.y) * photo.width + Math.round(at.x)) * 3 + 1]! / 255);
    };
    const ratio = linear(9.8) / linear(0.2);
    // 0.5 from edge to edge; a little less between places 0.2 mm inside it, and the sheet has its own texture.
    expect(ratio).toBeGreaterThan(0.47);
    expect(ratio).toBeLessThan(0.57);
  });
  it('takes the same photo from the same seed', () => {
    expect(photograph(piece, shot).data).toEqual(photograph(piece, shot).data);
    expect(casualShot('a')).toEqual(casualShot('a'));
    for (let seed = 0; seed < 40; seed++) {
      const { tiltDegrees, lightFall, widthPx, heightPx } = casualShot(`limits ${seed}`);
      expect(tiltDegrees).toBeLessThanOrEqual(25);
      expect(lightFall).toBeGreaterThanOrEqual(0.5);
      expect((widthPx * heightPx) / 1e6).toBeGreaterThan(8);
      expect((widthPx * heightPx) / 1e6).toBeLessThanOrEqual(12);
    }
  });
});

describe('randomness', () => {
  it('is normal enough, smooth enough, and seeded', () => {
    const noise = new NoiseTable(randomFrom('noise'));
    const values = Array.from({ length: 20000 }, () => noise.next());
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    const variance = values.reduce((sum, value) => sum + value * value, 0) / values.length;
    expect(mean).toBeCloseTo(0, 1);
    expect(variance).toBeCloseTo(1, 1);
    const lattice = new LatticeNoise(randomFrom('lattice'));
    for (let k = 0; k < 200; k++) {
      expect(Math.abs(lattice.at(k * 0.37, 5.5))).toBeLessThanOrEqual(1);
      expect(Math.abs(lattice.at(k * 0.37, 5.5) - lattice.at(k * 0.37 + 0.001, 5.5))).toBeLessThan(0.01);
    }
    expect(randomFrom('a')()).toBe(randomFrom('a')());
  });
  it.each([
    [355, 'ultraviolet'],
    [450, 'blue'],
    [1064, 'near'],
    [10600, 'far'],
  ] as const)('%i nm is %s', (nm, band) => expect(bandOfWavelength(nm)).toBe(band));
});
