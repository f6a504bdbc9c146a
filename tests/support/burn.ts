import { burnPrograms, casualShot, photograph, type Piece, type Shot } from '../../src/bench/bench';
import { benchMachineOf, benchSheetOf } from '../../src/bench/of-records';
import type { Pairing } from '../../src/core/card/contract';
import type { Layout } from '../../src/core/card/layout';
import type { RawPhoto } from '../../src/bench/camera';
import { programOfCard, type Program } from '../../src/formats/gcode';

export const PLACE = { leftMm: 60, rearMm: 60 };

/** The stops of a program with a hand that does what each of them asks for. */
export function willingHands(program: Program) {
  return program.parts.flatMap(({ line, hand }) =>
    hand === null ? [] : [{ line, seconds: 20, focusOffsetMm: hand.focusOffsetMm }],
  );
}

/** Burns a card on the bench to its end. */
export function burnOnBench(layout: Layout, pairing: Pairing, seed: string): Piece {
  const program = programOfCard(layout, pairing.machine, PLACE);
  const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
  const burned = { text: program.text, lines: program.lines, hands: willingHands(program) };
  return burnPrograms(
    [burned],
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
