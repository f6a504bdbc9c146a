import type { Layout } from '../../card/layout';
import { boxOfShape } from '../../card/shape';
import { grown, type Rect } from '../../geometry/point';
import { median } from '../../stats/robust';
import { lightAcross, type LinesRun } from './across';
import type { FineLight } from './fine-light';
import { isOneLine } from './one-line';
import { softEdge } from './soft-edge';

/** What a camera leaves of waves in the light: its lens, focus, a hand that moved, and the width of its pixels. */
export interface Blur {
  /** Between what standard deviations, in mm, the normal law lies that blurs alike. */
  readonly leastMm: number;
  readonly mostMm: number;
  /** The share of a wave's amplitude that is left, and how sure that is, as a share of it. */
  leftOf(pitchMm: number): { readonly share: number; readonly relativeSigma: number };
}

/** No camera blurs by less than this, in its pixels: their own width is 0.29, what fills in colours and the lens add to it. From memory, without a source. */
export const SHARPEST_PX = 0.45;
/**
 * How soft a burn's edge is at the least, as a share of its beam's: what marks by a threshold and saturates at several times that is steeper than the
 * light. From memory, without a source: a mark that takes six times its scale at its middle goes from 10 to 90 % within half of what the light does.
 */
const SHARPEST_BURN = 0.4;
/** Edges this clear over the scatter beside them are looked at. */
const CLEAR = 8;
const ENOUGH_EDGES = 3;
/** How far to both sides of an edge is looked, in mm and in photo pixels at the least. */
const REACH_MM = 0.25;
const REACH_PX = 6;
/** The part of a marker's side, or of a cell's, that is looked at. */
const MIDDLE = 0.6;

/**
 * How much a camera blurs across lines that run so, by the edges of the card's markers and cells that run alike: it blurs no more than
 * those, and less by what the beam itself softens them. A burn's edge is no softer than its beam, and no sharper than two fifths of it, so that is
 * between these shares of the beam's own standard deviation, a quarter of its 1/e² width. Null where too few edges are clear.
 */
export function blurAcross(fine: FineLight, layout: Layout, run: LinesRun, spotMm: number | null): Blur | null {
  const reach = Math.max(REACH_MM, REACH_PX / fine.pxPerMm);
  const widths = edgesAlong(layout, run, reach).flatMap((area) => {
    const edge = softEdge(lightAcross(fine, area, run));
    return edge && edge.clear >= CLEAR && edge.sigmaMm < reach ? [edge.sigmaMm] : [];
  });
  if (widths.length < ENOUGH_EDGES) return null;
  const floor = SHARPEST_PX / fine.pxPerMm;
  const seen = median(widths);
  const without = (burned: number): number => Math.max(floor, Math.sqrt(Math.max(0, seen ** 2 - burned ** 2)));
  const beam = spotMm === null ? null : spotMm / 4;
  const leastMm = beam === null ? floor : without(beam);
  return blurBetween(leastMm, without((beam ?? 0) * SHARPEST_BURN));
}

/** A blur by a normal law whose standard deviation lies between two values, each as likely as any other: what it leaves is between too. */
export function blurBetween(leastMm: number, mostMm: number): Blur {
  return {
    leastMm,
    mostMm,
    leftOf: (pitchMm) => {
      const exponent = (sigma: number): number => -2 * (Math.PI * (sigma / pitchMm)) ** 2;
      const [high, low] = [exponent(leastMm), exponent(mostMm)];
      return { share: Math.exp((high + low) / 2), relativeSigma: (high - low) / Math.sqrt(12) };
    },
  };
}

/** Strips across the edges of markers and cells that run along lines that run so. */
function edgesAlong({ frame, cells, before }: Layout, run: LinesRun, reach: number): Rect[] {
  const burned: Rect[] = [
    ...frame.markers.map(({ x, y, sizeMm }) => ({ x, y, width: sizeMm, height: sizeMm })),
    // What is filled alone ends at an edge: a cell with one line has none, and what grain there looks like one.
    ...[...cells.filter(({ leftOut }) => !leftOut).flatMap(({ burns }) => burns), ...before]
      .filter((burn) => burn.shape.do === 'sweep' && !isOneLine(burn))
      .map(({ shape }) => boxOfShape(shape)),
  ];
  return burned.flatMap((box) => {
    const middle = grown(box, (-(1 - MIDDLE) / 2) * Math.min(box.width, box.height));
    // Each strip goes from bare stock into the burn.
    return run === 'horizontal'
      ? [box.y, box.y + box.height].map((y) => ({ x: middle.x, width: middle.width, y: y - reach, height: 2 * reach }))
      : [box.x, box.x + box.width].map((x) => ({ y: middle.y, height: middle.height, x: x - reach, width: 2 * reach }));
  });
}
