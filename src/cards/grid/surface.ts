import type { Seen } from '../../core/card/asks';
import { squareFillTimeS } from '../../core/card/fill-time';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { Pairing } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import { gradeOf, isSpoiled } from '../../core/card/usual-asks';
import { darknessSurface, type DarknessSurface, type Scale } from '../../core/fit/darkness-surface';
import { markDirection } from '../../core/reading/mark-direction';
import { LOW_CONFIDENCE, type CellReading } from '../../core/reading/observations';
import { GRID_CHANNELS, withLevel, type GridChannel } from './axes';

/** One edge of a burned grid: what varied along it, and between which levels. */
export interface SurfaceEdge {
  readonly channel: GridChannel;
  readonly scale: Scale;
  /** Ascending. */
  readonly levels: readonly number[];
}

/** How light a grid's cells came out, between its cells too. */
export interface GridSurface {
  readonly fit: DarknessSurface;
  readonly across: SurfaceEdge;
  readonly down: SurfaceEdge;
  readonly bare: number;
  readonly darkens: boolean;
  /** L*, one standard uncertainty, that all readings of the photo may share, so that no number of cells takes it away: at most the least of theirs. */
  readonly sharedL: number;
  /** What all cells had; the edges' own channels are put in. */
  readonly constants: BurnSettings;
  /** What it foretells all over, from edge to edge: row by row, the highest level down first. */
  readonly looks: readonly Foretold[];
}

/** So many looks along each edge. */
export const LOOKS = 41;

/** A place on the surface. */
export interface Level {
  readonly across: number;
  readonly down: number;
}

/** What the surface foretells of a place. */
export interface Foretold extends Level {
  readonly lightness: number;
  /** Standard uncertainty of what a patch burned there will be: of the surface, of how patches differ, and of what all readings share. */
  readonly sigma: number;
}

const SCALES: Readonly<Record<GridChannel, Scale>> = {
  power: 'ratio',
  speed: 'ratio',
  interval: 'ratio',
  passes: 'ratio',
  frequency: 'ratio',
  focus: 'offset',
  air: 'kinds',
};

function edgesOf({ cells }: Layout): { across: SurfaceEdge; down: SurfaceEdge } | null {
  const varied = GRID_CHANNELS.flatMap((channel) => {
    const levels = [...new Set(cells.map((cell) => cell.levels[channel]))].filter((level) => typeof level === 'number');
    return levels.length > 1 ? [{ channel, scale: SCALES[channel], levels: levels.sort((a, b) => a - b) }] : [];
  });
  const [first, second, third] = varied;
  if (!first || !second || third) return null;
  // Along the columns of the card lies what goes with x; where it is scattered, neither does.
  const goesWithX = ({ channel }: SurfaceEdge): boolean => {
    const levelAt = new Map<number, number | string | undefined>();
    return cells.every((cell) => {
      const before = levelAt.get(cell.box.x);
      levelAt.set(cell.box.x, cell.levels[channel]);
      return before === undefined || before === cell.levels[channel];
    });
  };
  return goesWithX(second) ? { across: second, down: first } : { across: first, down: second };
}

/** Whether a reading counts: sure enough by itself, or called good by the operator's own eye; and not spoiled. */
export const counts = (seen: Seen, reading: CellReading): boolean =>
  !isSpoiled(seen, reading.cellIndex) &&
  (reading.confidence >= LOW_CONFIDENCE || (gradeOf(seen, reading.cellIndex) ?? 0) >= 4);

/** The surface through what a photo shows of a grid; null where too little was read for one. */
export function surfaceOfGrid(layout: Layout, seen: Seen, bare: number): GridSurface | null {
  const edges = edgesOf(layout);
  const direction = markDirection(seen.readings);
  if (!edges || direction === null) return null;
  const darkens = direction === 'darker';
  const patches = seen.readings.flatMap((reading) => {
    const cell = layout.cells[reading.cellIndex];
    // A reading without doubt of its own would outweigh all others.
    if (!cell || cell.leftOut || !counts(seen, reading) || !(reading.lightnessSigma > 0)) return [];
    return [
      {
        across: Number(cell.levels[edges.across.channel]),
        down: Number(cell.levels[edges.down.channel]),
        strength: darkens ? bare - reading.lightness : reading.lightness - bare,
        sigma: reading.lightnessSigma,
      },
    ];
  });
  const fit = darknessSurface(patches, { across: edges.across.scale, down: edges.down.scale });
  if (!fit) return null;
  const sharedL = Math.min(...patches.map(({ sigma }) => sigma));
  const surface = { fit, ...edges, bare, darkens, sharedL, constants: mainBurn(layout.cells[0]!).settings };
  const shares = Array.from({ length: LOOKS }, (_, at) => at / (LOOKS - 1));
  const looks = shares.flatMap((low) =>
    shares.map((side) =>
      foretell(surface, { across: levelAt(edges.across, side), down: levelAt(edges.down, 1 - low) }),
    ),
  );
  return { ...surface, looks };
}

/** The level at a share of an edge, as it is counted: from its low end at 0 to its high one at 1. */
export function levelAt({ levels, scale }: SurfaceEdge, share: number): number {
  const [from, to] = [levels[0]!, levels.at(-1)!];
  return scale === 'ratio' ? from * (to / from) ** share : from + (to - from) * share;
}

/** The other way round. */
export function shareOf({ levels, scale }: SurfaceEdge, level: number): number {
  const [from, to] = [levels[0]!, levels.at(-1)!];
  return scale === 'ratio' ? Math.log(level / from) / Math.log(to / from) : (level - from) / (to - from);
}

/** What the surface foretells of a place between the ends of both edges. */
export function foretell(
  { fit, bare, darkens, sharedL }: Pick<GridSurface, 'fit' | 'bare' | 'darkens' | 'sharedL'>,
  { across, down }: Level,
): Foretold {
  const { strength, sigma } = fit.at(across, down);
  return {
    across,
    down,
    lightness: Math.min(100, Math.max(0, darkens ? bare - strength : bare + strength)),
    sigma: Math.hypot(sigma, fit.scatter, sharedL),
  };
}

/** Whether a place lies between what was burned; beyond it the surface says nothing. */
export const isWithin = ({ across, down }: GridSurface, level: Level): boolean =>
  [across, down].every(({ levels, scale }, at) => {
    const value = at === 0 ? level.across : level.down;
    return scale === 'kinds' ? levels.includes(value) : value >= levels[0]! - 1e-9 && value <= levels.at(-1)! + 1e-9;
  });

/** Settings of a place. */
export const settingsAt = ({ across, down, constants }: GridSurface, level: Level): BurnSettings =>
  withLevel(withLevel(constants, across, level.across), down, level.down);

/** Steps that settings are told in. */
const STEPS: Readonly<Record<GridChannel, (level: number) => number>> = {
  power: () => 0.005,
  speed: (speed) => (speed < 20 ? 0.5 : speed < 100 ? 1 : 5),
  interval: () => 0.001,
  passes: () => 1,
  focus: () => 0.05,
  air: () => 1,
  frequency: () => 0.5,
};

/** A level between an edge's ends, told as settings are. */
export function rounded({ channel, levels, scale }: SurfaceEdge, level: number): number {
  if (scale === 'kinds')
    return levels.reduce((best, one) => (Math.abs(one - level) < Math.abs(best - level) ? one : best), levels[0]!);
  const step = STEPS[channel](level);
  const near = Math.round(Math.round(level / step) * step * 1e6) / 1e6;
  return Math.min(levels.at(-1)!, Math.max(levels[0]!, near));
}

/** A tone is met within so many L* by a rounded setting. */
const MEETS_L = 1;
/** A place foretold less surely than this, L*, is not proposed. */
export const SURE_L = 3;

/**
 * The place on the surface that gives a wanted tone in the least time, or at the lowest power; null where none does within the cap, where the
 * surface is not to be trusted, or not sure enough there.
 */
export function bestPlace(
  surface: GridSurface,
  wish: { readonly lightness: number; readonly powerCap: number; readonly pace: 'fast-and-strong' | 'slow-and-low' },
  { machine }: Pairing,
): Foretold | null {
  if (!surface.fit.trusted) return null;
  let best: { readonly place: Foretold; readonly cost: number } | null = null;
  surface.looks.forEach((look, at) => {
    const off = look.lightness - wish.lightness;
    const before = at % LOOKS === 0 ? undefined : surface.looks[at - 1]!;
    const crosses = before !== undefined && off * (before.lightness - wish.lightness) <= 0;
    if (!crosses && Math.abs(off) > MEETS_L) return;
    // Between two looks the tone lies where a straight line has it.
    const share = crosses && before.lightness !== look.lightness ? off / (look.lightness - before.lightness) : 0;
    const side = look.across + (before ? (before.across - look.across) * share : 0);
    const place = foretell(surface, { across: rounded(surface.across, side), down: rounded(surface.down, look.down) });
    const settings = settingsAt(surface, place);
    if (settings.powerFraction > wish.powerCap + 1e-9) return;
    if (Math.abs(place.lightness - wish.lightness) > MEETS_L || place.sigma > SURE_L) return;
    const timeS = squareFillTimeS(settings, machine, 100);
    // Of places that cost the same the one nearest to the tone.
    const near = 1 + 1e-3 * Math.abs(place.lightness - wish.lightness);
    const cost = near * (wish.pace === 'fast-and-strong' ? timeS : settings.powerFraction);
    if (best === null || cost < best.cost) best = { place, cost };
  });
  return (best as { readonly place: Foretold } | null)?.place ?? null;
}
