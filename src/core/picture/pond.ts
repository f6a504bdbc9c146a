import { packGreys, type Greys } from './greys';

const COLUMNS = 160;
const ROWS = 120;

/** Where the water begins, as a share of the height. */
const SHORE = 0.56;
const MOON = { x: 0.3, y: 0.24, radius: 0.085 };

/** Stalks of reeds: foot, lean, height, and how thick, all as shares of the height. */
const REEDS = [
  { foot: 0.98, lean: 0.1, high: 0.78, thick: 0.012 },
  { foot: 1.06, lean: 0.02, high: 0.92, thick: 0.016 },
  { foot: 1.14, lean: -0.06, high: 0.7, thick: 0.011 },
  { foot: 1.2, lean: 0.05, high: 0.84, thick: 0.014 },
  { foot: 0.9, lean: 0.04, high: 0.55, thick: 0.009 },
] as const;

const smooth = (from: number, to: number, at: number): number => {
  const share = Math.min(1, Math.max(0, (at - from) / (to - from)));
  return share * share * (3 - 2 * share);
};

/** How dark a place is, 0 to 1; x and y as shares of the height. */
function darkness(x: number, y: number): number {
  const away = Math.hypot(x - MOON.x, y - MOON.y) / MOON.radius;
  const glow = 0.34 * Math.exp(-away / 5);
  let dark = 0.62 - 0.5 * smooth(0, SHORE, y) - glow;
  if (away < 1) dark = 0.03 + 0.05 * smooth(0.4, 1, Math.hypot(x - MOON.x + 0.03, y - MOON.y - 0.02) / MOON.radius);
  // Hills far off.
  const hill = SHORE - 0.07 - 0.035 * Math.sin(4.1 * x + 0.4) - 0.02 * Math.sin(9.7 * x);
  if (y > hill && y <= SHORE) dark = 0.5 + 0.1 * smooth(hill, SHORE, y);
  if (y > SHORE) {
    const deep = (y - SHORE) / (1 - SHORE);
    // Water: the sky upside down, broken by ripples that grow nearer.
    const ripple = 0.09 * Math.sin((26 / (0.12 + deep)) * 0.9 + 3 * Math.sin(7 * x)) * (0.3 + deep);
    const path = 0.4 * Math.exp(-(((x - MOON.x) / (0.05 + 0.16 * deep)) ** 2)) * (0.65 + 0.35 * Math.sin(70 * deep));
    dark = 0.3 + 0.42 * deep + ripple - path;
  }
  for (const { foot, lean, high, thick } of REEDS) {
    const up = 1 - y;
    if (up > high) continue;
    const middle = foot + lean * (up / high) ** 2;
    const isHead = up > high - 0.16 && up < high - 0.03;
    if (Math.abs(x - middle) < (isHead ? 2.4 * thick : thick * (1 - 0.6 * (up / high)))) dark = 0.97;
  }
  return Math.min(1, Math.max(0, dark));
}

/** A pond at dusk: soft sky, ripples, and reeds as black as can be. Drawn by this code, 160 by 120, 0 for white and 255 for black. */
export function pondAtDusk(): Greys {
  const bytes = new Uint8Array(COLUMNS * ROWS);
  for (let row = 0; row < ROWS; row++)
    for (let column = 0; column < COLUMNS; column++)
      bytes[row * COLUMNS + column] = Math.round(255 * darkness((column + 0.5) / ROWS, (row + 0.5) / ROWS));
  return packGreys(COLUMNS, ROWS, bytes);
}
