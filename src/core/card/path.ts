import { runUpMm } from '../motion/move';
import type { Machine } from '../machine/machine';
import { sweepLimits } from '../machine/machine';
import type { Point } from '../geometry/point';
import { mainBurn, type Layout, type MarkerPlace } from './layout';
import { MARKER_MODULES, markerModules } from './markers';
import type { Air, BurnSettings } from './settings';
import { boxOfShape, rectRing, type Burn, type Region } from './shape';

/** A stretch of a sweep where the beam is on, as distances from the start of the sweep's mark. */
export interface LitStretch {
  readonly fromMm: number;
  readonly toMm: number;
}

/** One straight line of a fill: the head runs up, crosses the mark at constant speed and runs out. */
export interface Sweep {
  readonly step: 'sweep';
  readonly from: Point;
  readonly to: Point;
  readonly runUpMm: number;
  readonly speedMmPerS: number;
  readonly powerFraction: number;
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
  readonly cellIndex: number | null;
  readonly air: Air;
  /** Positive raises the head; see `BurnSettings`. */
  readonly focusOffsetMm: number;
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

/**
 * Sweeps that fill a region, as many as the interval allows, centred in its bounding box, alternating when both ways, for every
 * pass. A line that meets nothing of the region is left out; stretches that touch are one.
 */
export function* fillRegion(area: Region, settings: BurnSettings, runUp: number): Generator<Sweep> {
  const { intervalMm, direction, bothWays, passes, speedMmPerS, powerFraction, scanOffsetMm } = settings;
  const horizontal = direction === 'horizontal';
  const box = boxOfShape({ do: 'sweep', area });
  const across = horizontal ? box.height : box.width;
  const lines = Math.max(1, Math.floor(across / intervalMm + 1e-9));
  const start = (horizontal ? box.y : box.x) + (across - (lines - 1) * intervalMm) / 2;
  for (let pass = 0; pass < passes; pass++) {
    for (let line = 0; line < lines; line++) {
      const at = start + line * intervalMm;
      const stretches: [number, number][] = [];
      const marks = crossings(area, at, horizontal);
      for (let k = 0; k + 1 < marks.length; k += 2) {
        const last = stretches.at(-1);
        if (last && marks[k]! - last[1] < 1e-6) last[1] = marks[k + 1]!;
        else stretches.push([marks[k]!, marks[k + 1]!]);
      }
      const first = stretches[0];
      if (!first) continue;
      const end = stretches.at(-1)![1];
      const back = bothWays && line % 2 === 1;
      const shift = back ? -scanOffsetMm : 0;
      const point = (along: number): Point => (horizontal ? { x: along + shift, y: at } : { x: at, y: along + shift });
      yield {
        step: 'sweep',
        from: point(back ? end : first[0]),
        to: point(back ? first[0] : end),
        runUpMm: runUp,
        speedMmPerS,
        powerFraction,
        lit: back
          ? stretches.map(([from, to]) => ({ fromMm: end - to, toMm: end - from })).reverse()
          : stretches.map(([from, to]) => ({ fromMm: from - first[0], toMm: to - first[0] })),
      };
    }
  }
}

/** Run-up in mm that a sweep has on this machine, each side: as set, or what the speed asks for. */
export function sweepRunUpMm(settings: BurnSettings, machine: Machine): number {
  return (
    settings.runUpMm ?? runUpMm(settings.speedMmPerS, sweepLimits(machine, settings.direction).accelerationMmPerS2)
  );
}

/** Run-up in mm that a burn has on this machine, each side. Followed lines have none unless it is set. */
export function burnRunUpMm({ shape, settings }: Burn, machine: Machine): number {
  return shape.do === 'follow' ? (settings.runUpMm ?? 0) : sweepRunUpMm(settings, machine);
}

function* burnPath(burn: Burn, machine: Machine): Generator<PathStep> {
  const { shape, settings, before } = burn;
  if (before) yield { step: 'hand', text: before.text };
  const runUp = burnRunUpMm(burn, machine);
  if (shape.do === 'sweep') return yield* fillRegion(shape.area, settings, runUp);
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

/** The frame as burns: each marker a sweep, all lettering one follow. Sharp, one pass. */
export function frameBurns({ frame }: Layout): { name: string; burn: Burn }[] {
  const shared = {
    passes: 1,
    focusOffsetMm: 0,
    air: frame.air,
    direction: 'horizontal',
    bothWays: true,
    runUpMm: null,
    scanOffsetMm: 0,
  } as const;
  const markers = frame.markers.map((marker) => ({
    name: `marker ${marker.corner}`,
    burn: {
      shape: { do: 'sweep', area: markerRegion(marker) } as const,
      settings: { ...shared, ...frame.settings.marker },
    },
  }));
  if (frame.lettering.length === 0) return markers;
  const lettering = {
    shape: { do: 'follow', lines: frame.lettering.flatMap((line) => line.strokes) } as const,
    settings: { ...shared, ...frame.settings.lettering, intervalMm: frame.settings.marker.intervalMm },
  };
  return [...markers, { name: 'lettering', burn: lettering }];
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
  const part = (name: string, { settings }: Burn, cellIndex: number | null = null): Part => ({
    step: 'part',
    name,
    cellIndex,
    air: settings.air,
    focusOffsetMm: settings.focusOffsetMm,
  });
  const wholeFrame = scope === null || scope.frame;
  if (wholeFrame) {
    for (const { name, burn } of frameBurns(layout)) {
      yield part(name, burn);
      yield* burnPath(burn, machine);
    }
    for (const burn of layout.before) {
      yield part('common', burn);
      yield* burnPath(burn, machine);
    }
  }
  for (const index of scope === null ? layout.order : scope.cells) {
    const cell = layout.cells[index]!;
    for (const burn of cell.burns) {
      yield part(`cell ${index}`, burn, index);
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

/** Run-up in mm of a cell's first burn on this machine, each side. */
export function cellRunUpMm(layout: Layout, cellIndex: number, machine: Machine): number {
  return burnRunUpMm(mainBurn(layout.cells[cellIndex]!), machine);
}
