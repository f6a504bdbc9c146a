import { goesOn, runsOf, speedIn, timeOf, type Leg, type Run } from './runs';
import type { LaserTruth } from './truth';
import { readWords } from './words';

export type AirFlow = 'off' | 'low' | 'on';

/** A stretch along which the beam was on, in machine millimetres, with what it laid down. */
export interface Trace {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly joulesPerMm: number;
  readonly watts: number;
  readonly speedMmPerS: number;
  /** How far the sharp point is above the face there: what was asked for, and the bed's tilt. */
  readonly focusOffsetMm: number;
  readonly air: AirFlow;
}

export type Acknowledgement = { readonly ok: true } | { readonly ok: false; readonly message: string };

/** What a hand did while the machine waited: where it left the focus, or nothing. */
export interface HandDone {
  readonly focusOffsetMm: number | null;
}

const SETUP_WORDS = new Set([17, 21, 94]);
const AIR: ReadonlyMap<number, AirFlow> = new Map([
  [7, 'low'],
  [8, 'on'],
  [9, 'off'],
]);
const MACHINE_WORDS = new Set([0, 2, 3, 4, 5, 7, 8, 9]);
/** At rest with the beam on: the stretch that a burned dot is drawn over. */
const DOT_MM = 0.02;

/**
 * A simulated laser that takes G-code line by line. It moves on straight lines with its own acceleration: marks at one feed
 * are joined, round their corners as fast as these allow, everything else comes to rest in between. `M0` waits for a hand: nothing is taken until
 * `proceed`. Unknown words, missing feeds and places outside the bed are refused and change nothing; a head that is sent into the work
 * is a crash, after which nothing is taken.
 */
export class SimulatedLaser {
  /** On the bed, from its left and front edges, whatever the program's own zero. */
  private x: number;
  private y: number;
  private zeroX: number;
  private zeroY: number;
  /** Height on the head's own scale. */
  private z: number;
  private feedMmPerS = 0;
  private command = 0;
  private beam: 'off' | 'constant' | 'follows-speed' = 'off';
  private air: AirFlow = 'off';
  private motion = 0;
  private relative = false;
  private state: 'ready' | 'waiting' | 'ended' | 'crashed' = 'ready';
  private legs: Leg[] = [];
  private plan: readonly Run[] | null = null;
  private clock = 0;
  private handStops = 0;
  /** Of the beam that comes on: what is left of the way on which it burns nothing yet; null while it is off. */
  private dimMm: number | null = null;
  private readonly traces: Trace[] = [];

  constructor(private readonly truth: LaserTruth) {
    this.x = truth.startX;
    this.y = truth.startY;
    this.zeroX = truth.zeroX;
    this.zeroY = truth.zeroY;
    this.z = truth.setFocusMm;
  }

  /** Machine time in s, all joined moves run out. */
  get elapsedS(): number {
    return this.clock + this.joinedTime();
  }

  get headPlace(): { x: number; y: number } {
    return { x: this.x, y: this.y };
  }

  /** Distance from the focus that the operator set, positive when the head is raised. */
  get focusOffsetMm(): number {
    return this.z - this.truth.setFocusMm;
  }

  get waitsForHand(): boolean {
    return this.state === 'waiting';
  }

  /** Whether the beam would burn at this very moment if the head stood still. */
  get beamIsOn(): boolean {
    return this.beam !== 'off' && this.command >= this.truth.firingCommand && this.command > 0;
  }

  /** Ends the job wherever it is and returns what the beam drew. */
  finish(): readonly Trace[] {
    this.runJoined();
    return this.traces;
  }

  /** The head stands still for a while. A beam that was left on burns a dot meanwhile, unless laser mode keeps it dark at rest. */
  hold(seconds: number): void {
    this.runJoined();
    this.clock += seconds;
    const dark = this.truth.laserMode && this.beam === 'follows-speed';
    if (!this.beamIsOn || dark) return;
    const watts = this.wattsAt(this.command, this.x, this.y);
    this.traces.push({
      x0: this.x - DOT_MM / 2,
      y0: this.y,
      x1: this.x + DOT_MM / 2,
      y1: this.y,
      joulesPerMm: (watts * seconds) / DOT_MM,
      watts,
      speedMmPerS: 0,
      focusOffsetMm: this.focusAt(this.x, this.y),
      air: this.air,
    });
  }

  /** The hand is done and the program goes on. False when nobody waited for one. */
  proceed({ focusOffsetMm }: HandDone): boolean {
    if (this.state !== 'waiting') return false;
    this.state = 'ready';
    if (focusOffsetMm !== null) {
      const { setFocusMm, handOffMm } = this.truth;
      this.z = setFocusMm + focusOffsetMm + handOffMm[this.handStops++ % handOffMm.length]!;
    }
    return true;
  }

  send(line: string): Acknowledgement {
    this.clock += this.truth.lineOverheadS;
    const words = readWords(line);
    if (typeof words === 'string') return refused(words);
    if (words.size === 0) return { ok: true };
    if (this.state === 'ended') return refused('the program has ended');
    if (this.state === 'waiting') return refused('a hand is waited for');
    if (this.state === 'crashed') return refused('the head has run into the work');
    return this.obey(words);
  }

  private obey(words: ReadonlyMap<string, readonly number[]>): Acknowledgement {
    for (const letter of words.keys()) {
      if (!'GMXYZFS'.includes(letter)) return refused(`unknown word ${letter}`);
    }
    let { motion, relative } = this;
    let shifts = 0;
    for (const g of words.get('G') ?? []) {
      if (g === 0 || g === 1) motion = g;
      else if (g === 90 || g === 91) relative = g === 91;
      else if (g === 92 || g === 92.1) shifts = g;
      else if (!SETUP_WORDS.has(g)) return refused(`unknown word G${g}`);
    }
    const machineWords = words.get('M') ?? [];
    for (const m of machineWords) if (!MACHINE_WORDS.has(m)) return refused(`unknown word M${m}`);
    if (shifts !== 0) return this.shiftZero(shifts === 92 ? words : null);
    const { xSign, ySign } = this.truth;
    const place = (letter: string, now: number, zero: number, sign: number): number => {
      const value = words.get(letter)?.at(-1);
      return value === undefined ? now : sign * value + (relative ? now : zero);
    };
    const x = place('X', this.x, this.zeroX, xSign);
    const y = place('Y', this.y, this.zeroY, ySign);
    const z = place('Z', this.z, 0, 1);
    const moves = words.has('X') || words.has('Y');
    const slack = 1e-6;
    if (x < -slack || y < -slack || x > this.truth.bedWidthMm + slack || y > this.truth.bedDepthMm + slack) {
      return refused(`X${words.get('X')?.at(-1)} Y${words.get('Y')?.at(-1)} is outside the bed`);
    }
    const { fieldMm, bedWidthMm, bedDepthMm } = this.truth;
    if (
      moves &&
      fieldMm !== null &&
      Math.max(Math.abs(x - bedWidthMm / 2), Math.abs(y - bedDepthMm / 2)) > fieldMm / 2 + slack
    )
      return refused(`X${words.get('X')?.at(-1)} Y${words.get('Y')?.at(-1)} is outside the field of the lens`);
    const feed = words.get('F')?.at(-1);
    if (feed !== undefined && !(feed > 0)) return refused(`feed ${feed} is not above zero`);
    const s = words.get('S')?.at(-1);
    if (s !== undefined && !(s >= 0 && s <= 1000)) return refused(`power S${s} is not within 0..1000`);
    if (moves && motion === 1 && feed === undefined && this.feedMmPerS === 0) return refused('no feed was given');
    if (z < this.truth.setFocusMm - this.truth.clearanceMm) {
      this.runJoined();
      this.state = 'crashed';
      return refused(`Z ran the head into the work, ${(this.truth.setFocusMm - z).toFixed(1)} mm below its focus`);
    }
    if (moves && z - this.truth.setFocusMm + this.fallAt(x) < -this.truth.clearanceMm) {
      this.runJoined();
      this.state = 'crashed';
      return refused(`X${words.get('X')?.at(-1)} ran the head into the raised end of the board`);
    }

    if (feed !== undefined) this.feedMmPerS = feed / 60;
    if (s !== undefined) this.command = s / 1000;
    this.motion = motion;
    this.relative = relative;
    for (const m of machineWords) this.switchTo(m);
    if (z !== this.z) {
      this.runJoined();
      this.z = z;
    }
    if (moves) this.moveTo(x, y, motion === 0);
    return { ok: true };
  }

  /** `G92` makes the place of the head the coordinates it is given, along the axes it names; `G92.1` takes that back. */
  private shiftZero(words: ReadonlyMap<string, readonly number[]> | null): Acknowledgement {
    const { truth } = this;
    this.runJoined();
    const [x, y] = [words?.get('X')?.at(-1), words?.get('Y')?.at(-1)];
    if (!words) [this.zeroX, this.zeroY] = [truth.zeroX, truth.zeroY];
    if (x !== undefined) this.zeroX = this.x - truth.xSign * x;
    if (y !== undefined) this.zeroY = this.y - truth.ySign * y;
    return { ok: true };
  }

  private switchTo(m: number): void {
    // What was joined runs out under what held before.
    this.runJoined();
    if (m === 3) this.beam = 'constant';
    else if (m === 4) this.beam = this.truth.laserMode ? 'follows-speed' : 'constant';
    else if (m === 5) [this.beam, this.dimMm] = ['off', null];
    else if (m === 2) this.state = 'ended';
    else if (m === 0) this.state = 'waiting';
    else this.air = AIR.get(m)!;
  }

  private moveTo(x: number, y: number, rapid: boolean): void {
    const length = Math.hypot(x - this.x, y - this.y);
    if (length > 1e-9) {
      const dark = this.beam === 'off' || (rapid && this.truth.laserMode);
      const leg: Leg = {
        x0: this.x,
        y0: this.y,
        x1: x,
        y1: y,
        length,
        speed: this.limit(x - this.x, y - this.y, rapid ? Infinity : this.feedMmPerS),
        feed: rapid ? Infinity : this.feedMmPerS,
        rapid,
        command: dark ? 0 : this.command,
      };
      const last = this.legs.at(-1);
      if (last && !this.joins(last, leg)) this.runJoined();
      this.legs.push(leg);
      this.plan = null;
    }
    this.x = x;
    this.y = y;
  }

  /** Marks at one feed are run as one; travel, and mirrors, only straight on. */
  private joins(a: Leg, b: Leg): boolean {
    if (a.rapid !== b.rapid || a.feed !== b.feed) return false;
    return goesOn(a, b) || (!a.rapid && this.truth.mirrors === null);
  }

  private wattsAt(command: number, x: number, y: number): number {
    const { truth } = this;
    if (command < truth.firingCommand || command === 0) return 0;
    const centred =
      (1 - truth.lossAlongX * (x / truth.bedWidthMm)) * (1 - truth.lossAlongY * (1 - y / truth.bedDepthMm));
    return truth.ratedPowerW * truth.efficiency * command ** truth.powerExponent * centred;
  }

  /** How far the sharp point is above the face at a place of the bed. */
  private focusAt(x: number, y: number): number {
    const { truth } = this;
    return (
      this.focusOffsetMm +
      truth.tiltX * (x - truth.bedWidthMm / 2) +
      truth.tiltY * (truth.bedDepthMm / 2 - y) +
      this.fallAt(x)
    );
  }

  /** How far a tilted board has fallen away from the head. */
  private fallAt(x: number): number {
    const { board } = this.truth;
    return board ? board.fall * (x - board.levelX) : 0;
  }

  private limit(dx: number, dy: number, speed: number): number {
    const length = Math.hypot(dx, dy);
    // Mirrors have no axis to be slow along.
    if (this.truth.mirrors) return Math.min(speed, this.truth.mirrors.jumpSpeedMmPerS);
    const topX = dx === 0 ? Infinity : (this.truth.topSpeedXMmPerS * length) / Math.abs(dx);
    const topY = dy === 0 ? Infinity : (this.truth.topSpeedYMmPerS * length) / Math.abs(dy);
    return Math.min(speed, topX, topY);
  }

  /** The joined legs as the head runs them, from rest to rest: as fast as speed, corners, acceleration and the rest at the end allow. */
  private get run(): readonly Run[] {
    return (this.plan ??= runsOf(this.legs, this.truth));
  }

  private joinedTime(): number {
    const { mirrors } = this.truth;
    const first = this.legs[0];
    if (!first) return 0;
    if (!mirrors) return this.run.reduce((sum, leg) => sum + timeOf(leg), 0);
    const length = this.legs.reduce((sum, leg) => sum + leg.length, 0);
    return length / first.speed + (first.rapid ? mirrors.jumpDelayS : mirrors.markDelayS);
  }

  /** Runs the joined legs from rest to rest and draws what is lit with the speed the head had there. */
  private runJoined(): void {
    if (this.legs.length === 0) return;
    this.clock += this.joinedTime();
    const run = this.truth.mirrors
      ? this.legs.map((leg): Run => ({ leg, a: Infinity, from: leg.speed, to: leg.speed }))
      : this.run;
    for (const one of run) {
      const { leg } = one;
      if (leg.command >= this.truth.firingCommand && leg.command > 0) {
        this.dimMm ??= this.truth.slowOnS * speedIn(one, 0);
        this.draw(one);
        this.dimMm -= Math.min(this.dimMm, leg.length);
      } else this.dimMm = null;
    }
    this.legs = [];
    this.plan = null;
  }

  private draw(run: Run): void {
    const { leg } = run;
    const ux = (leg.x1 - leg.x0) / leg.length;
    const uy = (leg.y1 - leg.y0) / leg.length;
    const slack = 1e-6;
    const cruises = Math.min(run.from, run.to) >= leg.speed - slack;
    const dim = this.dimMm ?? 0;
    const lit = leg.length - dim;
    if (lit <= 0) return;
    const { scaleX, scaleY, linedUpX, linedUpY } = this.truth;
    const pieces = cruises ? Math.max(1, Math.ceil(lit / 20)) : Math.max(1, Math.ceil(lit / 0.1));
    for (let piece = 0; piece < pieces; piece++) {
      const from = dim + (lit * piece) / pieces;
      const to = dim + (lit * (piece + 1)) / pieces;
      const speed = cruises ? leg.speed : speedIn(run, (from + to) / 2);
      const command =
        this.beam === 'follows-speed'
          ? Math.max(this.truth.firingCommand, leg.command * Math.min(1, speed / leg.speed))
          : leg.command;
      const late = speed * this.truth.lagS;
      const middle = { x: leg.x0 + ux * ((from + to) / 2), y: leg.y0 + uy * ((from + to) / 2) };
      const watts = this.wattsAt(command, middle.x, middle.y);
      // An axis that goes further than it is told takes what is drawn along.
      this.traces.push({
        x0: linedUpX + (leg.x0 + ux * (from + late) - linedUpX) * scaleX,
        y0: linedUpY + (leg.y0 + uy * (from + late) - linedUpY) * scaleY,
        x1: linedUpX + (leg.x0 + ux * (to + late) - linedUpX) * scaleX,
        y1: linedUpY + (leg.y0 + uy * (to + late) - linedUpY) * scaleY,
        joulesPerMm: watts / speed,
        watts,
        speedMmPerS: speed,
        focusOffsetMm: this.focusAt(middle.x, middle.y),
        air: this.air,
      });
    }
  }
}

function refused(message: string): Acknowledgement {
  return { ok: false, message };
}
