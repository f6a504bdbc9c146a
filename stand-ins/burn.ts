import { burnTraces, casualShot, tracesOfProgram, photograph, type Piece, type Shot } from '../src/bench/bench';
import { benchMachineOf, benchSheetOf } from '../src/bench/of-records';
import type { Pairing } from '../src/core/card/contract';
import type { Layout, Station } from '../src/core/card/layout';
import type { RawPhoto } from '../src/bench/camera';
import { programOfCard, type Program } from '../src/formats/gcode';
import type { Burned } from './observers/observer';

export const PLACE = { leftMm: 60, rearMm: 60 };

/** Where a card is burned: there, or in the middle of the bed, where one that reaches all over it must lie. */
export const placeOf = (layout: Layout, { machine }: Pick<Pairing, 'machine'>): typeof PLACE =>
  layout.stations
    ? { leftMm: (machine.bedWidthMm - layout.widthMm) / 2, rearMm: (machine.bedDepthMm - layout.heightMm) / 2 }
    : PLACE;

/** The stops of a program with a hand that does what each of them asks for. */
export function willingHands(program: Program) {
  return program.parts.flatMap(({ line, hand }) =>
    hand === null ? [] : [{ line, seconds: 20, focusOffsetMm: hand.focusOffsetMm }],
  );
}

/** Burns a card on the bench to its end; of one that stands in several places, the piece under one of these. */
export function burnOnBench(layout: Layout, pairing: Pairing, seed: string, station: Station | null = null): Piece {
  return burnParts(layout, pairing, seed, [station])[0]!;
}

/** The pieces of a card: one, or one for each of its stations. */
const burnAll = (layout: Layout, pairing: Pairing, seed: string): Piece[] =>
  burnParts(layout, pairing, seed, layout.stations ?? [null]);

/** A card as it came off the bench, for those who look at it. */
export function burnedCard(layout: Layout, pairing: Pairing, seed: string): Burned {
  const pieces = burnAll(layout, pairing, seed);
  return { layout, pairing, seed, piece: pieces[0]!, pieces };
}

function draw(layout: Layout, pairing: Pairing) {
  const at = placeOf(layout, pairing);
  const program = programOfCard(layout, pairing.machine, at);
  const place = {
    ...at,
    widthMm: layout.widthMm,
    heightMm: layout.heightMm,
    ...(layout.tilt && { tilt: layout.tilt }),
  };
  const machine = benchMachineOf(pairing.machine, pairing.lens);
  const burned = { text: program.text, lines: program.lines, hands: willingHands(program) };
  return { pairing, machine, place, traces: tracesOfProgram(burned, machine, place) };
}

const drawn = new WeakMap<Layout, ReturnType<typeof draw>>();

/** What a laser drew of a card: the same into every piece of stock. */
function drawnOf(layout: Layout, pairing: Pairing): ReturnType<typeof draw> {
  const known = drawn.get(layout);
  if (known?.pairing === pairing) return known;
  const fresh = draw(layout, pairing);
  drawn.set(layout, fresh);
  return fresh;
}

function burnParts(layout: Layout, pairing: Pairing, seed: string, parts: readonly (Station | null)[]): Piece[] {
  const { machine, place, traces } = drawnOf(layout, pairing);
  const sheet = benchSheetOf(pairing.stock);
  return parts.map((part) =>
    burnTraces(traces, machine, sheet, place, seed, false, part && { name: part.name, ...part.box }),
  );
}

/** A photo of a piece as bytes, without the detour over JPEG. */
export function photoOf(piece: Piece, seed: string, change: Partial<Shot> = {}): RawPhoto {
  return photograph(piece, { ...casualShot(seed), ...change });
}
