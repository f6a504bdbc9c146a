import { LatticeNoise, type Random } from './random';
import type { Texture } from './specimens';

interface Knot {
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
  readonly depth: number;
}

/** A hard or sticky place inside the sheet: glue in a ply, resin in a board. */
interface Pocket {
  readonly x: number;
  readonly y: number;
  readonly radiusMm: number;
  readonly fromMm: number;
  readonly toMm: number;
}

/** What a piece of stock is like from place to place, in millimetres of the piece. */
export interface Ground {
  /** For a row of pixels at these places along x: writes into it, for each y, the relative deviation of the bare face's reflectance: grain, mottling, knots. */
  reliefAt(xs: Float64Array): (y: number, row: Float64Array) => void;
  /** How many times more energy a place takes to be removed, at a depth. */
  resistance(x: number, y: number, depthMm: number): number;
}

/** What a knot takes of the light along a row. */
function addKnot(row: Float64Array, knot: Knot, xs: Float64Array, y: number): void {
  const down = (y - knot.y) * 1.4;
  if (Math.abs(down) >= 3 * knot.radiusMm) return;
  for (let index = 0; index < row.length; index++) {
    const distance = Math.hypot(xs[index]! - knot.x, down) / knot.radiusMm;
    if (distance < 3) row[index]! -= knot.depth * Math.exp(-distance * distance) * (1 + 0.25 * Math.sin(distance * 9));
  }
}

/** Texture, knots and glue pockets of one piece, all from its random source. */
export function groundOf(
  size: { readonly widthMm: number; readonly heightMm: number; readonly thicknessMm: number },
  texture: Texture,
  alongX: boolean,
  random: Random,
): Ground {
  const streaks = new LatticeNoise(random);
  const mottle = new LatticeNoise(random);
  const fine = new LatticeNoise(random);
  const knots = Array.from({ length: Math.floor(texture.knots + random()) }, (): Knot => ({
    x: random() * size.widthMm,
    y: random() * size.heightMm,
    radiusMm: 0.6 + 1.8 * random(),
    depth: 0.15 + 0.25 * random(),
  }));
  const share = (size.widthMm * size.heightMm) / 1000;
  const pockets = Array.from({ length: Math.floor(texture.pockets * share + random()) }, (): Pocket => {
    const fromMm = size.thicknessMm * (0.2 + 0.5 * random());
    return {
      x: random() * size.widthMm,
      y: random() * size.heightMm,
      radiusMm: 0.8 + 2.2 * random(),
      fromMm,
      toMm: fromMm + 0.1 + 0.25 * random(),
    };
  });
  const { streakMm, mottleMm } = texture;
  return {
    reliefAt(xs) {
      const inMottle = xs.map((x) => x / mottleMm);
      const inFine = xs.map((x) => x * 8);
      const bendAt = (along: number): number => mottle.at(along / (mottleMm * 2), 40) * streakMm * 2;
      const bends = alongX ? xs.map(bendAt) : xs;
      const across = new Float64Array(xs.length);
      /** Streaks so many times as wide as the finest, and as long. */
      const addStreaks = (
        row: Float64Array,
        y: number,
        share: number,
        wide: number,
        long: number,
        from: number,
      ): void => {
        if (alongX) {
          for (let index = 0; index < row.length; index++)
            row[index]! +=
              share * streaks.at((y + bends[index]!) / (streakMm * wide) + from, xs[index]! / (streakMm * long));
          return;
        }
        const bend = bendAt(y);
        for (let index = 0; index < row.length; index++) across[index] = (xs[index]! + bend) / (streakMm * wide) + from;
        streaks.addRow(row, share, across, y / (streakMm * long));
      };
      return (y, row) => {
        row.fill(0);
        if (texture.streaks > 0) {
          addStreaks(row, y, texture.streaks, 1, 30, 0);
          addStreaks(row, y, texture.streaks * 0.5, 3.1, 60, 90);
        }
        mottle.addRow(row, texture.mottle, inMottle, y / mottleMm);
        fine.addRow(row, texture.fine * 0.5, inFine, y * 8);
        for (const knot of knots) addKnot(row, knot, xs, y);
        for (let index = 0; index < row.length; index++) row[index] = Math.max(-0.7, row[index]!);
      };
    },
    resistance(x, y, depthMm) {
      let times = 1;
      for (const knot of knots) {
        const distance = Math.hypot(x - knot.x, (y - knot.y) * 1.4) / knot.radiusMm;
        if (distance < 2) times += 1.4 * knot.depth * Math.exp(-distance * distance) * 2;
      }
      for (const pocket of pockets) {
        if (depthMm < pocket.fromMm || depthMm > pocket.toMm) continue;
        const distance = Math.hypot(x - pocket.x, y - pocket.y) / pocket.radiusMm;
        if (distance < 1) times += 1.2 * (1 - distance * distance);
      }
      return times;
    },
  };
}

/** A ground whose places count from another one of it. */
export const groundFrom = (ground: Ground, from: { readonly x: number; readonly y: number }): Ground => ({
  reliefAt(xs) {
    const relieve = ground.reliefAt(xs.map((x) => x + from.x));
    return (y, row) => relieve(y + from.y, row);
  },
  resistance: (x, y, depthMm) => ground.resistance(x + from.x, y + from.y, depthMm),
});
