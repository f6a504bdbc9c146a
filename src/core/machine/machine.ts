import type { LikedUnits } from '../quantities/format';

export type HeadKind = 'gantry' | 'galvo';
export type SourceKind = 'blue-diode' | 'co2-glass' | 'co2-rf' | 'fibre' | 'uv';
export type RampPower = 'follows-speed' | 'constant';
export type AirAssist = 'none' | 'on-off' | 'adjustable';

/** The sense in which each axis counts up, seen by the operator who stands in front of the machine. */
export interface AxisSenses {
  readonly xPlus: 'right' | 'left';
  readonly yPlus: 'away' | 'toward';
}

/**
 * Where coordinate zero of a program lies: a corner or the middle of the bed, or the card itself (its front left corner or its middle), for
 * controllers whose zero is set on the work. `head` is wherever the head stands when the program starts: there the card's front left
 * corner comes to lie.
 */
export const ZERO_PLACES = {
  'bed-front-left': 'bed: front left corner',
  'bed-front-right': 'bed: front right corner',
  'bed-rear-left': 'bed: rear left corner',
  'bed-rear-right': 'bed: rear right corner',
  'bed-middle': 'bed: middle of the field',
  head: 'where the head stands at the start',
  'card-corner': 'card: front left corner',
  'card-middle': 'card: middle',
} as const;
export type ZeroPlace = keyof typeof ZERO_PLACES;

/** What decides the time of a galvo head instead of acceleration, and how often its source pulses. */
export interface GalvoHead {
  /** Speed of the mirrors between marks. */
  readonly jumpSpeedMmPerS: number;
  /** Rest after each jump, before the beam comes on. */
  readonly jumpDelayS: number;
  /** Beam-on, beam-off and corner delays of one mark together. */
  readonly markDelayS: number;
  /** Pulse rates that the source can be set to; null for a source that does not pulse. */
  readonly frequencyKHz: { readonly least: number; readonly most: number } | null;
}

/** A galvo head as it usually is (from memory): jumps of 3 m/s, rests of some tenths of a millisecond. */
export const USUAL_GALVO: GalvoHead = {
  jumpSpeedMmPerS: 3000,
  jumpDelayS: 0.0003,
  markDelayS: 0.0004,
  frequencyKHz: { least: 20, most: 100 },
};

/** One measured point of the power that leaves the head for a commanded share of rated power. */
export interface PowerPoint {
  readonly command: number;
  readonly watts: number;
}

export interface Machine extends AxisSenses {
  readonly name: string;
  readonly head: HeadKind;
  /** For galvo heads, and for them only. */
  readonly galvo: GalvoHead | null;
  readonly zero: ZeroPlace;
  readonly sourceKind: SourceKind;
  readonly wavelengthNm: number;
  readonly ratedPowerW: number;
  /** The source does not fire below this command, 0..1. */
  readonly lowestFiringCommand: number;
  /** Measured command -> watts, ascending in command; null means rated x command. */
  readonly powerTable: readonly PowerPoint[] | null;
  readonly bedWidthMm: number;
  readonly bedDepthMm: number;
  readonly topSpeedXMmPerS: number;
  readonly topSpeedYMmPerS: number;
  readonly accelerationXMmPerS2: number;
  readonly accelerationYMmPerS2: number;
  readonly airAssist: AirAssist;
  readonly automaticFocus: boolean;
  /**
   * Whether the controller lowers power with speed on ramps (laser mode: the file arms with M4), or holds it (M3). A controller that
   * holds it also keeps it on rapids unless told otherwise.
   */
  readonly rampPower: RampPower;
  /** Whether the controller adds run-up to each line by itself; then the file has none. */
  readonly addsRunUp: boolean;
  /** Highest command the operator allows, 0..1. */
  readonly powerCap: number;
  readonly likedUnits: LikedUnits;
}

export interface Lens {
  readonly name: string;
  readonly focalLengthMm: number;
  readonly spotXMm: number;
  readonly spotYMm: number;
  readonly spotOrigin: 'measured' | 'computed';
  /** Side of the square field that a galvo head reaches through this lens; null where the bed is the limit. */
  readonly fieldMm: number | null;
}

export const SOURCE_NAMES: Readonly<Record<SourceKind, string>> = {
  'blue-diode': 'blue diode',
  'co2-glass': 'CO2 glass tube',
  'co2-rf': 'CO2 RF tube',
  fibre: 'fibre',
  uv: 'ultraviolet',
};

/** Wavelengths in nm that each kind of source is built for; anything else is a slip of the keyboard. */
export const SOURCE_WAVELENGTHS_NM: Readonly<Record<SourceKind, readonly [least: number, most: number]>> = {
  'blue-diode': [400, 530],
  'co2-glass': [9000, 11000],
  'co2-rf': [9000, 11000],
  fibre: [1000, 2100],
  uv: [193, 399],
};

/**
 * Command below which a kind of source usually does not fire, until it is measured: about a tenth for a glass tube, a few per cent for
 * RF tubes and solid-state sources (from memory). A mark needs more than that.
 */
export const DEFAULT_LOWEST_FIRING: Readonly<Record<SourceKind, number>> = {
  'blue-diode': 0.02,
  'co2-glass': 0.1,
  'co2-rf': 0.02,
  fibre: 0.05,
  uv: 0.02,
};

/** Usual cap by source: 80 % spares diodes (common practice, disputed); tubes are given 90 %, solid-state sources all of it. */
export const DEFAULT_POWER_CAP: Readonly<Record<SourceKind, number>> = {
  'blue-diode': 0.8,
  'co2-glass': 0.9,
  'co2-rf': 1,
  fibre: 1,
  uv: 1,
};

/**
 * Watts that leave the head for a command 0..1. Below the lowest firing command nothing leaves: 0. With a measured table:
 * linear between its points, from (0, 0) to the first point, and held at the last point beyond it. Without: rated x command.
 * Throws RangeError for a command that is not within 0..1.
 */
export function deliveredPowerW(machine: Machine, command: number): number {
  if (!(command >= 0 && command <= 1)) throw new RangeError(`invalid command: ${command}`);
  if (command < machine.lowestFiringCommand) return 0;
  const table = machine.powerTable;
  if (!table || table.length === 0) return machine.ratedPowerW * command;
  let below: PowerPoint = { command: 0, watts: 0 };
  for (const point of table) {
    if (command <= point.command) {
      if (point.command === below.command) return point.watts;
      return below.watts + ((command - below.command) / (point.command - below.command)) * (point.watts - below.watts);
    }
    below = point;
  }
  return below.watts;
}

/** Speed and acceleration along a sweep: the x axis for horizontal lines, the y axis for vertical ones. */
export function sweepLimits(
  machine: Machine,
  direction: 'horizontal' | 'vertical',
): { topSpeedMmPerS: number; accelerationMmPerS2: number } {
  return direction === 'horizontal'
    ? { topSpeedMmPerS: machine.topSpeedXMmPerS, accelerationMmPerS2: machine.accelerationXMmPerS2 }
    : { topSpeedMmPerS: machine.topSpeedYMmPerS, accelerationMmPerS2: machine.accelerationYMmPerS2 };
}
