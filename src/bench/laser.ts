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

interface Leg {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly length: number;
  /** As the axes along it allow. */
  readonly speed: number;
  /** As it was asked for; infinite for travel. */
  readonly feed: number;
  readonly rapid: boolean;
  readonly command: number;
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

  /** Where a stretch of a leg comes to lie: an axis that goes further than it is told takes it along. */
  private where(leg: Leg, ux: number, uy: number, from: number, to: number): Pick<Trace, 'x0' | 'y0' | 'x1' | 'y1'> {
    const { scaleX, scaleY, linedUpX, linedUpY } = this.truth;
    const x = (mm: number): number => linedUpX + (leg.x0 + ux * mm - linedUpX) * scaleX;
    const y = (mm: number): number => linedUpY + (leg.y0 + uy * mm - linedUpY) * scaleY;
    return { x0: x(from), y0: y(from), x1: x(to), y1: y(to) };
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

  private acceleration(leg: Leg): number {
    const dx = Math.abs(leg.x1 - leg.x0) / leg.length;
    const dy = Math.abs(leg.y1 - leg.y0) / leg.length;
    return Math.min(
      dx === 0 ? Infinity : this.truth.accelerationXMmPerS2 / dx,
      dy === 0 ? Infinity : this.truth.accelerationYMmPerS2 / dy,
    );
  }

  /** The joined legs as the head runs them, from rest to rest: as fast as speed, corners, acceleration and the rest at the end allow. */
  private get run(): readonly Run[] {
    return (this.plan ??= this.planned());
  }

  private planned(): Run[] {
    const first = this.legs[0];
    if (!first) return [];
    const legs = this.withRunUp(first);
    const accelerations = legs.map((leg) => this.acceleration(leg));
    const through = [0, ...legs.slice(1).map((leg, k) => this.cornerSpeed(legs[k]!, leg)), 0];
    // No faster into a leg than it can be slowed down on, and no faster out of it than it can be sped up on.
    for (let k = legs.length - 1; k >= 0; k--)
      through[k] = Math.min(through[k]!, Math.sqrt(through[k + 1]! ** 2 + 2 * accelerations[k]! * legs[k]!.length));
    for (let k = 0; k < legs.length; k++)
      through[k + 1] = Math.min(through[k + 1]!, Math.sqrt(through[k]! ** 2 + 2 * accelerations[k]! * legs[k]!.length));
    return legs.map((leg, k) => ({ leg, a: accelerations[k]!, from: through[k]!, to: through[k + 1]! }));
  }

  /** A controller that runs up by itself does so before and after a line along an axis. */
  private withRunUp(first: Leg): readonly Leg[] {
    const straight = (first.x0 === first.x1 || first.y0 === first.y1) && this.legs.every((leg) => goesOn(first, leg));
    if (!this.truth.addsRunUp || this.truth.mirrors || !straight || !this.legs.some((leg) => leg.command > 0))
      return this.legs;
    const length = (first.speed * first.speed) / (2 * this.acceleration(first));
    const [x, y] = [first.x1 - first.x0, first.y1 - first.y0].map((way) => (way / first.length) * length);
    const dark = { ...first, x0: 0, y0: 0, x1: x!, y1: y!, length, command: 0 };
    return [dark, ...this.legs, dark];
  }

  /**
   * How fast the head goes round a corner: as on an arc that cuts it by so little, at its acceleration. It comes to rest where it turns
   * back, and does not slow down where it goes straight on.
   */
  private cornerSpeed(a: Leg, b: Leg): number {
    const along = alongOf(a, b);
    const half = Math.sqrt(Math.max(0, (1 + along) / 2));
    const arc = half >= 1 - 1e-9 ? Infinity : (this.truth.cornerMm * half) / (1 - half);
    return Math.min(a.speed, b.speed, Math.sqrt(Math.min(this.acceleration(a), this.acceleration(b)) * arc));
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
      this.traces.push({
        ...this.where(leg, ux, uy, from + late, to + late),
        joulesPerMm: watts / speed,
        watts,
        speedMmPerS: speed,
        focusOffsetMm: this.focusAt(middle.x, middle.y),
        air: this.air,
      });
    }
  }
}

/** A leg as the head runs it: its acceleration there, and how fast it goes into it and out of it. */
interface Run {
  readonly leg: Leg;
  readonly a: number;
  readonly from: number;
  readonly to: number;
}

/** Slower than that the head never goes: at rest it would burn a hole without end. */
const SLOWEST_MM_PER_S = 0.5;

function speedIn({ leg, a, from, to }: Run, mm: number): number {
  const speedingUp = from === leg.speed ? Infinity : Math.sqrt(from * from + 2 * a * mm);
  const slowingDown = to === leg.speed ? Infinity : Math.sqrt(to * to + 2 * a * (leg.length - mm));
  return Math.max(SLOWEST_MM_PER_S, Math.min(leg.speed, speedingUp, slowingDown));
}

/** By constant acceleration up to the leg's speed, or to what there is room for, and down again. */
function timeOf({ leg, a, from, to }: Run): number {
  const peak = Math.min(leg.speed, Math.sqrt((from * from + to * to) / 2 + a * leg.length));
  const ramps = (2 * peak * peak - from * from - to * to) / (2 * a);
  return (2 * peak - from - to) / a + (leg.length - ramps) / peak;
}

/** Cosine of the angle by which the head turns from one leg to the next. */
const alongOf = (a: Leg, b: Leg): number =>
  ((a.x1 - a.x0) * (b.x1 - b.x0) + (a.y1 - a.y0) * (b.y1 - b.y0)) / (a.length * b.length);

const goesOn = (a: Leg, b: Leg): boolean => alongOf(a, b) > 1 - 1e-9;

function refused(message: string): Acknowledgement {
  return { ok: false, message };
}
