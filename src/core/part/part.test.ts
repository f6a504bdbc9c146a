import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import { describe, expect, it } from 'vitest';
import { jointBySchool, perSideOf, SCHOOLS } from '../joint/clearance';
import type { Point } from '../geometry/point';
import { compensated, type Compensation } from './compensate';
import { cutLines } from './cut-line';
import { joined, lineOf, pointsOf, type Drawing } from './drawing';
import { arcPoints, cubicPoints, quadraticPoints } from './flatten';
import { cutOrder, lengthOf, sortedDrawing } from './outlines';
import { boxOfRing, isInside, offsetRing, signedAreaMm2 } from './polygons';
import { tag } from './tag';
import { points } from '../../../tests/support/points';

const box = (x: number, y: number, width: number, height: number): Point[] => [
  { x, y },
  { x: x + width, y },
  { x: x + width, y: y + height },
  { x, y: y + height },
];
const drawing = (...rings: Point[][]): Drawing => ({
  name: 'of a test',
  sizeSaidIn: 'lengths',
  lines: rings.map((ring) => lineOf(ring, true)),
});
const ell: Point[] = points([0, 0], [12, 0], [12, 3], [4, 3], [2.5, 9], [0, 9]);
const area = (ring: readonly Point[]): number => Math.abs(signedAreaMm2(ring));

describe('curves as chords', () => {
  it.each([0.5, 3, 40])('keeps an arc of radius %s within its flatness, and on the circle', (r) => {
    const half = arcPoints(
      { x: r, y: 0 },
      { rx: r, ry: r, turnedDeg: 0, isLarge: false, isClockwise: true },
      { x: -r, y: 0 },
      0.002,
    );
    for (const [index, { x, y }] of half.entries()) {
      expect(Math.hypot(x, y)).toBeCloseTo(r, 9);
      const before = half[index - 1] ?? { x: r, y: 0 };
      expect(r - Math.hypot((x + before.x) / 2, (y + before.y) / 2)).toBeLessThanOrEqual(0.002);
    }
    // Clockwise with y down: below, as it is seen.
    expect(half[Math.floor(half.length / 2)]!.y).toBeGreaterThan(0.9 * r);
  });

  it('tells the four arcs between two places apart, and turns ovals', () => {
    const arc = (isLarge: boolean, isClockwise: boolean): Point[] => [
      { x: 0, y: 0 },
      ...arcPoints({ x: 0, y: 0 }, { rx: 5, ry: 5, turnedDeg: 0, isLarge, isClockwise }, { x: 6, y: 0 }, 0.0001),
    ];
    // A chord of 6 in a circle of 5: the arcs are 2 r asin(0.6) long, and the rest of it; their heights 1 and 9.
    const short = 10 * Math.asin(0.6);
    expect(lengthOf(arc(false, true))).toBeCloseTo(short, 2);
    expect(lengthOf(arc(true, true))).toBeCloseTo(10 * Math.PI - short, 2);
    expect(Math.min(...arc(false, true).map(({ y }) => y))).toBeCloseTo(-1, 3);
    expect(Math.max(...arc(false, false).map(({ y }) => y))).toBeCloseTo(1, 3);
    expect(Math.max(...arc(true, false).map(({ y }) => y))).toBeCloseTo(9, 3);
    const oval = arcPoints(
      { x: 0, y: -4 },
      { rx: 4, ry: 2, turnedDeg: 90, isLarge: false, isClockwise: true },
      { x: 0, y: 4 },
      0.001,
    );
    expect(Math.max(...oval.map(({ x }) => x))).toBeCloseTo(2, 3);
    // Radii that do not reach are made larger: half a circle over the chord.
    const reached = arcPoints(
      { x: 0, y: 0 },
      { rx: 1, ry: 1, turnedDeg: 0, isLarge: false, isClockwise: true },
      { x: 6, y: 0 },
      0.001,
    );
    expect(Math.min(...reached.map(({ y }) => y))).toBeCloseTo(-3, 2);
    // Without a radius, or from a place to itself, it is a straight line.
    const [from, to] = points([0, 0], [6, 1]);
    const plain = { rx: 5, ry: 5, turnedDeg: 0, isLarge: false, isClockwise: true };
    for (const none of [{ rx: 0 }, { ry: 0 }]) expect(arcPoints(from, { ...plain, ...none }, to, 0.01)).toEqual([to]);
    expect(arcPoints(to, plain, { ...to }, 0.01)).toEqual([to]);
    for (const other of points([6, 5], [2, 1])) expect(arcPoints(to, plain, other, 0.01).length).toBeGreaterThan(2);
    // Radii below nothing are as good as their size.
    expect(arcPoints(from, { ...plain, rx: -5, ry: -5 }, to, 0.01)).toEqual(arcPoints(from, plain, to, 0.01));
  });

  it('keeps Bézier curves within their flatness of many more chords', () => {
    const [from, a, b, to] = points([0, 0], [10, 20], [-4, 8], [12, 2]);
    const coarse = [from, ...cubicPoints(from, a, b, to, 0.01)];
    const fine = [from, ...cubicPoints(from, a, b, to, 1e-5)];
    for (const point of fine) expect(distance(coarse, point)).toBeLessThanOrEqual(0.01);
    expect(coarse.length).toBeLessThan(fine.length / 10);
    // De Casteljau's middle, by hand: (0 + 3·10 - 3·4 + 12) / 8 and (0 + 3·20 + 3·8 + 2) / 8.
    expect(distance(fine, { x: 3.75, y: 10.75 })).toBeLessThan(1e-4);
    // A parabola: y = x (6 - x) / 3 has its vertex at 3.
    const parabola = quadraticPoints(from, { x: 3, y: 6 }, { x: 6, y: 0 }, 0.001);
    for (const { x, y } of parabola) expect(y).toBeCloseTo((x * (6 - x)) / 3, 9);
  });
});

function distance(line: readonly Point[], { x, y }: Point): number {
  return Math.min(
    ...line.slice(1).map((b, index) => {
      const a = line[index]!;
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const share = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)));
      return Math.hypot(x - a.x - share * dx, y - a.y - share * dy);
    }),
  );
}

describe('lines of a drawing', () => {
  it('joins strokes whose ends meet, in any order and sense, and leaves what ends nowhere open', () => {
    const side = (ax: number, ay: number, bx: number, by: number) => lineOf(points([ax, ay], [bx, by]), false);
    const whole = joined([
      side(0, 0, 10, 0),
      side(10, 10, 0, 10),
      side(10, 10.01, 10, 0),
      side(0, 0, 0, 10),
      side(20, 0, 30, 0),
    ]);
    expect(whole.map(({ closed }) => closed)).toEqual([true, false]);
    expect(pointsOf(whole[0]!)).toHaveLength(4);
    expect(area(pointsOf(whole[0]!))).toBeCloseTo(100, 0);
    // At either end of it, and whichever way the next one was drawn.
    for (const next of [side(20, 0, 30, 0), side(30, 0, 20, 0), side(0, 0, 10, 0), side(10, 0, 0, 0)]) {
      const [chain, ...more] = joined([side(10, 0, 20, 0), next]);
      expect(more).toEqual([]);
      expect(pointsOf(chain!)).toHaveLength(3);
    }
    // A line that goes nowhere is none.
    expect(joined([side(3, 3, 3, 3)])).toEqual([]);
    // Half a tenth apart is a gap that somebody must know of.
    expect(joined([side(0, 0, 10, 0), side(10.05, 0, 10, 9)]).map(({ closed }) => closed)).toEqual([false, false]);
  });

  it('sorts outlines by nesting, whichever way they are drawn', () => {
    const { outlines, twice, faults } = sortedDrawing(
      drawing(box(4, 4, 4, 4), box(0, 0, 30, 20), box(2, 2, 10, 10).reverse(), box(40, 0, 5, 5), box(0, 0, 30, 20)),
    );
    expect(faults).toEqual([]);
    expect(twice).toBe(1);
    expect(outlines.map(({ side }) => side)).toEqual(['part', 'hole', 'part', 'part']);
    expect(outlines.map(({ within }) => within)).toEqual([null, 0, null, 1]);
    // The same line told by other places, begun elsewhere and drawn the other way, is the same cut.
    const told = points([15, 20], [0, 20], [0, 8], [0, 0], [30, 0], [30, 20]).reverse();
    expect(sortedDrawing(drawing(box(0, 0, 30, 20), told))).toMatchObject({ twice: 1, outlines: [{ side: 'part' }] });
    // A wall of a tenth of a millimetre is no wall, and still another line.
    expect(sortedDrawing(drawing(box(0, 0, 30, 20), box(0.1, 0.1, 29.8, 19.8))).twice).toBe(0);
    // A place on a part lies in none of its holes, and one on a hole's waste not on what is cut of that.
    const [frame, ring] = outlines;
    expect(isInside(frame!.on, box(2, 2, 10, 10))).toBe(false);
    expect(isInside(ring!.on, box(2, 2, 10, 10))).toBe(true);
    expect(isInside(ring!.on, box(4, 4, 4, 4))).toBe(false);
    expect(cutOrder(outlines)).toEqual([3, 1, 0, 2]);
  });

  it('names what crosses, and what is too small to be cut', () => {
    const bow = points([0, 0], [10, 10], [10, 0], [0, 10]);
    expect(sortedDrawing(drawing(bow)).faults.map(({ what }) => what)).toEqual(['crosses-itself']);
    const crossing = sortedDrawing(drawing(box(0, 0, 10, 10), box(8, 2, 10, 5)));
    expect(crossing.faults.map(({ what }) => what)).toEqual(['crosses-another']);
    expect(crossing.outlines).toEqual([]);
    expect(sortedDrawing(drawing(box(0, 0, 0.1, 5))).faults.map(({ what }) => what)).toEqual(['too-small']);
    // A sliver that lies aslant: its box is large, and nothing is in it.
    const sliver = points([0, 0], [5, 5.004], [10, 10]);
    expect(sortedDrawing(drawing(sliver)).faults.map(({ what }) => what)).toEqual(['too-small']);
    expect(() => boxOfRing([])).toThrow(/no places/);
    expect(sortedDrawing(drawing(box(0, 0, 10, 10)), 0.5).outlines[0]!.box).toEqual({
      x: 0,
      y: 0,
      width: 5,
      height: 5,
    });
  });
});

/** The area of a polygon's buffer by a library that does not share a line with ours: JTS, as ported to JavaScript. */
function bufferedAreaMm2(ring: readonly Point[], byMm: number): number {
  const factory = new GeometryFactory();
  const places = [...ring, ring[0]!].map(({ x, y }) => new Coordinate(x, y));
  return BufferOp.bufferOp(factory.createPolygon(factory.createLinearRing(places), []), byMm, 64).getArea();
}

describe('outlines moved by a kerf', () => {
  it.each([0.08, 0.4, -0.08, -0.4])('moves an outline by %s mm as a geometry library does', (by) => {
    const [moved] = offsetRing(ell, { xMm: by, yMm: by });
    expect(area(moved!)).toBeCloseTo(bufferedAreaMm2(ell, by), 1);
    expect(area(moved!) / bufferedAreaMm2(ell, by)).toBeCloseTo(1, 3);
  });

  it('grows a square by its sides and a quarter of a circle at each corner, by an oval as well', () => {
    expect(area(offsetRing(box(0, 0, 10, 10), { xMm: 0.1, yMm: 0.1 })[0]!)).toBeCloseTo(104 + 0.01 * Math.PI, 2);
    const oval = offsetRing(box(0, 0, 10, 10).reverse(), { xMm: 0.5, yMm: 0.2 })[0]!;
    expect(boxOfRing(oval).width).toBeCloseTo(11, 4);
    expect(boxOfRing(oval).height).toBeCloseTo(10.4, 4);
    expect(area(oval)).toBeCloseTo(100 + 10 + 4 + 0.5 * 0.2 * Math.PI, 2);
    const inward = boxOfRing(offsetRing(box(0, 0, 10, 10), { xMm: -0.5, yMm: -0.2 })[0]!);
    expect([inward.width, inward.height].map((mm) => Math.round(mm * 1e4) / 1e4)).toEqual([9, 9.6]);
    expect(() => offsetRing(ell, { xMm: 0.1, yMm: -0.1 })).toThrow('invalid offset');
    // Along one axis alone, either way: what is left along the other is a thousandth of it.
    const thinner = boxOfRing(offsetRing(box(0, 0, 10, 10), { xMm: -0.5, yMm: 0 })[0]!);
    expect(thinner.width).toBeCloseTo(9, 3);
    expect(thinner.height).toBeCloseTo(10, 2);
  });

  const by = (more: Partial<Compensation> = {}): Compensation => ({
    kerf: { xMm: 0.2, yMm: 0.3 },
    school: 'both',
    clearanceMm: 0,
    ...more,
  });

  it('draws parts wider and holes narrower by the kerf of each axis, so that they come out as wanted', () => {
    const { outlines } = sortedDrawing(drawing(box(0, 0, 20, 20), box(5, 5, 6, 6)));
    const { cuts, faults } = compensated(outlines, by());
    expect(faults).toEqual([]);
    const sizes = cuts.map(({ path }) => boxOfRing(path));
    expect(sizes.map(({ width }) => width.toFixed(3))).toEqual(['20.200', '5.800']);
    expect(sizes.map(({ height }) => height.toFixed(3))).toEqual(['20.300', '5.700']);
    expect(cuts.every(({ comesOut }) => Math.abs(comesOut.xMm) + Math.abs(comesOut.yMm) < 1e-12)).toBe(true);
  });

  it.each(SCHOOLS)('says what comes out under the school of %s as the joint’s own sum does', (school) => {
    const { outlines } = sortedDrawing(drawing(box(0, 0, 20, 20), box(5, 5, 6, 6)));
    const { cuts } = compensated(outlines, by({ school, clearanceMm: 0.05, kerf: { xMm: 0.2, yMm: 0.2 } }));
    const sums = { sizeMm: 6, clearanceMm: 0.05, holeKerfMm: 0.2, partKerfMm: 0.2, kerfSigmaMm: null };
    const joint = jointBySchool(sums).find((one) => one.school === school)!;
    const [part, hole] = cuts.map(({ comesOut }) => comesOut.xMm);
    expect(hole! - part!).toBeCloseTo(joint.clearanceMm, 9);
    expect(boxOfRing(cuts[1]!.path).width).toBeCloseTo(joint.holeMm, 3);
    expect(6 + 2 * perSideOf(school, sums).partSideMm).toBeCloseTo(joint.partMm, 9);
  });

  it('names what cannot be cut: narrow holes, gaps that close, parts that stand too near', () => {
    const faults = (rings: Point[][], more?: Partial<Compensation>): string[] =>
      compensated(sortedDrawing(drawing(...rings)).outlines, by(more)).faults.map(({ what }) => what);
    expect(faults([box(0, 0, 20, 20), box(5, 5, 0.25, 0.25)])).toEqual(['hole-narrower-than-cut']);
    // A keyhole: wide at one end, a slit narrower than the cut at the other.
    const keyhole = points([2, 2], [6, 2], [6, 3.9], [12, 3.9], [12, 4.1], [6, 4.1], [6, 6], [2, 6]);
    expect(faults([box(0, 0, 20, 20), keyhole])).toEqual(['hole-narrower-than-cut']);
    const slit = points([0, 0], [9.9, 0], [9.9, 8], [10.05, 8], [10.05, 0], [20, 0], [20, 20], [0, 20]);
    expect(faults([slit])).toEqual(['gap-narrower-than-cut']);
    expect(faults([box(0, 0, 10, 10), box(10.3, 0, 10, 10)])).toEqual(['too-near']);
    expect(faults([box(0, 0, 10, 10), box(10.6, 0, 10, 10)])).toEqual([]);
    expect(faults([box(0, 0, 20, 20)], { school: 'part', clearanceMm: 0.5 })).toEqual(['clearance-between-kerfs']);
    expect(faults([ell, box(1, 1, 2, 1)])).toEqual([]);
  });
});

describe('cut lines', () => {
  const at = { leadMm: 0, tabs: null, waste: 'outside', kerfMm: 0.2 } as const;

  it('begins in the middle of the longest straight stretch, however many places it is told in', () => {
    const told = points([0, 0], [4, 0], [12, 0], [12, 5], [0, 5]);
    const [line] = cutLines(told.slice(0, 3).concat(told.slice(3)), at);
    expect(points([6, 0], [6, 5])).toContainEqual(line![0]);
    expect(line!.at(-1)).toEqual(line![0]);
    expect(lengthOf(line!)).toBeCloseTo(34, 9);
  });

  it('leads in from the waste, outside of parts and inside of holes, whichever way they are drawn', () => {
    for (const ring of [box(0, 0, 20, 10), box(0, 0, 20, 10).reverse()]) {
      const [outer] = cutLines(ring, { ...at, leadMm: 2 });
      expect(isInside(outer![0]!, ring)).toBe(false);
      expect(Math.hypot(outer![0]!.x - outer![1]!.x, outer![0]!.y - outer![1]!.y)).toBeCloseTo(2, 9);
      const [inner] = cutLines(ring, { ...at, leadMm: 2, waste: 'inside' });
      expect(isInside(inner![0]!, ring)).toBe(true);
      // In a narrow hole a lead is shorter, or it burns the far wall.
      const [narrow] = cutLines(box(0, 0, 20, 3), { ...at, leadMm: 2, waste: 'inside' });
      expect(Math.hypot(narrow![0]!.x - narrow![1]!.x, narrow![0]!.y - narrow![1]!.y)).toBeCloseTo(1, 9);
    }
  });

  it('leaves tabs of their width, the beam’s own width added to each gap', () => {
    const lines = cutLines(box(0, 0, 20, 10), { ...at, tabs: { count: 3, widthMm: 0.8 } });
    expect(lines).toHaveLength(3);
    expect(lines.reduce((sum, line) => sum + lengthOf(line), 0)).toBeCloseTo(60 - 3 * (0.8 + 0.2), 9);
    for (const [index, line] of lines.entries()) {
      const next = lines[(index + 1) % 3]!;
      expect(Math.hypot(line.at(-1)!.x - next[0]!.x, line.at(-1)!.y - next[0]!.y)).toBeCloseTo(1, 9);
    }
    // A small outline is not left uncut: half of it goes to its tabs at the most.
    const small = cutLines(box(0, 0, 4, 4), { ...at, tabs: { count: 4, widthMm: 3 } });
    expect(small.reduce((sum, line) => sum + lengthOf(line), 0)).toBeCloseTo(8, 9);
  });
});

describe('the tag to begin with', () => {
  it('is a round-cornered rectangle with a round hole and a window, each where it is drawn', () => {
    const rings = tag().lines.map((line) => pointsOf(line));
    // Of round corners of a radius, four squares less a circle are missing.
    const missing = (r: number): number => (4 - Math.PI) * r ** 2;
    const areas = [24 * 16 - missing(2), Math.PI * 2.5 ** 2, 8 * 7 - missing(0.5)];
    rings.forEach((ring, index) => expect(area(ring) / areas[index]!).toBeCloseTo(1, 2));
    expect(rings.map(boxOfRing).map(({ x, y, width, height }) => [x, y, width, height])).toEqual([
      [0, 0, 24, 16],
      [3, 5.5, 5, 5],
      [12, 4.5, 8, 7],
    ]);
  });
});
