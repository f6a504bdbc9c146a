import { runUpMm } from '../motion/move';
import type { Machine } from '../machine/machine';
import { sweepLimits } from '../machine/machine';
import type { Point } from '../geometry/point';
import type { Cell, Layout } from './layout';
import { MARKER_MODULES, markerModules } from './markers';

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

/** A polyline burned at one power, at rest at both ends. */
export interface Stroke {
  readonly step: 'stroke';
  readonly points: readonly Point[];
  readonly speedMmPerS: number;
  readonly powerFraction: number;
}

/** A new part of the card begins: what air and focus to set, and a word for the file's comment. */
export interface Part {
  readonly step: 'part';
  readonly name: string;
  readonly cellIndex: number | null;
  readonly air: 'off' | 'low' | 'on';
  readonly focusOffsetMm: number;
}

export type PathStep = Sweep | Stroke | Part;

/** Sweeps that fill `cell`, centred in its area, run-up included, alternating when both ways, for every pass. */
function* fillCell(cell: Cell, runUp: number): Generator<Sweep> {
  const { intervalMm, direction, bothWays, passes, speedMmPerS, powerFraction } = cell.settings;
  const across = direction === 'horizontal' ? cell.height : cell.width;
  const along = direction === 'horizontal' ? cell.width : cell.height;
  const lines = Math.max(1, Math.floor(across / intervalMm + 1e-9));
  const margin = (across - (lines - 1) * intervalMm) / 2;
  for (let pass = 0; pass < passes; pass++) {
    for (let line = 0; line < lines; line++) {
      const offset = margin + line * intervalMm;
      const start = direction === 'horizontal' ? { x: cell.x, y: cell.y + offset } : { x: cell.x + offset, y: cell.y };
      const end = direction === 'horizontal' ? { x: start.x + along, y: start.y } : { x: start.x, y: start.y + along };
      const back = bothWays && line % 2 === 1;
      yield {
        step: 'sweep',
        from: back ? end : start,
        to: back ? start : end,
        runUpMm: runUp,
        speedMmPerS,
        powerFraction,
        lit: [{ fromMm: 0, toMm: along }],
      };
    }
  }
}

/** Horizontal sweeps of a marker, one lit stretch for each run of burned modules. */
function* fillMarker(layout: Layout, markerIndex: number, runUp: number): Generator<Sweep> {
  const marker = layout.markers[markerIndex]!;
  const { intervalMm, speedMmPerS, powerFraction } = layout.markerSettings;
  const modules = markerModules(marker.id);
  const module = marker.sizeMm / MARKER_MODULES;
  const lines = Math.max(1, Math.floor(marker.sizeMm / intervalMm + 1e-9));
  const margin = (marker.sizeMm - (lines - 1) * intervalMm) / 2;
  for (let line = 0; line < lines; line++) {
    const offset = margin + line * intervalMm;
    const row = Math.min(MARKER_MODULES - 1, Math.floor(offset / module));
    const lit: LitStretch[] = [];
    for (let column = 0; column < MARKER_MODULES; column++) {
      if (!modules[row * MARKER_MODULES + column]) continue;
      const previous = lit.at(-1);
      if (previous && Math.abs(previous.toMm - column * module) < 1e-9) {
        lit[lit.length - 1] = { fromMm: previous.fromMm, toMm: (column + 1) * module };
      } else lit.push({ fromMm: column * module, toMm: (column + 1) * module });
    }
    const y = marker.y + offset;
    const left = { x: marker.x, y };
    const right = { x: marker.x + marker.sizeMm, y };
    const back = line % 2 === 1;
    yield {
      step: 'sweep',
      from: back ? right : left,
      to: back ? left : right,
      runUpMm: runUp,
      speedMmPerS,
      powerFraction,
      lit: back
        ? lit.map(({ fromMm, toMm }) => ({ fromMm: marker.sizeMm - toMm, toMm: marker.sizeMm - fromMm })).reverse()
        : lit,
    };
  }
}

/**
 * Everything the head does to burn a card, in order and in card millimetres: markers, lettering, then the cells as ordered.
 * Run-up is what the machine's acceleration along the sweep asks for at that sweep's speed.
 */
export function* cardPath(layout: Layout, machine: Machine): Generator<PathStep> {
  const { air, focusOffsetMm } = layout.constants;
  const markerRunUp = runUpMm(
    layout.markerSettings.speedMmPerS,
    sweepLimits(machine, 'horizontal').accelerationMmPerS2,
  );
  for (let index = 0; index < layout.markers.length; index++) {
    yield { step: 'part', name: `marker ${layout.markers[index]!.corner}`, cellIndex: null, air, focusOffsetMm: 0 };
    yield* fillMarker(layout, index, markerRunUp);
  }
  yield { step: 'part', name: 'lettering', cellIndex: null, air, focusOffsetMm: 0 };
  for (const line of layout.lettering) {
    for (const points of line.strokes) {
      yield { step: 'stroke', points, ...layout.letteringSettings };
    }
  }
  for (const index of layout.order) {
    const cell = layout.cells[index]!;
    yield { step: 'part', name: `cell ${index}`, cellIndex: index, air: cell.settings.air, focusOffsetMm };
    yield* fillCell(cell, cellRunUpMm(cell, machine));
  }
}

/** Run-up in mm that a cell's sweeps need on this machine, each side. */
export function cellRunUpMm(cell: Cell, machine: Machine): number {
  return runUpMm(cell.settings.speedMmPerS, sweepLimits(machine, cell.settings.direction).accelerationMmPerS2);
}
