import { describe, expect, it } from 'vitest';
import type { Cell } from '../../card/layout';
import { measureThrough, type BacklitContext } from './measure-through';

/** Ten by ten millimetres at 10 pixels to each, through which half of an open light of 0.6 comes, and less at the lower end of the cell. */
const SIDE = 100;
const context = (change: Partial<BacklitContext> = {}, light = 0.3, clippedRows = 0): BacklitContext => ({
  rectified: {
    width: SIDE,
    height: SIDE,
    pxPerMm: 10,
    data: Float32Array.from({ length: SIDE * SIDE * 3 }, (_, at) => (at < SIDE * 44 * 3 ? light : 0.9 * light)),
    clipped: Uint8Array.from({ length: SIDE * SIDE }, (_, at) => (at < SIDE * (30 + clippedRows) ? 1 : 0)),
  },
  open: { at: (x, y) => (x === 4 && y === 4 ? 0.6 : NaN), sigma: 0 },
  photoPxPerMm: 20,
  frameErrorMm: 0,
  bareThrough: 0.1,
  mostRoomLight: 0,
  toneSigma: () => 0,
  ...change,
});
/** Four by two millimetres about (4, 4): its middle is what lies 0.4 mm within, 28 to 51 and 34 to 46. */
const CELL = { index: 7, box: { x: 2, y: 3, width: 4, height: 2 } } as Cell;
const measured = (...of: Parameters<typeof context>) => measureThrough(context(...of), CELL);

describe('what comes through a cell', () => {
  it('is its middle’s light over that of the open table there, and its darkest tenth', () => {
    // Ten of twelve rows send 0.5, the last two 0.45.
    const { cellIndex, through, darkestTenth, doubts } = measured();
    expect(cellIndex).toBe(7);
    expect(through).toBeCloseTo((10 * 0.5 + 2 * 0.45) / 12, 6);
    expect(darkestTenth).toBeCloseTo(0.45, 6);
    expect(doubts).toEqual([]);
  });
  it('is unsure by the light, the frame, the room and the camera’s tones, each by its own', () => {
    const plain = measured();
    // By hand: 0.004 and 0.6 % of what comes through.
    expect(plain.ownSigma).toBeCloseTo(Math.hypot(0.004, 0.006 * plain.through), 9);
    expect(plain.sigma).toBe(plain.ownSigma);
    const more = ({ sigma }: typeof plain): number => Math.sqrt(sigma ** 2 - plain.sigma ** 2);
    expect(more(measured({ open: { ...context().open, sigma: 0.02 } }))).toBeCloseTo(0.02 * plain.through, 9);
    // Half of 0.1 mm in 2 mm, of what lies between the cell and bare stock.
    const aside = measured({ frameErrorMm: 0.1 });
    expect(more(aside)).toBeCloseTo(0.025 * (plain.through - 0.1), 9);
    expect(aside.ownSigma).toBe(aside.sigma);
    const room = measured({ mostRoomLight: 0.08 });
    expect(more(room)).toBeCloseTo((0.08 * 0.7) / 4, 9);
    expect(room.ownSigma).toBe(plain.ownSigma);
    const tones = measured({ toneSigma: (light, other) => (other - light) / 10 });
    expect(more(tones)).toBeCloseTo(plain.through * 0.06 * (1 - plain.through), 9);
  });
  it('is doubted for what each of them is', () => {
    expect(measured({ photoPxPerMm: 1 }).doubts).toEqual(['blurred']);
    expect(measured({ photoPxPerMm: 8, frameErrorMm: 0.4, toneSigma: () => 0.05 / measured().through }).doubts).toEqual(
      [],
    );
    expect(measured({ frameErrorMm: 2 }).doubts).toEqual(['off-frame']);
    expect(measured({ mostRoomLight: 1 }).doubts).toEqual(['room-light']);
    expect(measured({ toneSigma: () => 1 }).doubts).toEqual(['tones-unknown']);
  });
  it('is doubted at the bright end alone, where more than a fiftieth of it is clipped', () => {
    expect(measured({}, 0.55, 10).doubts).toEqual(['blown-out']);
    expect(measured({}, 0.55, 4).doubts).toEqual([]);
    expect(measured({}, 0.2, 10).doubts).toEqual([]);
  });
});
