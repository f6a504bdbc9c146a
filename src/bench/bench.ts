import sharp from 'sharp';
import { casualShot, exposedLess, photograph, type RawPhoto, type Shot } from './camera';
import { SimulatedLaser, type HandDone, type Trace } from './laser';
import { letsThroughOf } from './light-through';
import { burnPiece, type Piece } from './piece';
import { specimenOf, type Specimen } from './specimens';
import { laserTruthOf, type BenchMachine, type PlacedCard } from './truth';

export interface BenchSheet {
  readonly family: string;
  readonly type: string;
  /** Sheets of one stock differ from batch to batch. */
  readonly batch: string;
  readonly grainAlongX: boolean;
  readonly thicknessMm: number;
}

export type BenchPlace = PlacedCard;

export function bandOfWavelength(wavelengthNm: number): keyof Specimen['takes'] {
  if (wavelengthNm < 400) return 'ultraviolet';
  if (wavelengthNm < 700) return 'blue';
  return wavelengthNm < 3000 ? 'near' : 'far';
}

/** Stock around the card that stays in the picture. */
const MARGIN_MM = 7;

/** Beams as wide as they usually are where they meet the lens, in mm. */
const BEAM_MM: Readonly<Record<keyof Specimen['takes'], number>> = { ultraviolet: 4, blue: 2.6, near: 6, far: 7 };

/**
 * How far from focus the spot is wider by the root of two: a cone from the beam's width at the lens to the spot, one focal length long,
 * is that wide where it has opened by the spot itself.
 */
export function rayleighOf({ focalLengthMm, spotXMm, spotYMm, wavelengthNm }: BenchMachine): number {
  return (Math.max(spotXMm, spotYMm) * focalLengthMm) / BEAM_MM[bandOfWavelength(wavelengthNm)];
}

/** A program as it was sent, and what hands did at its stops, by the line they waited at. */
export interface BurnedProgram {
  readonly text: string;
  /** How many of its lines were sent. */
  readonly lines: number;
  readonly hands: readonly BurnedHand[];
  /** Where its card lay on the bed; left out where that is all that was burned. */
  readonly place?: BenchPlace;
}

export interface BurnedHand extends HandDone {
  readonly line: number;
  /** How long the head stood there. */
  readonly seconds: number;
}

/** Everything that a laser drew under one program. Throws when the bench refuses a line. */
export function tracesOfProgram(program: BurnedProgram, machine: BenchMachine, place: BenchPlace): readonly Trace[] {
  const laser = new SimulatedLaser(laserTruthOf(machine, place));
  program.text
    .split('\n')
    .slice(0, program.lines)
    .forEach((line, index) => {
      const answer = laser.send(line);
      if (!answer.ok) throw new Error(`the bench refused "${line}": ${answer.message}`);
      if (!laser.waitsForHand) return;
      const hand = program.hands.find((one) => one.line === index);
      if (!hand) return;
      laser.hold(hand.seconds);
      laser.proceed(hand);
    });
  return laser.finish();
}

/** A part of a card that lies by itself: its upper left corner from the card's, its size, and what tells it from others. */
export interface CardPart {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Whether it is looked at closely, and lies where the rest of the piece goes on around it; else it is a piece of stock by itself. */
  readonly goesOn?: boolean;
}

/** The piece that programs leave on one card, one after another, or on cards that lie beside each other; or the piece under a part of it. */
export function burnPrograms(
  programs: readonly BurnedProgram[],
  machine: BenchMachine,
  sheet: BenchSheet,
  place: BenchPlace,
  seed: string,
  wiped = false,
  part: CardPart | null = null,
): Piece {
  const drawn = programs.flatMap((program) => tracesOfProgram(program, machine, program.place ?? place));
  return burnTraces(drawn, machine, sheet, place, seed, wiped, part);
}

/** The same from what the laser drew, on the bed's own millimetres: for cards of many parts, which it drew once. */
export function burnTraces(
  drawn: readonly Trace[],
  machine: BenchMachine,
  sheet: BenchSheet,
  place: BenchPlace,
  seed: string,
  wiped: boolean,
  part: CardPart | null,
): Piece {
  const { x, y, width, height } = part ?? { x: 0, y: 0, width: place.widthMm, height: place.heightMm };
  const [left, rear] = [place.leftMm + x, place.rearMm + y];
  // Written out: there are hundreds of thousands, and what is spread is several times slower to make and to read.
  const toPiece = (trace: Trace): Trace => ({
    x0: trace.x0 - left,
    y0: machine.bedDepthMm - trace.y0 - rear,
    x1: trace.x1 - left,
    y1: machine.bedDepthMm - trace.y1 - rear,
    joulesPerMm: trace.joulesPerMm,
    watts: trace.watts,
    speedMmPerS: trace.speedMmPerS,
    focusOffsetMm: trace.focusOffsetMm,
    air: trace.air,
  });
  const near = ({ x0, x1, y0, y1 }: Trace): boolean =>
    Math.max(x0, x1) > -MARGIN_MM &&
    Math.min(x0, x1) < width + MARGIN_MM &&
    Math.max(y0, y1) > -MARGIN_MM &&
    Math.min(y0, y1) < height + MARGIN_MM;
  const traces = drawn.map(toPiece);
  return burnPiece({
    specimen: specimenOf(sheet),
    lets: letsThroughOf(sheet),
    // What was burned far away on the bed leaves nothing here; what flares up is drawn by lot from all of them.
    traces: part && !part.goesOn ? traces.filter(near) : traces,
    widthMm: width,
    heightMm: height,
    marginMm: MARGIN_MM,
    thicknessMm: sheet.thicknessMm,
    spot: { xMm: machine.spotXMm * 1.08, yMm: machine.spotYMm * 1.08, rayleighMm: rayleighOf(machine) },
    wiped,
    band: bandOfWavelength(machine.wavelengthNm),
    grainAlongX: sheet.grainAlongX,
    seed: part && !part.goesOn ? `${seed} ${part.name}` : seed,
    ...(part && {
      partOf: { x, y, widthMm: place.widthMm, heightMm: place.heightMm, seed, goesOn: part.goesOn === true },
    }),
  });
}

/** The time in seconds that the camera exposes for, for each unit of its gain: what it writes into its photos. */
const SECONDS_A_GAIN = 1 / 100;

/** A photo of a piece as the JPEG that a camera would hand over, with its own word on how it was exposed. */
export async function jpegOf(photo: RawPhoto, quality = 92): Promise<Buffer> {
  return sharp(photo.data, { raw: { width: photo.width, height: photo.height, channels: 3 } })
    .jpeg({ quality, chromaSubsampling: '4:2:0' })
    .withExif({
      IFD0: { Make: 'Saltgrass', Model: 'simulated camera' },
      IFD2: {
        ExposureTime: `${Math.round(photo.gain * SECONDS_A_GAIN * 1e6)}/1000000`,
        ISOSpeedRatings: '100',
        FNumber: '18/10',
        ExposureBiasValue: `${Math.round(-100 * photo.stopsLess)}/100`,
      },
    })
    .toBuffer();
}

export { casualShot, exposedLess, laserTruthOf, photograph };
export type { BenchMachine, Piece, Shot };
