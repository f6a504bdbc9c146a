import { burnProgram, casualShot, photograph, type Piece, type Shot } from '../../src/bench/bench';
import { benchMachineOf, benchSheetOf } from '../../src/bench/of-records';
import type { Pairing } from '../../src/core/card/contract';
import type { Layout } from '../../src/core/card/layout';
import type { RawPhoto } from '../../src/bench/camera';
import { gcodeOfCard } from '../../src/formats/gcode';

const PLACE = { leftMm: 60, rearMm: 60 };

/** Burns a card on the bench to its end. */
export function burnOnBench(layout: Layout, pairing: Pairing, seed: string): Piece {
  const program = gcodeOfCard(layout, pairing.machine, PLACE);
  const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
  return burnProgram(
    program,
    Infinity,
    benchMachineOf(pairing.machine, pairing.lens),
    benchSheetOf(pairing.stock),
    place,
    seed,
  );
}

/** A photo of a piece as bytes, without the detour over JPEG. */
export function photoOf(piece: Piece, seed: string, change: Partial<Shot> = {}): RawPhoto {
  return photograph(piece, { ...casualShot(seed), ...change });
}
