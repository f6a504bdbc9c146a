import sharp from 'sharp';
import { casualShot, photograph, type RawPhoto, type Shot } from './camera';
import { SimulatedLaser, type Acknowledgement, type LaserTruth, type Trace } from './laser';
import { burnPiece, type Piece } from './piece';
import { randomFrom } from './random';
import { SPECIMENS, type Specimen } from './specimens';

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
}

export interface BenchSheet {
  readonly family: string;
  readonly grainAlongX: boolean;
}

export interface BenchPlace {
  /** The card's upper left corner from the bed's left and rear edges, and its size. */
  readonly leftMm: number;
  readonly rearMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** The laser that stands behind a machine's record: a little slower, weaker and later than the record says. */
export function laserTruthOf(machine: BenchMachine): LaserTruth {
  const random = randomFrom(`laser ${machine.name}`);
  return {
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
  };
}

export function specimenOf(family: string): Specimen {
  const specimen = SPECIMENS[family];
  if (!specimen) throw new RangeError(`unknown specimen: ${family}`);
  return specimen;
}

export function bandOfWavelength(wavelengthNm: number): keyof Specimen['takes'] {
  if (wavelengthNm < 400) return 'ultraviolet';
  if (wavelengthNm < 700) return 'blue';
  return wavelengthNm < 3000 ? 'near' : 'far';
}

/** Stock around the card that stays in the picture. */
const MARGIN_MM = 7;

/** The piece that the first `lines` lines of a program leave. */
export function burnProgram(
  program: string,
  lines: number,
  machine: BenchMachine,
  sheet: BenchSheet,
  place: BenchPlace,
  seed: string,
): Piece {
  const laser = new SimulatedLaser(laserTruthOf(machine));
  for (const line of program.split('\n').slice(0, lines)) {
    const answer: Acknowledgement = laser.send(line);
    if (!answer.ok) throw new Error(`the bench refused "${line}": ${answer.message}`);
  }
  const toCard = (trace: Trace): Trace => ({
    ...trace,
    x0: trace.x0 - place.leftMm,
    x1: trace.x1 - place.leftMm,
    y0: machine.bedDepthMm - trace.y0 - place.rearMm,
    y1: machine.bedDepthMm - trace.y1 - place.rearMm,
  });
  return burnPiece({
    specimen: specimenOf(sheet.family),
    traces: laser.finish().map(toCard),
    widthMm: place.widthMm,
    heightMm: place.heightMm,
    marginMm: MARGIN_MM,
    spot: { xMm: machine.spotXMm * 1.08, yMm: machine.spotYMm * 1.08, rayleighMm: 1.4 },
    band: bandOfWavelength(machine.wavelengthNm),
    grainAlongX: sheet.grainAlongX,
    seed,
  });
}

/** A photo of a piece as the JPEG that a camera would hand over. */
export async function jpegOf(photo: RawPhoto, quality = 92): Promise<Buffer> {
  return sharp(photo.data, { raw: { width: photo.width, height: photo.height, channels: 3 } })
    .jpeg({ quality, chromaSubsampling: '4:2:0' })
    .toBuffer();
}

export { casualShot, photograph };
export type { Piece, Shot };
