import { describe, expect, it } from 'vitest';
import { srgbToLinear } from '../core/color/srgb';
import { bandOfWavelength, casualShot, photograph } from './bench';
import { SimulatedLaser, type Trace } from './laser';
import type { LaserTruth } from './truth';
import { deposit } from './deposit';
import { caliperReading, depthReading, isLoose, lightTable } from './gauges';
import { burnPiece, trueLuminanceRatio, type BurnRequest } from './piece';
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
  laserMode: true,
  addsRunUp: false,
  setFocusMm: 20,
  clearanceMm: 5,
  tiltX: 0,
  tiltY: 0,
  lossAlongX: 0,
  lossAlongY: 0,
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
    expect(traces[0]!.x0).toBe(10);
    expect(traces.at(-1)!.x1).toBe(40);
    for (const trace of traces) {
      expect(trace.watts).toBe(10);
      expect(trace.joulesPerMm).toBeCloseTo(0.1, 9);
    }
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

describe('the simulated laser is as unforgiving as a real one', () => {
  const RAPID = ['G21', 'G90', 'M3 S0', 'G0 X10 Y50', 'G1 X40 F6000 S500', 'G0 X100'];
  it('burns on along a rapid that carries power, out of laser mode, and not in it', () => {
    expect(Math.max(...run(RAPID, { laserMode: false }).traces.map((trace) => trace.x1))).toBeGreaterThan(99);
    expect(Math.max(...run(RAPID).traces.map((trace) => trace.x1))).toBeLessThan(41);
    const careful = [...RAPID.slice(0, -1), 'G0 X100 S0'];
    expect(Math.max(...run(careful, { laserMode: false }).traces.map((trace) => trace.x1))).toBeLessThan(41);
  });
  it('burns a dot where it stands with the beam on, unless laser mode keeps it dark', () => {
    const standing = (arm: string, laserMode: boolean, disarm = false): number => {
      const laser = new SimulatedLaser({ ...TRUTH, laserMode });
      for (const line of ['G90', `${arm} S0`, 'G0 X50 Y50', 'G1 X60 F6000 S500']) laser.send(line);
      if (disarm) laser.send('M5');
      laser.hold(2);
      return Math.max(0, ...laser.finish().map((trace) => trace.joulesPerMm));
    };
    expect(standing('M3', false)).toBeGreaterThan(100);
    expect(standing('M3', true)).toBeGreaterThan(100);
    expect(standing('M4', true)).toBeLessThan(10);
    expect(standing('M3', false, true)).toBeLessThan(10);
  });
  it('lowers power with speed on ramps under M4, and not out of laser mode', () => {
    const ends = (arm: string, laserMode: boolean): number => {
      const { traces } = run(['G21', 'G90', `${arm} S0`, 'G0 X0 Y0', 'G1 X40 F6000 S500'], { laserMode });
      return traces[0]!.joulesPerMm / traces[Math.floor(traces.length / 2)]!.joulesPerMm;
    };
    expect(ends('M4', true)).toBeCloseTo(1, 6);
    expect(ends('M3', true)).toBeGreaterThan(2);
    expect(ends('M4', false)).toBeGreaterThan(2);
  });
  it('waits at M0 for a hand, takes nothing meanwhile, and focuses where the hand left it', () => {
    const laser = new SimulatedLaser(TRUTH);
    for (const line of ['G90', 'M3 S0', 'G0 X10 Y50', 'M5', 'M0 (set focus)']) laser.send(line);
    expect(laser.waitsForHand).toBe(true);
    expect(laser.send('M3 S0').ok).toBe(false);
    expect(laser.proceed({ focusOffsetMm: 1.5 })).toBe(true);
    expect(laser.proceed({ focusOffsetMm: 0 })).toBe(false);
    for (const line of ['M3 S0', 'G1 X20 F6000 S500']) expect(laser.send(line)).toEqual({ ok: true });
    expect(laser.finish().every((trace) => trace.focusOffsetMm === 1.5)).toBe(true);
  });
  it('crashes when Z sends the head into the work, by either way of telling it, and takes nothing after', () => {
    for (const lines of [
      ['G91', 'G0 Z-6'],
      ['G90', 'G0 Z0'],
    ]) {
      const laser = new SimulatedLaser(TRUTH);
      const answers = lines.map((line) => laser.send(line));
      expect(answers.at(-1)).toMatchObject({ ok: false });
      expect(laser.send('G90').ok).toBe(false);
    }
    // An absolute Z that means "0 above the focus" to whoever wrote it means the lowest place to this head.
    const relative = new SimulatedLaser(TRUTH);
    for (const line of ['G91', 'G0 Z2', 'G90']) expect(relative.send(line)).toEqual({ ok: true });
    expect(relative.focusOffsetMm).toBe(2);
  });
  it('runs up by itself where its controller does, and then needs none in the program', () => {
    const lines = [...START, 'G0 X50 Y50', 'G1 X80 F6000 S500'];
    const plain = run(lines);
    const adds = run(lines, { addsRunUp: true });
    expect(Math.max(...plain.traces.map((trace) => trace.joulesPerMm))).toBeGreaterThan(0.2);
    expect(Math.max(...adds.traces.map((trace) => trace.joulesPerMm))).toBeCloseTo(0.1, 6);
    expect(adds.elapsedS).toBeGreaterThan(plain.elapsedS);
  });
  it('stands over a bed that tilts, and loses power away from the mirrors', () => {
    const { traces } = run([...START, 'G0 X10 Y50', 'G1 X30 F600 S500', 'G0 X170 S0', 'G1 X190 S500'], {
      tiltX: 0.002,
      lossAlongX: 0.1,
    });
    const [first, last] = [traces[0]!, traces.at(-1)!];
    expect(last.focusOffsetMm - first.focusOffsetMm).toBeCloseTo(0.002 * 180, 1);
    expect(last.watts).toBeLessThan(first.watts);
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
    expect(one.width).toBe(12 * one.pxPerMm);
  });
});

describe('energy is neither lost nor found', () => {
  it.each([
    [0.4, 0.4, 'a broad spot'],
    [0.02, 0.02, 'a spot far smaller than a pixel'],
    [0.05, 0.3, 'an oblong one'],
  ])('%f x %f px: %s, along an axis and aslant', (sigmaX, sigmaY) => {
    for (const [x1, y1] of [
      [40, 20],
      [10, 45],
      [33, 37],
    ] as const) {
      // prettier-ignore
      let sum = 0;
      const window = { left: 0, top: 0, width: 60, height: 60 };
      deposit({ x0: 10, y0: 20, x1, y1 }, 7.5, { sigmaX: sigmaX * 3, sigmaY: sigmaY * 3 }, window, (_index, share) => {
        sum += share;
      });
      expect(sum).toBeCloseTo(7.5, 2);
    }
  });
  it('so a small spot marks like a large one at the same energy and interval, to a few per cent of tone', () => {
    // 0.02 mm spots at 0.02 mm against 0.1 mm spots at 0.1 mm: the same energy on every square millimetre.
    const fine = (spotMm: number): number => {
      const traces: Trace[] = [];
      for (let y = 2; y < 4; y += spotMm)
        traces.push({
          x0: 2,
          y0: y,
          x1: 4,
          y1: y,
          joulesPerMm: 0.5 * spotMm,
          watts: 10,
          speedMmPerS: 100,
          focusOffsetMm: 0,
          air: 'on',
        });
      const spot = { xMm: spotMm, yMm: spotMm, rayleighMm: 1.4 };
      const request = square(0, { traces, spot, widthMm: 6, heightMm: 6 });
      return trueLuminanceRatio(burnPiece(request), { x: 2, y: 2, width: 2, height: 2 });
    };
    expect(fine(0.02) / fine(0.1)).toBeGreaterThan(0.9);
    expect(fine(0.02) / fine(0.1)).toBeLessThan(1.1);
  });
});

/** A square of 8 mm followed round, with so much energy for each mm, in so many passes. */
function cutSquare(joulesPerMm: number, passes: number, change: Partial<BurnRequest> = {}): BurnRequest {
  const corners = [[4, 4], [12, 4], [12, 12], [4, 12], [4, 4]] as const; // prettier-ignore
  const traces: Trace[] = [];
  for (let pass = 0; pass < passes; pass++)
    for (let side = 0; side < 4; side++) {
      const [[x0, y0], [x1, y1]] = [corners[side]!, corners[side + 1]!];
      traces.push({ x0, y0, x1, y1, joulesPerMm, watts: 30, speedMmPerS: 20, focusOffsetMm: 0, air: 'on' });
    }
  return square(0, { traces, widthMm: 16, heightMm: 16, ...change });
}
const PART = { x: 4, y: 4, width: 8, height: 8 };

describe('cutting on the bench', () => {
  // Common practice: about 1 J/mm for each mm of MDF.
  it('comes through with enough energy and not with little; thicker sheets ask for more', () => {
    expect(isLoose(burnPiece(cutSquare(6, 1)), PART)).toBe(true);
    expect(isLoose(burnPiece(cutSquare(0.8, 1)), PART)).toBe(false);
    expect(isLoose(burnPiece(cutSquare(6, 1, { thicknessMm: 9 })), PART)).toBe(false);
  });
  it('comes through in several passes where one does not, but char makes them dearer than their sum', () => {
    const least = (passes: number): number => {
      let [low, high] = [0.3, 8];
      for (let turn = 0; turn < 7; turn++) {
        const middle = (low + high) / 2;
        if (isLoose(burnPiece(cutSquare(middle / passes, passes)), PART)) high = middle;
        else low = middle;
      }
      return high;
    };
    const [one, three] = [least(1), least(3)];
    expect(three).toBeGreaterThan(one);
    expect(three).toBeLessThan(3 * one);
  });
  it('is wider above than below, takes a usual kerf away, and shows on the light table', () => {
    const piece = burnPiece(cutSquare(5, 1));
    const gauge = { owner: 'Tester', turn: 0 };
    const across = caliperReading(piece, PART, 'x', gauge);
    const lost = 8 - Number('shows' in across && across.shows);
    expect(lost).toBeGreaterThan(0.03);
    expect(lost).toBeLessThan(0.4);
    // Across the left side: wider near the face than where it comes through.
    const row = Math.round((8 + 1) * piece.pxPerMm) * piece.width;
    const wide = (share: number): number => {
      const line = piece.depthMm.subarray(row, row + Math.round(8 * piece.pxPerMm));
      return line.filter((depth) => depth >= share * piece.thicknessMm).length / piece.pxPerMm;
    };
    expect(wide(0.2)).toBeGreaterThan(wide(0.995));
    expect(wide(0.995)).toBeGreaterThan(0.03);
    const light = lightTable(piece);
    const at = (x: number, y: number): number =>
      light.data[Math.round((y + 1) * piece.pxPerMm) * light.width + Math.round((x + 1) * piece.pxPerMm)]!;
    expect(at(4, 8)).toBeGreaterThan(200);
    expect(at(8, 8)).toBeLessThan(20);
  });
  it('cannot be measured before it has come loose, and repeats scatter by hundredths', () => {
    expect(caliperReading(burnPiece(cutSquare(0.8, 1)), PART, 'x', { owner: 'Tester', turn: 0 })).toHaveProperty(
      'cannot',
    );
    const piece = burnPiece(cutSquare(6, 1));
    const shown = [0, 1, 2, 3, 4, 5].map((turn) => {
      const answer = caliperReading(piece, PART, 'x', { owner: 'Tester', turn });
      return Number('shows' in answer ? answer.shows : NaN);
    });
    expect(new Set(shown).size).toBeGreaterThan(1);
    expect(Math.max(...shown) - Math.min(...shown)).toBeLessThan(0.08);
    expect(caliperReading(piece, PART, 'x', { owner: 'Tester', turn: 3 })).toEqual({ shows: shown[3]!.toFixed(2) });
  });
  it('has a depth gauge that finds more ground gone after more energy, none where it is through', () => {
    const depth = (energy: number): number => {
      const answer = depthReading(burnPiece(square(energy)), CELL, { owner: 'Tester', turn: 0 });
      return 'shows' in answer ? Number(answer.shows) : Infinity;
    };
    expect(depth(0)).toBeLessThan(0.02);
    expect(depth(6)).toBeGreaterThan(depth(3));
    expect(depth(40)).toBe(Infinity);
  });
  it('flares up only where stock is resinous, more often the longer the beam dwells', () => {
    const charred = (resin: number, speedMmPerS: number): number => {
      const mdf = SPECIMENS['mdf']!;
      const traces = square(3).traces.map((trace): Trace => ({ ...trace, speedMmPerS, air: 'off' }));
      const burned = (own: number): Float32Array =>
        burnPiece(square(3, { traces, specimen: { ...mdf, smoke: 0, solid: { ...mdf.solid, resin: own } } })).after;
      const [with_, without] = [burned(resin), burned(0)];
      return with_.reduce((count, value, index) => count + (value === without[index] ? 0 : 1), 0);
    };
    expect(charred(0, 1)).toBe(0);
    expect(charred(1, 1)).toBeGreaterThan(0);
    expect(charred(1, 500)).toBeLessThan(charred(1, 1));
  });
  it('is held up by pockets inside the sheet', () => {
    const mdf = SPECIMENS['mdf']!;
    const shallowest = (pockets: number): number => {
      const specimen = { ...mdf, smoke: 0, texture: { ...mdf.texture, pockets } };
      const piece = burnPiece(cutSquare(2.5, 1, { specimen }));
      const row = Math.round((4 + 1) * piece.pxPerMm - 0.5) * piece.width;
      const from = Math.round(6 * piece.pxPerMm);
      return Math.min(...piece.depthMm.subarray(row + from, row + Math.round(12 * piece.pxPerMm)));
    };
    expect(shallowest(400)).toBeLessThan(0.95 * shallowest(0));
  });
  it('leaves soot that wipes off, more without air', () => {
    const sooty = { ...SPECIMENS['mdf']!, smoke: 0.7 };
    const beside = { x: 0, y: 0.4, width: 10, height: 1 };
    const dim = (change: Partial<BurnRequest>): number =>
      trueLuminanceRatio(burnPiece(square(3, { specimen: sooty, ...change })), beside);
    const noAir = square(3).traces.map((trace): Trace => ({ ...trace, air: 'off' }));
    expect(dim({ traces: noAir })).toBeLessThan(dim({}));
    expect(dim({ wiped: true })).toBeGreaterThan(dim({}));
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
