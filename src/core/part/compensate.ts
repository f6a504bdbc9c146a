import { grown, rectsOverlap, type Point } from '../geometry/point';
import { perSideOf, type School } from '../joint/clearance';
import type { Outline } from './outlines';
import { boxOfRing, offsetRing, piecesLeft, sharedAreaMm2, signedAreaMm2, type Offset, type Ring } from './polygons';

/** What a cut takes, full width, along each axis. */
export interface KerfXY {
  readonly xMm: number;
  readonly yMm: number;
}

/** How outlines are drawn other than they are wanted. */
export interface Compensation {
  readonly kerf: KerfXY;
  readonly school: School;
  /** What a hole shall be wider than the part that goes into it; below zero to be pressed in. */
  readonly clearanceMm: number;
}

/** An outline as the beam goes along it. */
export interface CutOutline {
  readonly outline: Outline;
  readonly path: Ring;
  /** Its box once it is cut, less that of the drawing, along each axis. */
  readonly comesOut: KerfXY;
}

/** Why an outline cannot be cut as it is wanted, with a place to look at. */
export interface CutFault {
  readonly what: 'hole-narrower-than-cut' | 'gap-narrower-than-cut' | 'too-near' | 'clearance-between-kerfs';
  readonly at: Point;
}

/** How far an outline is moved outward on either side, and what comes of it. */
function movedBy({ side }: Outline, { kerf, school, clearanceMm }: Compensation): { offset: Offset; comesOut: KerfXY } {
  const along = (kerfMm: number): { by: number; comesOut: number } => {
    const { partSideMm, holeSideMm } = perSideOf(school, { holeKerfMm: kerfMm, partKerfMm: kerfMm, clearanceMm });
    // A cut on its line takes half its width of either side.
    return side === 'part'
      ? { by: partSideMm, comesOut: 2 * partSideMm - kerfMm }
      : { by: holeSideMm, comesOut: 2 * holeSideMm + kerfMm };
  };
  const [x, y] = [along(kerf.xMm), along(kerf.yMm)];
  return { offset: { xMm: x.by, yMm: y.by }, comesOut: { xMm: x.comesOut, yMm: y.comesOut } };
}

/** Of corners that are rounded nothing larger is lost than so many squares of half the cut's width. */
const CORNER_LOSS = 6;

/**
 * Outlines as they are cut so that they come out as a school wants them: parts grown, holes shrunk, by half of the kerf along each axis or by what
 * the school says. Throws nothing: what cannot be cut is a fault, and has no path.
 *
 * A square of 10 mm, both compensated, kerfs of 0.2 and 0.3 mm: a path 10.2 mm wide and 10.3 high.
 */
export function compensated(
  outlines: readonly Outline[],
  by: Compensation,
): { readonly cuts: readonly CutOutline[]; readonly faults: readonly CutFault[] } {
  const faults: CutFault[] = [];
  const cuts = outlines.flatMap((outline): CutOutline[] => {
    const { offset, comesOut } = movedBy(outline, by);
    const narrow = outline.side === 'hole' ? 'hole-narrower-than-cut' : 'gap-narrower-than-cut';
    if (offset.xMm * offset.yMm < 0) {
      faults.push({ what: 'clearance-between-kerfs', at: outline.ring[0]! });
      return [];
    }
    const [path, ...others] = offsetRing(outline.ring, offset);
    if (!path || others.length > 0) {
      faults.push({ what: narrow, at: outline.on });
      return [];
    }
    const lost = lostOf(outline.ring, path, offset);
    if (lost) {
      faults.push({ what: narrow, at: lost });
      return [];
    }
    return [{ outline, path, comesOut }];
  });
  return { cuts, faults: faults.length > 0 ? faults : tooNear(cuts, by.kerf) };
}

/** A place where the beam cannot follow an outline without leaving it; null where it can everywhere. */
function lostOf(ring: Ring, path: Ring, { xMm, yMm }: Offset): Point | null {
  if (xMm === 0 && yMm === 0) return null;
  const back = offsetRing(path, { xMm: -xMm, yMm: -yMm });
  const shrinks = xMm + yMm < 0;
  const pieces = shrinks ? piecesLeft([ring], back) : piecesLeft(back, [ring]);
  const most = CORNER_LOSS * Math.abs(xMm) * Math.abs(yMm);
  return pieces.find(({ areaMm2 }) => areaMm2 > most)?.middle ?? null;
}

/** Parts whose cuts run into each other: nothing of what lies between them is left, or one takes of the other. */
function tooNear(cuts: readonly CutOutline[], { xMm, yMm }: KerfXY): CutFault[] {
  const half = { xMm: xMm / 2, yMm: yMm / 2 };
  const swept = cuts.map(({ path, outline }) => ({
    outline,
    // What the beam takes beside its way: outward of a part, inward of a hole.
    reach: outline.side === 'part' ? offsetRing(path, half) : offsetRing(path, { xMm: -half.xMm, yMm: -half.yMm }),
    box: grown(outline.box, Math.max(xMm, yMm) + Math.abs(outline.box.width - boxOfRing(path).width)),
  }));
  return swept.flatMap(({ outline, reach, box }, index) =>
    swept.slice(0, index).flatMap((other): CutFault[] => {
      if (!rectsOverlap(box, other.box)) return [];
      const shared = sharedAreaMm2(reach, other.reach);
      const least = Math.min(areaOf(reach), areaOf(other.reach));
      const apartOrNested = shared < 1e-3 || least - shared < 1e-3;
      return apartOrNested ? [] : [{ what: 'too-near', at: outline.on }];
    }),
  );
}

const areaOf = (rings: readonly Ring[]): number => rings.reduce((sum, ring) => sum + Math.abs(signedAreaMm2(ring)), 0);
