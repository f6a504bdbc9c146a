import gcodeParser from 'gcode-parser';

interface Line {
  readonly words: readonly (readonly [letter: string, value: number])[];
}

/** One move of a program as another parser reads it. */
export interface Move {
  readonly rapid: boolean;
  /** The head goes up or down. */
  readonly lifts: boolean;
  readonly armed: boolean;
  readonly s: number;
  readonly feedMmPerMin: number;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly length: number;
}

/** Every move of a program with what the beam does meanwhile: S and F hold until they are said again, as in RS-274. */
export function armedMoves(program: string): Move[] {
  const moves: Move[] = [];
  let [x, y, feed, s, motion] = [0, 0, 0, 0, 0];
  let armed = false;
  let relative = false;
  for (const { words } of gcodeParser.parseStringSync(program) as Line[]) {
    let [x1, y1] = [x, y];
    let lifts = false;
    for (const [letter, value] of words) {
      if (letter === 'G' && Number(value) <= 1) motion = Number(value);
      if (letter === 'G' && Number(value) >= 90 && Number(value) <= 91) relative = Number(value) === 91;
      if (letter === 'M' && [3, 4, 5].includes(Number(value))) armed = Number(value) !== 5;
      if (letter === 'F') feed = Number(value);
      if (letter === 'S') s = Number(value);
      if (letter === 'X') x1 = Number(value) + (relative ? x : 0);
      if (letter === 'Y') y1 = Number(value) + (relative ? y : 0);
      if (letter === 'Z') lifts = true;
    }
    const places = words.some(([letter]) => 'XYZ'.includes(letter));
    if (places)
      moves.push({
        rapid: motion === 0,
        lifts,
        armed,
        s,
        feedMmPerMin: feed,
        x0: x,
        y0: y,
        x1,
        y1,
        length: Math.hypot(x1 - x, y1 - y),
      });
    [x, y] = [x1, y1];
  }
  return moves;
}
