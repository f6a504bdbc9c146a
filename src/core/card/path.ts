import { runUpMm } from '../motion/move';
import type { Machine } from '../machine/machine';
import { sweepLimits } from '../machine/machine';
import type { Point, Rect } from '../geometry/point';
import { visitNearest } from '../geometry/visit';
import { runsOfRow } from '../picture/screen';
import { mainBurn, type Layout, type MarkerPlace } from './layout';
import { MARKER_MODULES, markerModules } from './markers';
import { PLAIN_EXTRAS, type Air, type BurnSettings } from './settings';
import { burnedOf, powerOfShare, runsOfPicture } from './picture-shape';
import {
  boxOfShape,
  countIn,
  dotsOf,
  isArea,
  rectRing,
  type Burn,
  type DotsShape,
  type PictureShape,
  type Region,
} from './shape';
import { tiltWords } from './tilt';

/** A stretch of a sweep where the beam is on, as distances from the start of the sweep's mark. */
export interface LitStretch {
  readonly fromMm: number;
  readonly toMm: number;
  readonly powerFraction: number;
}

/** One straight line of a fill: the head runs up, crosses the mark at constant speed and runs out. */
export interface Sweep {
  readonly step: 'sweep';
  readonly from: Point;
  readonly to: Point;
  readonly runUpMm: number;
  readonly speedMmPerS: number;
  readonly lit: readonly LitStretch[];
}

/** A polyline burned at one power, at rest at both ends, with a straight run-up before and after it where one is asked for. */
export interface Stroke {
  readonly step: 'stroke';
  readonly points: readonly Point[];
  readonly runUpMm: number;
  readonly speedMmPerS: number;
  readonly powerFraction: number;
}

/** A new part of the card begins: which one, and what air and focus to set. */
export interface Part {
  readonly step: 'part';
  readonly name: string;
  /** The cells that it burns: none for frame and common burns, several where a row is crossed in one sweep. */
  readonly cells: readonly number[];
  readonly air: Air;
  /** Positive raises the head; see `BurnSettings`. */
  readonly focusOffsetMm: number;
  readonly frequencyKHz: number | null;
}

/** The burn waits for a hand. */
export interface Hand {
  readonly step: 'hand';
  readonly text: string;
}

export type PathStep = Sweep | Stroke | Part | Hand;

/** Where a line at `at` across a region crosses its outlines, ascending: every second one begins a lit stretch. */
function crossings(area: Region, at: number, horizontal: boolean): number[] {
  const found: number[] = [];
  for (const ring of area) {
    for (let index = 0; index < ring.length; index++) {
      const a = ring[index]!;
      const b = ring[(index + 1) % ring.length]!;
      const [aAcross, aAlong] = horizontal ? [a.y, a.x] : [a.x, a.y];
      const [bAcross, bAlong] = horizontal ? [b.y, b.x] : [b.x, b.y];
      // Half open, so that a corner on the line counts once.
      if (aAcross <= at === bAcross <= at) continue;
      found.push(aAlong + ((at - aAcross) / (bAcross - aAcross)) * (bAlong - aAlong));
    }
  }
  return found.sort((a, b) => a - b);
}

/** Turns points about the card's corner, counter-clockwise as the card is read (y runs down). */
const turned = ({ x, y }: Point, cos: number, sin: number): Point => ({ x: x * cos + y * sin, y: y * cos - x * sin });

/**
 * Sweeps that fill a region, as many as the interval allows, centred in its bounding box, alternating when both ways, for every
 * pass; a cross-hatched pass is done once more at right angles. A line that meets nothing of the region is left out; stretches that
 * touch are one.
 */
export function* fillRegion(area: Region, settings: BurnSettings, runUp: number): Generator<Sweep> {
  const first = (settings.direction === 'horizontal' ? 0 : 90) + settings.lineAngleDeg;
  const angles = settings.crossHatch ? [first, first + 90] : [first];
  for (let pass = 0; pass < settings.passes; pass++) {
    for (const angle of angles) yield* fillOnce(area, settings, angle % 180, runUp);
  }
}

function* fillOnce(area: Region, settings: BurnSettings, angleDeg: number, runUp: number): Generator<Sweep> {
  // Along an axis nothing is turned, so that coordinates stay as exact as they were drawn.
  if (angleDeg === 0 || angleDeg === 90) return yield* linesOfFill(area, settings, angleDeg === 0, runUp);
  const cos = Math.cos((angleDeg * Math.PI) / 180);
  const sin = Math.sin((angleDeg * Math.PI) / 180);
  const level = area.map((ring) => ring.map((point) => turned(point, cos, -sin)));
  for (const sweep of linesOfFill(level, settings, true, runUp))
    yield { ...sweep, from: turned(sweep.from, cos, sin), to: turned(sweep.to, cos, sin) };
}

/** One pass of a fill along an axis. */
function linesOfFill(area: Region, settings: BurnSettings, horizontal: boolean, runUp: number): Generator<Sweep> {
  const { powerFraction } = settings;
  return sweepsOver(boxOfShape({ do: 'sweep', area }), settings, horizontal, runUp, (_line, at) => {
    const stretches: LitStretch[] = [];
    const marks = crossings(area, at, horizontal);
    for (let k = 0; k + 1 < marks.length; k += 2) {
      const last = stretches.at(-1);
      const fromMm = last && marks[k]! - last.toMm < 1e-6 ? stretches.pop()!.fromMm : marks[k]!;
      stretches.push({ fromMm, toMm: marks[k + 1]!, powerFraction });
    }
    return stretches;
  });
}

/** Sweeps over the dots of a shape, for every pass: a line for each row of dots, in the middle of the box. */
export function* fillDots(shape: DotsShape, settings: BurnSettings, runUp: number): Generator<Sweep> {
  const horizontal = settings.direction === 'horizontal';
  const dots = dotsOf(shape, settings);
  const { x, y, width, height } = shape.box;
  const [from, length] = horizontal ? [x, width] : [y, height];
  const start = from + (length - dots.columns * settings.intervalMm) / 2;
  const stretches = (row: number): LitStretch[] =>
    runsOfRow(dots, row).map(([first, end]) => ({
      fromMm: start + first * settings.intervalMm,
      toMm: start + end * settings.intervalMm,
      powerFraction: settings.powerFraction,
    }));
  for (let pass = 0; pass < settings.passes; pass++)
    yield* sweepsOver(shape.box, settings, horizontal, runUp, stretches);
}

/** Sweeps over a picture, for every pass: a line for each of its rows, or of its columns where lines run along Y. */
export function* fillPicture(shape: PictureShape, settings: BurnSettings, runUp: number): Generator<Sweep> {
  const horizontal = settings.direction === 'horizontal';
  const { box, wanted } = shape;
  const burned = burnedOf(shape);
  const [start, length] = horizontal ? [box.x, box.width] : [box.y, box.height];
  const [places, lines] = horizontal ? [wanted.columns, wanted.rows] : [wanted.rows, wanted.columns];
  const power = (share: number): number => powerOfShare(shape, share, settings.powerFraction);
  const stretches = (line: number): LitStretch[] =>
    runsOfPicture(shape, burned, horizontal, line, power).map(({ from, end, level }) => ({
      fromMm: start + (from * length) / places,
      toMm: start + (end * length) / places,
      powerFraction: level,
    }));
  for (let pass = 0; pass < settings.passes; pass++)
    yield* sweepsOver(box, settings, horizontal, runUp, stretches, lines);
}

/** Of stretches that are shortened, this share of each is left: none is lost. */
const LEAST_LEFT = 0.2;

/**
 * Lit stretches in order along a line, each drawn longer by half of `byMm` at either end, or shorter where that is below zero. Those that touch are
 * one to the beam, whatever their powers; a gap that would close is closed from both sides.
 */
export function lengthened(stretches: readonly LitStretch[], byMm: number): readonly LitStretch[] {
  if (byMm === 0) return stretches;
  const touches = (a: LitStretch | undefined, b: LitStretch | undefined): boolean =>
    a !== undefined && b !== undefined && b.fromMm - a.toMm < 1e-6;
  return stretches.map((lit, index) => {
    const [before, after] = [stretches[index - 1], stretches[index + 1]];
    const [startsHere, endsHere] = [!touches(before, lit), !touches(lit, after)];
    const most = (1 - LEAST_LEFT) * (lit.toMm - lit.fromMm);
    // Never past the middle of a gap, nor past what is left of the stretch itself.
    const by = Math.max(byMm, -most) / 2;
    const first = before && startsHere ? Math.min(by, (lit.fromMm - before.toMm) / 2) : by;
    const last = after && endsHere ? Math.min(by, (after.fromMm - lit.toMm) / 2) : by;
    return {
      ...lit,
      fromMm: startsHere ? lit.fromMm - first : lit.fromMm,
      toMm: endsHere ? lit.toMm + last : lit.toMm,
    };
  });
}

/** Lines over a box, in its middle and alternating when both ways, lit where `stretchesOf` a line and its place across says. */
function* sweepsOver(
  box: Rect,
  settings: BurnSettings,
  horizontal: boolean,
  runUp: number,
  stretchesOf: (line: number, at: number) => readonly LitStretch[],
  lines = countIn(horizontal ? box.height : box.width, settings.intervalMm),
): Generator<Sweep> {
  const { intervalMm, bothWays, speedMmPerS, scanOffsetMm, lengthenMm } = settings;
  const across = horizontal ? box.height : box.width;
  const start = (horizontal ? box.y : box.x) + (across - (lines - 1) * intervalMm) / 2;
  for (let line = 0; line < lines; line++) {
    const at = start + line * intervalMm;
    const stretches = lengthened(stretchesOf(line, at), lengthenMm);
    const first = stretches[0];
    if (!first) continue;
    const end = stretches.at(-1)!.toMm;
    const back = bothWays && line % 2 === 1;
    const shift = back ? -scanOffsetMm : 0;
    const point = (along: number): Point => (horizontal ? { x: along + shift, y: at } : { x: at, y: along + shift });
    yield {
      step: 'sweep',
      from: point(back ? end : first.fromMm),
      to: point(back ? first.fromMm : end),
      runUpMm: runUp,
      speedMmPerS,
      lit: back
        ? stretches.map((lit) => ({ ...lit, fromMm: end - lit.toMm, toMm: end - lit.fromMm })).reverse()
        : stretches.map((lit) => ({ ...lit, fromMm: lit.fromMm - first.fromMm, toMm: lit.toMm - first.fromMm })),
    };
  }
}

/**
 * Sweeps that fill several cells of one row at once: each line crosses them all, with each cell's own power over it and none between.
 * Cells must be filled along X by as many lines at the same heights and speed. Throws RangeError where they are not.
 */
export function fillTogether(burns: readonly Burn[], runUp: number): Sweep[] {
  const fills = burns.map(({ shape, settings }) => [
    ...fillRegion(shape.do === 'sweep' ? shape.area : [], settings, runUp),
  ]);
  const [first, ...others] = fills;
  if (!first) return [];
  return first.map((line, index) => {
    const lines = [line, ...others.map((fill) => fill[index])];
    const back = line.to.x < line.from.x;
    const alike = lines.every(
      (other) =>
        other !== undefined &&
        other.from.y === line.from.y &&
        other.to.y === line.from.y &&
        other.speedMmPerS === line.speedMmPerS &&
        other.to.x < other.from.x === back,
    );
    if (!alike || others.some((fill) => fill.length !== first.length))
      throw new RangeError('invalid burns: they are not filled by the same lines');
    const sorted = (lines as Sweep[]).sort((a, b) => (back ? b.from.x - a.from.x : a.from.x - b.from.x));
    const start = sorted[0]!.from.x;
    return {
      ...line,
      from: { x: start, y: line.from.y },
      to: { x: sorted.at(-1)!.to.x, y: line.from.y },
      lit: sorted.flatMap(({ from, lit }) => {
        const ahead = Math.abs(from.x - start);
        return lit.map((stretch) => ({ ...stretch, fromMm: stretch.fromMm + ahead, toMm: stretch.toMm + ahead }));
      }),
    };
  });
}

/** Run-up in mm that a sweep has on this machine, each side: as set, or what the speed asks for. Mirrors need none. */
export function sweepRunUpMm(settings: BurnSettings, machine: Machine): number {
  if (machine.head === 'galvo') return 0;
  return (
    settings.runUpMm ?? runUpMm(settings.speedMmPerS, sweepLimits(machine, settings.direction).accelerationMmPerS2)
  );
}

/** Run-up in mm that a burn has on this machine, each side. Followed lines have none unless it is set. */
export function burnRunUpMm({ shape, settings }: Burn, machine: Machine): number {
  if (isArea(shape)) return sweepRunUpMm(settings, machine);
  return machine.head === 'galvo' ? 0 : (settings.runUpMm ?? 0);
}

function* burnPath(burn: Burn, machine: Machine): Generator<PathStep> {
  const { shape, settings, before } = burn;
  if (before) yield { step: 'hand', text: before.text };
  const runUp = burnRunUpMm(burn, machine);
  if (shape.do === 'sweep') return yield* fillRegion(shape.area, settings, runUp);
  if (shape.do === 'dots') return yield* fillDots(shape, settings, runUp);
  if (shape.do === 'picture') return yield* fillPicture(shape, settings, runUp);
  const { speedMmPerS, powerFraction, passes } = settings;
  for (const points of shape.lines) {
    for (let pass = 0; pass < passes; pass++)
      yield { step: 'stroke', points, runUpMm: runUp, speedMmPerS, powerFraction };
  }
}

/** The burned modules of a marker as rectangles, one for each run in a row. */
export function markerRegion(marker: MarkerPlace): Region {
  const modules = markerModules(marker.id);
  const side = marker.sizeMm / MARKER_MODULES;
  const rings: Point[][] = [];
  for (let row = 0; row < MARKER_MODULES; row++) {
    for (let column = 0; column < MARKER_MODULES;) {
      if (!modules[row * MARKER_MODULES + column]) {
        column++;
        continue;
      }
      const from = column;
      while (column < MARKER_MODULES && modules[row * MARKER_MODULES + column]) column++;
      rings.push(
        rectRing({ x: marker.x + from * side, y: marker.y + row * side, width: (column - from) * side, height: side }),
      );
    }
  }
  return rings;
}

/** One marker or one line of lettering: where it can begin, and how it is burned by a head that comes from somewhere. */
interface FramePart {
  readonly name: string;
  readonly starts: readonly Point[];
  readonly from: (at: Point) => { readonly burn: Burn; readonly end: Point };
}

/**
 * The frame as burns, each marker a sweep and each line of lettering a follow, always the one next that is nearest to the head. Sharp, one pass. Where power follows speed markers need no run-up: on
 * lines that short it would be most of their time. Mirrors burn them one way: a beam that follows late by a tenth of a millisecond shifts
 * the lines of both ways against each other by most of a module, and going back is quick.
 */
export function frameBurns(
  { frame }: Layout,
  { rampPower, head }: Pick<Machine, 'rampPower' | 'head'>,
): { name: string; burn: Burn }[] {
  const shared = {
    passes: 1,
    focusOffsetMm: 0,
    air: frame.air,
    direction: 'horizontal',
    bothWays: true,
    ...PLAIN_EXTRAS,
  } as const;
  const parts: FramePart[] = [
    ...frame.markers.map((marker): FramePart => ({
      name: ['marker', marker.corner, ...(marker.station ? [marker.station] : [])].join(' '),
      starts: [{ x: marker.x, y: marker.y }],
      from: () => ({
        burn: {
          shape: { do: 'sweep', area: markerRegion(marker) },
          settings: {
            ...shared,
            ...frame.settings.marker,
            bothWays: head !== 'galvo',
            ...(rampPower === 'follows-speed' && { runUpMm: 0 }),
          },
        },
        end: { x: marker.x, y: marker.y + marker.sizeMm },
      }),
    })),
    ...frame.lettering.map(({ strokes }): FramePart => ({
      name: 'lettering',
      starts: strokes.flatMap((stroke) => [stroke[0]!, stroke.at(-1)!]),
      from: (at) => {
        const lines = visitNearest(strokes, at);
        return {
          burn: {
            shape: { do: 'follow', lines },
            settings: { ...shared, ...frame.settings.lettering, intervalMm: frame.settings.marker.intervalMm },
          },
          end: lines.at(-1)?.at(-1) ?? at,
        };
      },
    })),
  ];
  const burns: { name: string; burn: Burn }[] = [];
  let at: Point = { x: 0, y: 0 };
  while (parts.length > 0) {
    const away = parts.map(({ starts }) => Math.min(...starts.map(({ x, y }) => Math.hypot(x - at.x, y - at.y))));
    const [next] = parts.splice(away.indexOf(Math.min(...away)), 1);
    const { burn, end } = next!.from(at);
    burns.push({ name: next!.name, burn });
    at = end;
  }
  return burns;
}

/** Which part of a card one burn does: all of it, or the cells named, with or without the frame. */
export interface BurnScope {
  readonly cells: readonly number[];
  readonly frame: boolean;
}

/**
 * Everything the head does to burn a card, in order and in card millimetres: frame, common burns, then the cells as ordered, then
 * what is common and comes after them.
 */
export function* cardPath(layout: Layout, machine: Machine, scope: BurnScope | null = null): Generator<PathStep> {
  const part = (name: string, { settings }: Burn, cells: readonly number[] = []): Part => ({
    step: 'part',
    name,
    cells,
    air: settings.air,
    focusOffsetMm: settings.focusOffsetMm,
    frequencyKHz: settings.frequencyKHz,
  });
  const wholeFrame = scope === null || scope.frame;
  // Nothing may be burned before it lies as it was planned: what is level would be taken for what does not change with focus.
  if (layout.tilt) yield { step: 'hand', text: tiltWords(layout.tilt, machine.likedUnits) };
  if (wholeFrame) {
    for (const { name, burn } of frameBurns(layout, machine)) {
      yield part(name, burn);
      yield* burnPath(burn, machine);
    }
    for (const burn of layout.before) {
      yield part('common', burn);
      yield* burnPath(burn, machine);
    }
  }
  for (const index of scope === null ? layout.order : scope.cells) {
    const together = scope === null ? layout.together.find((group) => group.includes(index)) : undefined;
    if (together) {
      if (together[0] !== index) continue;
      const burns = together.map((member) => mainBurn(layout.cells[member]!));
      yield part(`cells ${together.join(' ')}`, burns[0]!, together);
      yield* fillTogether(burns, burnRunUpMm(burns[0]!, machine));
      continue;
    }
    for (const burn of layout.cells[index]!.burns) {
      yield part(`cell ${index}`, burn, [index]);
      yield* burnPath(burn, machine);
    }
  }
  if (wholeFrame) {
    for (const burn of layout.after) {
      yield part('common', burn);
      yield* burnPath(burn, machine);
    }
  }
}
