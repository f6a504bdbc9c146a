import type { CutEdge } from '../../core/book/fact-values';
import type { Pairing } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { roundedCutSpeed } from '../../core/card/propose-cut';
import type { BurnSettings } from '../../core/card/settings';
import type { ChanceBand, CutWindow } from '../../core/fit/cut-window';
import { deliveredPowerW } from '../../core/machine/machine';
import { thicknessOf } from '../../core/stock/stock';
import type { TappedSquare } from './squares';

/** What may be wanted of a setting, of all that drop parts as surely. */
export const WANTS = ['faster', 'cooler', 'cleaner'] as const;
export type Want = (typeof WANTS)[number];

/** A setting that drops parts as surely as is wished. */
export interface CutChoice {
  /** What it is the best one for. */
  readonly wants: readonly Want[];
  readonly settings: BurnSettings;
  /** J/mm for each mm of thickness that it lays down. */
  readonly energy: number;
  readonly chance: ChanceBand;
  readonly secondsPerMetre: number;
  /** By squares that were cut about as it cuts; null where nobody said how those look. */
  readonly edge: CutEdge | null;
  /** The square that was cut most like it. */
  readonly cellIndex: number;
}

/** So many of the squares that were cut most like a setting tell how its edge will look. */
const ALIKE = 3;
const EDGES = ['pale', 'brown', 'black'] as const;
/** Of a square that somebody called charred and said no colour of, the edge is black. */
const darknessOf = ({ edge, word }: TappedSquare): number | null =>
  edge !== null ? EDGES.indexOf(edge) : word === 'charred' ? 2 : null;

type Candidate = Omit<CutChoice, 'wants' | 'chance'>;

/**
 * For each power and number of passes that was tried, the fastest setting that lays down what is needed; of those within the speeds that were tried the
 * fastest, the one with the least power, and the one whose like left the palest edges.
 */
export function choicesOf(
  layout: Layout,
  squares: readonly TappedSquare[],
  needed: ReadonlyMap<number, number>,
  window: CutWindow,
  outlineMm: number,
  { machine, stock }: Pairing,
): CutChoice[] {
  const thickness = thicknessOf(stock).meanMm;
  const all = layout.cells.map((cell) => ({ index: cell.index, settings: mainBurn(cell).settings }));
  const speeds = all.map(({ settings }) => settings.speedMmPerS);
  const [slowest, fastest] = [Math.min(...speeds), Math.max(...speeds)];
  const powers = [...new Set(all.map(({ settings }) => settings.powerFraction))];
  const candidates = powers.flatMap((powerFraction) =>
    [...needed].flatMap(([passes, energy]): Candidate[] => {
      const watts = deliveredPowerW(machine, powerFraction);
      const speedMmPerS = roundedCutSpeed(Math.min(fastest, (watts * passes) / (energy * thickness)));
      if (powerFraction > machine.powerCap + 1e-9 || speedMmPerS < slowest * 0.97 || speedMmPerS <= 0) return [];
      const settings = { ...all[0]!.settings, powerFraction, passes, speedMmPerS };
      const laidDown = (watts * passes) / (speedMmPerS * thickness);
      return [
        {
          settings,
          energy: laidDown,
          secondsPerMetre: (1000 * passes) / speedMmPerS,
          ...likeliest(settings, all, squares),
        },
      ];
    }),
  );
  const darkness = ({ edge }: Candidate): number => (edge === null ? EDGES.length : EDGES.indexOf(edge));
  const least = (of: (one: Candidate) => number): Candidate | undefined =>
    [...candidates].sort((a, b) => of(a) - of(b) || a.secondsPerMetre - b.secondsPerMetre)[0];
  const bests: Record<Want, Candidate | undefined> = {
    faster: least(({ secondsPerMetre }) => secondsPerMetre),
    cooler: least(({ settings }) => settings.powerFraction),
    cleaner: least(darkness),
  };
  const chosen = [...new Set(WANTS.flatMap((want) => bests[want] ?? []))];
  return chosen.map((one) => ({
    ...one,
    wants: WANTS.filter((want) => bests[want] === one),
    chance: window.chanceAt(one.energy, one.settings.passes, outlineMm),
  }));
}

/** The square that was cut most like a setting, and how the edges of those most like it look. */
function likeliest(
  { powerFraction, speedMmPerS, passes }: BurnSettings,
  all: readonly { readonly index: number; readonly settings: BurnSettings }[],
  squares: readonly TappedSquare[],
): Pick<CutChoice, 'edge' | 'cellIndex'> {
  const away = ({ settings }: { readonly settings: BurnSettings }): number =>
    Math.hypot(
      Math.log(settings.powerFraction / powerFraction),
      Math.log(settings.speedMmPerS / speedMmPerS),
      Math.log(settings.passes / passes),
    );
  const sorted = [...all].sort((a, b) => away(a) - away(b));
  const looks = sorted
    .flatMap(({ index }) => {
      const square = squares.find(({ cellIndex, drops }) => cellIndex === index && drops);
      const darkness = square ? darknessOf(square) : null;
      return darkness === null ? [] : [darkness];
    })
    .slice(0, ALIKE);
  const mean = looks.reduce((sum, darkness) => sum + darkness, 0) / looks.length;
  return { edge: looks.length === 0 ? null : EDGES[Math.round(mean)]!, cellIndex: sorted[0]!.index };
}
