import { describe, expect, it } from 'vitest';
import { run, TRUTH } from '../../tests/support/bench';
import { demoPairing } from '../../stand-ins/demo';
import { SimulatedLaser } from './laser';
import { benchMachineOf } from './of-records';
import { laserTruthOf } from './truth';
import { tuples } from '../../tests/support/tuples';

const START = ['G21', 'G90', 'M3 S0', 'G0 X0 Y0'];

describe('the simulated laser moves', () => {
  const home = run(START).elapsedS;
  // Kinematics by hand: from rest to rest at 100 mm/s with 1000 mm/s², 10 mm take 0.2 s and 5 mm 0.1414 s.
  it.each(tuples([10, 0.2], [5, 0.141421], [100, 1.1]))('%f mm along x in %f s', (mm, seconds) => {
    expect(run([...START, `G1 X${mm} F6000 S0`]).elapsedS - home).toBeCloseTo(seconds, 5);
  });
  it('joins legs that go straight on at one feed, and stops where power alone does not change', () => {
    const whole = run([...START, 'G1 X60 F6000 S0']).elapsedS;
    const inParts = run([...START, 'G1 X20 F6000 S0', 'G1 X40 S500', 'G1 X60 S0']).elapsedS;
    expect(inParts).toBeCloseTo(whole, 9);
    const corner = run([...START, 'G1 X30 F6000 S0', 'G1 Y30 S0']).elapsedS;
    expect(corner).toBeGreaterThan(run([...START, 'G1 X60 F6000 S0']).elapsedS);
  });
  it('goes round corners as on an arc that cuts them by so much, and turns back from rest', () => {
    // In a right angle an arc that passes the corner at 0.01 mm has a radius of 0.01 / (sqrt 2 - 1) mm; y has 500 mm/s².
    const speed = Math.sqrt((500 * 0.01) / (Math.SQRT2 - 1));
    const slow = ['G1 X30 F120 S500', 'G1 Y30'];
    // Two mm/s are less than that: no more time than straight on, but for ramps of either axis.
    expect(run([...START, ...slow]).elapsedS - home).toBeCloseTo(60 / 2 + 1 / 1000 + 1 / 500, 4);
    const { traces } = run([...START, 'G1 X30 F3000 S500', 'G1 Y30']);
    const atCorner = traces.filter(({ x0, y0 }) => Math.hypot(x0 - 30, y0) < 0.11);
    // Over a tenth of a millimetre it gains v² = 2 a s.
    for (const { speedMmPerS } of atCorner) {
      expect(speedMmPerS).toBeGreaterThan(speed);
      expect(speedMmPerS).toBeLessThan(Math.sqrt(speed ** 2 + 2 * 1000 * 0.11));
    }
    const back = run([...START, 'G1 X30 F3000 S500', 'G1 X0']).traces;
    expect(Math.min(...back.filter(({ x0 }) => x0 > 29.8).map(({ speedMmPerS }) => speedMmPerS))).toBeLessThan(11);
  });
  it('follows an outline of many short legs without slowing down', () => {
    const round = Array.from({ length: 36 }, (_, k) => {
      const angle = (k * 10 * Math.PI) / 180;
      return `G1 X${(20 + 6 * Math.sin(angle)).toFixed(4)} Y${(20 - 6 * Math.cos(angle)).toFixed(4)}${k === 0 ? ' F900 S500' : ''}`;
    });
    const { traces } = run([...START, 'G0 X20 Y14', ...round]);
    // At the beginning and the end it is at rest; v²/2a of 15 mm/s is 0.2 mm.
    const inBetween = traces.filter(({ x0, y0 }) => Math.hypot(x0 - 20, y0 - 14) > 1.5);
    expect(inBetween.length).toBeGreaterThan(20);
    for (const { speedMmPerS } of inBetween) expect(speedMmPerS).toBeCloseTo(15, 6);
    // Fast, it is slowed down over several legs before the end, as what is left of the way asks for.
    const fast = run([...START, 'G0 X20 Y14', ...round.map((line) => line.replace('F900', 'F3600'))]).traces;
    let leftMm = 0;
    for (const { x0, y0, x1, y1, speedMmPerS } of fast.toReversed()) {
      leftMm += Math.hypot(x1 - x0, y1 - y0);
      if (leftMm < 2) expect(speedMmPerS).toBeLessThan(Math.sqrt(2 * 1000 * leftMm) + 1);
    }
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
  it('further or less far than it was told by what its axes go wrong, from where the card was lined up', () => {
    const off = { scaleX: 1.01, scaleY: 0.98, linedUpX: 10, linedUpY: 50 };
    const { traces } = run([...START, 'G0 X10 Y50', 'G1 X40 F6000 S500', 'G1 Y20'], off);
    expect(traces[0]).toMatchObject({ x0: expect.closeTo(10, 9), y0: expect.closeTo(50, 9) });
    // 30 mm along x are 30.3, 30 mm along y 29.4.
    expect(Math.max(...traces.map(({ x1 }) => x1))).toBeCloseTo(40.3, 9);
    expect(traces.at(-1)!.y1).toBeCloseTo(50 - 29.4, 9);
  });
  it('late by its lag, in the direction it goes', () => {
    const lines = ['G1 X10 F6000 S0', 'G1 X40 S500', 'G1 X60 S0', 'G1 X40 S0', 'G1 X10 S500', 'G1 X0 S0'];
    const { traces } = run([...START, ...lines], { lagS: 0.001 });
    expect(traces[0]!.x0).toBeCloseTo(10.1, 6);
    expect(traces.at(-1)!.x1).toBeCloseTo(9.9, 6);
  });
});

describe('a beam that comes on slowly', () => {
  const SLOW = { slowOnS: 0.002 };
  const ends = (lines: readonly string[], truth: object = SLOW): [number, number][] =>
    run([...START, 'G1 X10 F6000 S0', ...lines], truth).traces.map(({ x0, x1 }) => [x0, x1]);
  // 0.002 s at 100 mm/s: 0.2 mm.
  it('burns each stretch later from where it comes on, either way, and to its end', () => {
    const there = ends(['G1 X40 S500', 'G1 X60 S0']);
    expect([there[0]![0], there.at(-1)![1]]).toEqual([expect.closeTo(10.2, 9), expect.closeTo(40, 9)]);
    const back = ends(['G1 X60 S0', 'G1 X40 S0', 'G1 X20 S500', 'G1 X0 S0']);
    expect([back[0]![0], back.at(-1)![1]]).toEqual([expect.closeTo(39.8, 9), expect.closeTo(20, 9)]);
    const late = ends(['G1 X40 S500', 'G1 X60 S0'], { ...SLOW, lagS: 0.001 });
    expect([late[0]![0], late.at(-1)![1]]).toEqual([expect.closeTo(10.3, 9), expect.closeTo(40.1, 9)]);
  });
  it('loses dots that are shorter than that, and nothing where power changes while it is on', () => {
    expect(ends(['G1 X10.15 S500', 'G1 X40 S0'])).toEqual([]);
    const steps = ends(['G1 X10.15 S300', 'G1 X20 S500', 'G1 X30 S200', 'G1 X60 S0']);
    expect(steps[0]![0]).toBeCloseTo(10.2, 9);
    expect(steps.reduce((sum, [from, to]) => sum + to - from, 0)).toBeCloseTo(19.8, 9);
    const twice = ends(['G1 X20 S500', 'G1 X30 S0', 'G1 X40 S500', 'G1 X60 S0']);
    expect(twice.reduce((sum, [from, to]) => sum + to - from, 0)).toBeCloseTo(2 * 9.8, 9);
  });
});

describe('a tilted board', () => {
  // Falls by 1 in 20 to the right, level with the focus at x = 50.
  const board = { fall: 0.05, levelX: 50 };
  it('brings its face nearer to the head on the left of where focus was set, and away from it on the right', () => {
    const { traces } = run([...START, 'G1 X10 F6000 S0', 'G1 X90 S500', 'G1 X95 S0'], { board, tiltX: 0, tiltY: 0 });
    for (const { x0, x1, focusOffsetMm } of traces) expect(focusOffsetMm).toBeCloseTo(0.05 * ((x0 + x1) / 2 - 50), 9);
    const raised = run([...START, 'G91', 'G0 Z2 S0', 'G90', 'G1 X10 F6000 S0', 'G1 X90 S500', 'G1 X95 S0'], {
      board,
      tiltX: 0,
      tiltY: 0,
    });
    for (const { x0, x1, focusOffsetMm } of raised.traces)
      expect(focusOffsetMm).toBeCloseTo(2 + 0.05 * ((x0 + x1) / 2 - 50), 9);
  });
  it('is run into where its raised end stands higher than the head clears', () => {
    const laser = new SimulatedLaser({ ...TRUTH, board, clearanceMm: 2 });
    for (const line of ['G21', 'G90', 'M3 S0', 'G0 X50 Y20']) expect(laser.send(line).ok).toBe(true);
    // 2 mm higher at x = 10.
    expect(laser.send('G0 X11').ok).toBe(true);
    const crash = laser.send('G0 X9');
    expect(crash).toEqual({ ok: false, message: 'X9 ran the head into the raised end of the board' });
    expect(laser.send('G0 X50').ok).toBe(false);
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
  it('is focused by a hand no better than hands are: off by as much as the truth has it, stop after stop', () => {
    const laser = new SimulatedLaser({ ...TRUTH, handOffMm: [0.1, -0.05] });
    const stops = [1, 0, 1].map((focusOffsetMm) => {
      for (const line of ['G90', 'M5', 'M0 (set focus)']) laser.send(line);
      laser.proceed({ focusOffsetMm });
      return laser.focusOffsetMm;
    });
    expect(stops.map((mm) => Number(mm.toFixed(9)))).toEqual([1.1, -0.05, 1.1]);
    // A hand that only does something to the sheet leaves the head alone.
    for (const line of ['M5', 'M0 (wipe it)']) laser.send(line);
    laser.proceed({ focusOffsetMm: null });
    expect(laser.focusOffsetMm).toBeCloseTo(1.1, 9);
    const heron = demoPairing('heron', 'birch');
    const { handOffMm } = laserTruthOf(benchMachineOf(heron.machine, heron.lens), {
      leftMm: 0,
      rearMm: 0,
      widthMm: 1,
      heightMm: 1,
    });
    expect(new Set(handOffMm).size).toBeGreaterThan(10);
    for (const mm of handOffMm) expect(Math.abs(mm)).toBeLessThan(0.3);
  });
  it('crashes when Z sends the head into the work, by either way of telling it, and takes nothing after', () => {
    for (const lines of tuples(['G91', 'G0 Z-6'], ['G90', 'G0 Z0'])) {
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

describe('a simulated galvo', () => {
  const mirrors = { jumpSpeedMmPerS: 2000, jumpDelayS: 0.001, markDelayS: 0.002 };
  it('moves without ramps and rests after jumps and marks', () => {
    // By hand: a jump of 100 mm at 2000 mm/s and 1 ms, a mark of 50 mm at 100 mm/s and 2 ms.
    const { elapsedS, traces } = run(['M4 S0', 'G0 X100 Y150 S0', 'G1 X150 F6000 S500', 'M5'], { mirrors });
    expect(elapsedS).toBeCloseTo(0.05 + 0.001 + 0.5 + 0.002, 9);
    for (const { speedMmPerS } of traces) expect(speedMmPerS).toBe(100);
  });
  it('refuses what its lens does not reach', () => {
    const laser = new SimulatedLaser({ ...TRUTH, mirrors, fieldMm: 100 });
    // The bed is 200 x 150 mm: the field spans 50 to 150 and 25 to 125.
    expect(laser.send('G0 X150 Y125 S0')).toEqual({ ok: true });
    expect(laser.send('G0 X151 Y100 S0').ok).toBe(false);
    expect(laser.send('G0 X100 Y24 S0').ok).toBe(false);
  });
});

describe('a controller’s own zero', () => {
  it('takes coordinates from where it lies, in the sense of its axes', () => {
    const laser = new SimulatedLaser({ ...TRUTH, zeroX: 200, zeroY: 150, xSign: -1, ySign: -1 });
    laser.send('G0 X20 Y30 S0');
    expect(laser.headPlace).toEqual({ x: 180, y: 120 });
    laser.send('G91');
    laser.send('G0 X5 S0');
    expect(laser.headPlace).toEqual({ x: 175, y: 120 });
  });
  it('is moved under the head by G92 and given back by G92.1', () => {
    const laser = new SimulatedLaser({ ...TRUTH, startX: 40, startY: 50 });
    laser.send('G92 X0 Y0');
    laser.send('G0 X10 Y-5 S0');
    expect(laser.headPlace).toEqual({ x: 50, y: 45 });
    laser.send('G92 X100');
    laser.send('G0 X101 Y-10 S0');
    expect(laser.headPlace).toEqual({ x: 51, y: 40 });
    laser.send('G92.1');
    laser.send('G0 X10 Y5 S0');
    expect(laser.headPlace).toEqual({ x: 10, y: 5 });
  });
});
