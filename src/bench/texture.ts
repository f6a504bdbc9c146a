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
  /** Relative deviation of the bare face's reflectance: grain, mottling, knots. */
  relief(x: number, y: number): number;
  /** How many times more energy a place takes to be removed, at a depth. */
  resistance(x: number, y: number, depthMm: number): number;
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
    relief(x, y) {
      const along = alongX ? x : y;
      const across = alongX ? y : x;
      const bend = mottle.at(along / (mottleMm * 2), 40) * streakMm * 2;
      let value =
        texture.streaks * streaks.at((across + bend) / streakMm, along / (streakMm * 30)) +
        texture.streaks * 0.5 * streaks.at((across + bend) / (streakMm * 3.1) + 90, along / (streakMm * 60)) +
        texture.mottle * mottle.at(x / mottleMm, y / mottleMm) +
        texture.fine * 0.5 * fine.at(x * 8, y * 8);
      for (const knot of knots) {
        const distance = Math.hypot(x - knot.x, (y - knot.y) * 1.4) / knot.radiusMm;
        if (distance < 3) value -= knot.depth * Math.exp(-distance * distance) * (1 + 0.25 * Math.sin(distance * 9));
      }
      return Math.max(-0.7, value);
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
