/** What the simulated machine really is, as opposed to what its owner wrote down. Open to tests and accuracy reports only. */
export interface LaserTruth {
  readonly ratedPowerW: number;
  /** Watts out = rated x efficiency x command ^ powerExponent, nothing below the firing command. */
  readonly efficiency: number;
  readonly powerExponent: number;
  readonly firingCommand: number;
  readonly accelerationXMmPerS2: number;
  readonly accelerationYMmPerS2: number;
  readonly topSpeedXMmPerS: number;
  readonly topSpeedYMmPerS: number;
  /** The controller's own time for each line of a program. */
  readonly lineOverheadS: number;
  /** The beam answers this much later than the head is told. */
  readonly lagS: number;
  readonly bedWidthMm: number;
  readonly bedDepthMm: number;
}

/** A stretch along which the beam was on, in machine millimetres, with what it laid down. */
export interface Trace {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly joulesPerMm: number;
  readonly watts: number;
  readonly focusOffsetMm: number;
}

export type Acknowledgement = { readonly ok: true } | { readonly ok: false; readonly message: string };

interface Leg {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly length: number;
  readonly speed: number;
  readonly watts: number;
}

const WORD = /([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/gy;
const MOTION_WORDS = new Set([0, 1]);
const SETUP_WORDS = new Set([17, 21, 90, 94]);
const MACHINE_WORDS = new Set([0, 2, 3, 5, 7, 8, 9]);

/**
 * A simulated laser that takes G-code line by line. It moves on straight lines with its own acceleration: legs that go on in
 * the same direction at the same feed are joined, everything else comes to rest in between. Unknown words, missing feeds and
 * places outside the bed are refused and change nothing.
 */
export class SimulatedLaser {
  private x = 0;
  private y: number;
  private focus = 0;
  private feedMmPerS = 0;
  private command = 0;
  private beamArmed = false;
  private motion = 0;
  private ended = false;
  private legs: Leg[] = [];
  private clock = 0;
  private readonly traces: Trace[] = [];

  constructor(private readonly truth: LaserTruth) {
    this.y = truth.bedDepthMm;
  }

  /** Machine time in s, all joined moves run out. */
  get elapsedS(): number {
    return this.clock + this.joinedTime();
  }

  get headPlace(): { x: number; y: number } {
    return { x: this.x, y: this.y };
  }

  /** Ends the job wherever it is and returns what the beam drew. */
  finish(): readonly Trace[] {
    this.runJoined();
    return this.traces;
  }

  send(line: string): Acknowledgement {
    const text = line
      .replace(/\([^)]*\)/g, '')
      .replace(/;.*/, '')
      .trim()
      .toUpperCase();
    this.clock += this.truth.lineOverheadS;
    if (text === '') return { ok: true };
    if (this.ended) return refused('the program has ended');
    const words = new Map<string, number[]>();
    WORD.lastIndex = 0;
    let read = 0;
    for (let match = WORD.exec(text); match; match = WORD.exec(text)) {
      words.set(match[1]!, [...(words.get(match[1]!) ?? []), Number(match[2])]);
      read = WORD.lastIndex;
      while (text[read] === ' ') WORD.lastIndex = ++read;
    }
    if (read !== text.length) return refused(`cannot read "${text.slice(read)}"`);
    return this.obey(words);
  }

  private obey(words: ReadonlyMap<string, readonly number[]>): Acknowledgement {
    for (const letter of words.keys()) {
      if (!'GMXYZFS'.includes(letter)) return refused(`unknown word ${letter}`);
    }
    let motion = this.motion;
    for (const g of words.get('G') ?? []) {
      if (MOTION_WORDS.has(g)) motion = g;
      else if (!SETUP_WORDS.has(g)) return refused(`unknown word G${g}`);
    }
    for (const m of words.get('M') ?? []) if (!MACHINE_WORDS.has(m)) return refused(`unknown word M${m}`);
    const x = words.get('X')?.at(-1) ?? this.x;
    const y = words.get('Y')?.at(-1) ?? this.y;
    const slack = 1e-6;
    if (x < -slack || y < -slack || x > this.truth.bedWidthMm + slack || y > this.truth.bedDepthMm + slack) {
      return refused(`X${x} Y${y} is outside the bed`);
    }
    const feed = words.get('F')?.at(-1);
    if (feed !== undefined && !(feed > 0)) return refused(`feed ${feed} is not above zero`);
    const s = words.get('S')?.at(-1);
    if (s !== undefined && !(s >= 0 && s <= 1000)) return refused(`power S${s} is not within 0..1000`);
    const moves = words.has('X') || words.has('Y');
    if (moves && motion === 1 && feed === undefined && this.feedMmPerS === 0) return refused('no feed was given');

    if (feed !== undefined) this.feedMmPerS = feed / 60;
    if (s !== undefined) this.command = s / 1000;
    this.motion = motion;
    for (const m of words.get('M') ?? []) {
      if (m === 3) this.beamArmed = true;
      else if (m === 5) this.beamArmed = false;
      else if (m === 2) this.ended = true;
    }
    const z = words.get('Z')?.at(-1);
    if (z !== undefined) {
      this.runJoined();
      this.focus = z;
    }
    if (moves) this.moveTo(x, y, motion === 0);
    return { ok: true };
  }

  private moveTo(x: number, y: number, rapid: boolean): void {
    const length = Math.hypot(x - this.x, y - this.y);
    if (length > 1e-9) {
      const leg: Leg = {
        x0: this.x,
        y0: this.y,
        x1: x,
        y1: y,
        length,
        speed: this.limit(x - this.x, y - this.y, rapid ? Infinity : this.feedMmPerS),
        watts: rapid ? 0 : this.wattsNow(),
      };
      const last = this.legs.at(-1);
      if (last && !joins(last, leg)) this.runJoined();
      this.legs.push(leg);
    }
    this.x = x;
    this.y = y;
  }

  private wattsNow(): number {
    const { truth, command } = this;
    if (!this.beamArmed || command < truth.firingCommand) return 0;
    return truth.ratedPowerW * truth.efficiency * command ** truth.powerExponent;
  }

  private limit(dx: number, dy: number, speed: number): number {
    const length = Math.hypot(dx, dy);
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

  private joinedTime(): number {
    const first = this.legs[0];
    if (!first) return 0;
    const length = this.legs.reduce((sum, leg) => sum + leg.length, 0);
    const a = this.acceleration(first);
    const peak = Math.min(first.speed, Math.sqrt(length * a));
    return peak / a + length / peak;
  }

  /** Runs the joined legs from rest to rest and draws what is lit with the speed the head had there. */
  private runJoined(): void {
    const first = this.legs[0];
    if (!first) return;
    this.clock += this.joinedTime();
    const length = this.legs.reduce((sum, leg) => sum + leg.length, 0);
    const a = this.acceleration(first);
    const peak = Math.min(first.speed, Math.sqrt(length * a));
    const ramp = (peak * peak) / (2 * a);
    const speedAt = (s: number): number => Math.max(0.5, Math.sqrt(2 * a * Math.min(s, length - s, ramp)));
    let done = 0;
    for (const leg of this.legs) {
      if (leg.watts > 0) this.draw(leg, done, ramp, length, speedAt);
      done += leg.length;
    }
    this.legs = [];
  }

  private draw(leg: Leg, done: number, ramp: number, total: number, speedAt: (s: number) => number): void {
    const ux = (leg.x1 - leg.x0) / leg.length;
    const uy = (leg.y1 - leg.y0) / leg.length;
    const slack = 1e-6;
    const cruises = done >= ramp - slack && done + leg.length <= total - ramp + slack;
    const pieces = cruises ? 1 : Math.max(1, Math.ceil(leg.length / 0.1));
    for (let piece = 0; piece < pieces; piece++) {
      const from = (leg.length * piece) / pieces;
      const to = (leg.length * (piece + 1)) / pieces;
      const speed = speedAt(done + (from + to) / 2);
      const late = speed * this.truth.lagS;
      this.traces.push({
        x0: leg.x0 + ux * (from + late),
        y0: leg.y0 + uy * (from + late),
        x1: leg.x0 + ux * (to + late),
        y1: leg.y0 + uy * (to + late),
        joulesPerMm: leg.watts / speed,
        watts: leg.watts,
        focusOffsetMm: this.focus,
      });
    }
  }
}

function joins(a: Leg, b: Leg): boolean {
  if (Math.abs(a.speed - b.speed) > 1e-9) return false;
  const along = ((a.x1 - a.x0) * (b.x1 - b.x0) + (a.y1 - a.y0) * (b.y1 - b.y0)) / (a.length * b.length);
  return along > 1 - 1e-9;
}

function refused(message: string): Acknowledgement {
  return { ok: false, message };
}
