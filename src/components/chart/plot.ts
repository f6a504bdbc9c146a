/** One measured point of a chart. */
export interface ChartPoint {
  readonly x: number;
  readonly y: number;
  /** Half length of its bar, one standard uncertainty. */
  readonly sigma?: number;
  readonly cellIndex?: number;
  /** Drawn as a ring: seen, but not what the curve goes by. */
  readonly hollow?: boolean;
}

/** A fitted curve with its band. */
export interface CurvePoint {
  readonly x: number;
  readonly y: number;
  readonly low: number;
  readonly high: number;
}

/** What is chosen on the x axis, with its interval. */
export interface Pick {
  readonly x: number;
  readonly low?: number;
  readonly high?: number;
}

/** An axis as it is drawn, with what stands along it. */
export interface PlotAxis {
  readonly title: string;
  readonly log: boolean;
  readonly from: number;
  readonly to: number;
  readonly ticks: readonly { readonly at: number; readonly text: string }[];
}

/** Everything that a chart shows: plain data, to be drawn or written down elsewhere. */
export interface Plot {
  readonly label: string;
  readonly x: PlotAxis;
  readonly y: PlotAxis;
  readonly points: readonly ChartPoint[];
  /** Ascending in x; empty where nothing was fitted. */
  readonly fit: readonly CurvePoint[];
  readonly pick: Pick | null;
}

/** How far along an axis a value lies: 0 at its beginning, 1 at its end, outside of both beyond them. 10 on a log axis of 1 to 100: 0.5. */
export function shareAlong({ log, from, to }: PlotAxis, value: number): number {
  return log ? (Math.log(value) - Math.log(from)) / (Math.log(to) - Math.log(from)) : (value - from) / (to - from);
}

/** A chart's data as rows: what is measured, what is fitted with its band, and what is chosen with its interval. The axes' titles carry their units. */
export function rowsOfPlot({ x, y, points, fit, pick }: Plot): (string | number)[][] {
  return [
    ['what', x.title, y.title, 'standard uncertainty', 'low', 'high', 'cell'],
    ...points.map((point) => ['measured', point.x, point.y, point.sigma ?? '', '', '', point.cellIndex ?? '']),
    ...fit.map((point) => ['fit', point.x, point.y, '', point.low, point.high, '']),
    ...(pick ? [['chosen', pick.x, '', '', pick.low ?? '', pick.high ?? '', '']] : []),
  ];
}

/** Ticks of a log axis stand at least this share of it apart. */
const LEAST_APART = 0.1;

/**
 * What is lettered of a log axis' ticks: 1, 2, 3 and 5 times powers of ten, none closer to the one before than a tenth of the axis; all of them that are
 * not closer where those are fewer than two. 16, 18, 20, 30, 40, 50, 70 of 16 to 70: 20, 30, 50.
 */
export function readableTicks(ticks: readonly number[], from: number, to: number): number[] {
  const axis = { title: '', log: true, from, to, ticks: [] };
  const apart = (candidates: readonly number[]): number[] =>
    candidates.reduce<number[]>((kept, tick) => {
      const last = kept.at(-1);
      const near = last !== undefined && shareAlong(axis, tick) - shareAlong(axis, last) < LEAST_APART;
      return near ? kept : [...kept, tick];
    }, []);
  const round = ticks.filter((tick) =>
    [1, 2, 3, 5].includes(Number((tick / 10 ** Math.floor(Math.log10(tick) + 1e-9)).toPrecision(6))),
  );
  return apart(round.length < 2 ? ticks : round);
}
