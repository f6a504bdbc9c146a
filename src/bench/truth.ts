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
  /** How far each axis goes for each mm that it is told, from the place where the operator lined the card up. */
  readonly scaleX: number;
  readonly scaleY: number;
  readonly linedUpX: number;
  readonly linedUpY: number;
  /** The head goes round a corner as fast as on an arc that would cut it by so much. */
  readonly cornerMm: number;
  /** The controller's own time for each line of a program. */
  readonly lineOverheadS: number;
  /** The beam answers this much later than the head is told: its marks shift by speed times this. */
  readonly lagS: number;
  /** It comes on later still by so much than it goes out: what is lit comes out shorter by speed times this, and not at all where it is no longer. */
  readonly slowOnS: number;
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
  /** How far off a hand leaves the head at its first stop, its second, and so on over and over, in mm: no spacer sets it twice alike. */
  readonly handOffMm: readonly number[];
  /** How far the head may be lowered from there before it touches the work. */
  readonly clearanceMm: number;
  /** The bed falls away from the head by this many mm for each mm along x and y, level at its middle. */
  readonly tiltX: number;
  readonly tiltY: number;
  /** A board that somebody tilted on the bed: its fall along x, and where it is level with the set focus; null for one that lies flat. */
  readonly board: { readonly fall: number; readonly levelX: number } | null;
  /** Share of power that is lost from one end of an axis to the other, because the beam is not centred on the mirrors. */
  readonly lossAlongX: number;
  readonly lossAlongY: number;
  /** Where the program's zero lies on the bed, in mm from its left and front edges, and which way each axis counts. */
  readonly zeroX: number;
  readonly zeroY: number;
  readonly xSign: 1 | -1;
  readonly ySign: 1 | -1;
  /** Where the head stands before the program begins. */
  readonly startX: number;
  readonly startY: number;
  /** Mirrors instead of a gantry: no ramps, but rests. */
  readonly mirrors: Mirrors | null;
  readonly fieldMm: number | null;
}

export interface Mirrors {
  readonly jumpSpeedMmPerS: number;
  readonly jumpDelayS: number;
  readonly markDelayS: number;
}

/** A card as it lies on the bed: its upper left corner from the bed's left and rear edges, and its size. */
export interface PlacedCard {
  readonly leftMm: number;
  readonly rearMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** The board under it falls to the right by so much for each mm, level with the set focus so far from the card's left edge. */
  readonly tilt?: { readonly fallMmPerMm: number; readonly levelAtMm: number };
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
  /** As the operator set the controller up: a corner or the middle of the bed, or a place on the card. */
  readonly zero: string;
  readonly xPlus: 'right' | 'left';
  readonly yPlus: 'away' | 'toward';
  readonly galvo: Mirrors | null;
  /** What the mirrors reach through the lens: a square in the middle of the bed. */
  readonly fieldMm: number | null;
}

/**
 * The laser that stands behind a machine's record: a little slower, weaker, later and less level than the record says. A controller
 * that is recorded as holding its power on ramps is one out of laser mode.
 */
export function laserTruthOf(machine: BenchMachine, card: PlacedCard): LaserTruth {
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
    // A galvo’s controller has its list in memory before it begins; a gantry’s reads on as it goes.
    lineOverheadS: (machine.galvo ? 0 : 1) * (0.0004 + 0.0006 * random()),
    lagS: 0.00008 + 0.00008 * random(),
    bedWidthMm: machine.bedWidthMm,
    bedDepthMm: machine.bedDepthMm,
    laserMode: machine.rampPower === 'follows-speed',
    addsRunUp: machine.addsRunUp,
    fieldMm: machine.galvo ? machine.fieldMm : null,
    ...controllerOf(machine, card),
  };
  return {
    ...truth,
    setFocusMm: 18 + 8 * random(),
    handOffMm: handOffOf(machine.name),
    clearanceMm: 4 + 3 * random(),
    ...axesOf(machine, card),
    cornerMm: cornerOf(machine.name),
    slowOnS: slowOnOf(machine.name),
    tiltX: (0.4 * (2 * random() - 1)) / machine.bedWidthMm,
    tiltY: (0.4 * (2 * random() - 1)) / machine.bedDepthMm,
    board: boardOf(machine.name, card),
    lossAlongX: 0.03 * random(),
    lossAlongY: 0.03 * random(),
    // Mirrors are a little slower to settle than the record says.
    mirrors: machine.galvo && {
      jumpSpeedMmPerS: machine.galvo.jumpSpeedMmPerS,
      jumpDelayS: machine.galvo.jumpDelayS * (1.05 + 0.1 * random()),
      markDelayS: machine.galvo.markDelayS * (1.05 + 0.1 * random()),
    },
  };
}

/** Spacers are a few hundredths thicker or thinner than they say and stand a little beside their place, and focus is set a millimetre beside its mark. */
function boardOf(name: string, { leftMm, tilt }: PlacedCard): LaserTruth['board'] {
  if (!tilt) return null;
  const random = randomFrom(`board at ${name}`);
  const fall = tilt.fallMmPerMm * (1 + 0.03 * (2 * random() - 1));
  return { fall, levelX: leftMm + tilt.levelAtMm + 1.2 * (2 * random() - 1) };
}

/** A tube's discharge, a diode's driver and a seed laser's switch all take longer to come up than to break off; how much is the machine's own. */
const SLOW_ON_S = { least: 0.00002, most: 0.00007 };

const slowOnOf = (name: string): number =>
  SLOW_ON_S.least + (SLOW_ON_S.most - SLOW_ON_S.least) * randomFrom(`coming on at ${name}`)();

/** Belts and screws are off by a little, mirrors by what their field was corrected to: up to this share either way. */
const SCALE_OFF = 0.0012;

function axesOf(
  { name, bedDepthMm }: BenchMachine,
  card: PlacedCard,
): Pick<LaserTruth, 'scaleX' | 'scaleY' | 'linedUpX' | 'linedUpY'> {
  const random = randomFrom(`axes of ${name}`);
  const scale = (): number => 1 + SCALE_OFF * (2 * random() - 1);
  return { scaleX: scale(), scaleY: scale(), linedUpX: card.leftMm, linedUpY: bedDepthMm - card.rearMm };
}

/** What controllers of gantries are usually left at, in mm; how much is the machine's own. */
const CORNER_MM = { least: 0.008, most: 0.014 };

const cornerOf = (name: string): number =>
  CORNER_MM.least + (CORNER_MM.most - CORNER_MM.least) * randomFrom(`corners of ${name}`)();

/** Standard deviation of where a hand leaves the head. */
const HAND_SCATTER_MM = 0.06;
const HAND_STOPS = 16;

function handOffOf(name: string): number[] {
  const random = randomFrom(`hand at ${name}`);
  return Array.from(
    { length: HAND_STOPS },
    () => HAND_SCATTER_MM * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()),
  );
}

/**
 * How the controller takes coordinates. For a zero on the card the operator set it there, by hand and without fail; for one that the
 * program takes where the head stands, the head was put over the card's front left corner.
 */
function controllerOf(
  { zero, xPlus, yPlus, bedWidthMm, bedDepthMm, galvo }: BenchMachine,
  card: PlacedCard,
): Pick<LaserTruth, 'zeroX' | 'zeroY' | 'xSign' | 'ySign' | 'startX' | 'startY'> {
  const frontOfCard = bedDepthMm - card.rearMm - card.heightMm;
  const onBed: Readonly<Record<string, readonly [number, number]>> = {
    'bed-front-left': [0, 0],
    'bed-front-right': [bedWidthMm, 0],
    'bed-rear-left': [0, bedDepthMm],
    'bed-rear-right': [bedWidthMm, bedDepthMm],
    'bed-middle': [bedWidthMm / 2, bedDepthMm / 2],
    'card-corner': [card.leftMm, frontOfCard],
    'card-middle': [card.leftMm + card.widthMm / 2, frontOfCard + card.heightMm / 2],
    head: [0, 0],
  };
  const [zeroX, zeroY] = onBed[zero]!;
  // Mirrors at rest look at the middle, a head rests in the rear left corner.
  const rest = galvo ? onBed['bed-middle']! : onBed['bed-rear-left']!;
  const [startX, startY] = zero === 'head' ? onBed['card-corner']! : rest;
  return {
    zeroX,
    zeroY,
    xSign: xPlus === 'right' ? 1 : -1,
    ySign: yPlus === 'away' ? 1 : -1,
    startX,
    startY,
  };
}
