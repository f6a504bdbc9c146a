import { randomFrom } from './random';

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
  /** The beam answers this much later than the head is told: its marks shift by speed times this. */
  readonly lagS: number;
  readonly bedWidthMm: number;
  readonly bedDepthMm: number;
  /**
   * In laser mode rapids never burn and `M4` lowers power with speed. Out of it power stays what was said last, on rapids and at rest
   * too, for as long as the beam is armed.
   */
  readonly laserMode: boolean;
  /** The controller runs up before and after each line along an axis by itself, whatever the program says. */
  readonly addsRunUp: boolean;
  /** Height of the head's scale at the focus that the operator set, in mm above the lowest place it can go. */
  readonly setFocusMm: number;
  /** How far the head may be lowered from there before it touches the work. */
  readonly clearanceMm: number;
  /** The bed falls away from the head by this many mm for each mm along x and y, level at its middle. */
  readonly tiltX: number;
  readonly tiltY: number;
  /** Share of power that is lost from one end of an axis to the other, because the beam is not centred on the mirrors. */
  readonly lossAlongX: number;
  readonly lossAlongY: number;
}

/** What the bench is told about a machine; what it really does with that is its own affair. */
export interface BenchMachine {
  readonly name: string;
  readonly wavelengthNm: number;
  readonly ratedPowerW: number;
  readonly lowestFiringCommand: number;
  readonly bedWidthMm: number;
  readonly bedDepthMm: number;
  readonly topSpeedXMmPerS: number;
  readonly topSpeedYMmPerS: number;
  readonly accelerationXMmPerS2: number;
  readonly accelerationYMmPerS2: number;
  readonly spotXMm: number;
  readonly spotYMm: number;
  readonly focalLengthMm: number;
  readonly rampPower: 'follows-speed' | 'constant';
  readonly addsRunUp: boolean;
}

/**
 * The laser that stands behind a machine's record: a little slower, weaker, later and less level than the record says. A controller
 * that is recorded as holding its power on ramps is one out of laser mode.
 */
export function laserTruthOf(machine: BenchMachine): LaserTruth {
  const random = randomFrom(`laser ${machine.name}`);
  const truth = {
    ratedPowerW: machine.ratedPowerW,
    efficiency: 0.9 + 0.08 * random(),
    powerExponent: 1 + 0.06 * random(),
    firingCommand: machine.lowestFiringCommand,
    accelerationXMmPerS2: machine.accelerationXMmPerS2 * (0.9 + 0.06 * random()),
    accelerationYMmPerS2: machine.accelerationYMmPerS2 * (0.9 + 0.06 * random()),
    topSpeedXMmPerS: machine.topSpeedXMmPerS,
    topSpeedYMmPerS: machine.topSpeedYMmPerS,
    lineOverheadS: 0.0004 + 0.0006 * random(),
    lagS: 0.00008 + 0.00008 * random(),
    bedWidthMm: machine.bedWidthMm,
    bedDepthMm: machine.bedDepthMm,
    laserMode: machine.rampPower === 'follows-speed',
    addsRunUp: machine.addsRunUp,
  };
  return {
    ...truth,
    setFocusMm: 18 + 8 * random(),
    clearanceMm: 4 + 3 * random(),
    tiltX: (0.4 * (2 * random() - 1)) / machine.bedWidthMm,
    tiltY: (0.4 * (2 * random() - 1)) / machine.bedDepthMm,
    lossAlongX: 0.03 * random(),
    lossAlongY: 0.03 * random(),
  };
}
