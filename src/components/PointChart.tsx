import {
  Chart,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
  Filler,
  type Plugin,
  type Scale,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import { readableTicks, type ChartPoint, type CurvePoint, type Pick, type Plot, type PlotAxis } from './chart/plot';
import { saveAsCsv, saveAsSvg } from './chart/save-chart';
import { SaveButtons } from './chart/SaveButtons';
import { useTheme } from './use-theme';
import styles from './PointChart.module.css';

Chart.register(ScatterController, LinearScale, LogarithmicScale, PointElement, LineElement, Tooltip, Filler);

export interface ChartAxis {
  readonly title: string;
  readonly show: (value: number) => string;
  readonly log?: boolean;
  readonly from?: number;
  readonly to?: number;
}

interface Props {
  readonly label: string;
  readonly x: ChartAxis;
  readonly y: ChartAxis;
  readonly points: readonly ChartPoint[];
  /** The fitted curve with its band, ascending in x. */
  readonly fit?: readonly CurvePoint[];
  /** What is chosen, as a line across. */
  readonly pick?: Pick;
  readonly selected?: number | null;
  readonly onSelect?: (cellIndex: number) => void;
}

interface Shown {
  readonly points: readonly ChartPoint[];
  readonly pick: Pick | undefined;
  readonly edge: string;
  readonly glass: string;
}

/** Bars of the points, and the pick with its interval. */
const bars = (shown: Shown): Plugin<'scatter'> => ({
  id: 'bars',
  beforeDatasetsDraw: ({ ctx, scales, chartArea }) => {
    const { pick } = shown;
    if (!pick) return;
    const at = (x: number): number => scales['x']!.getPixelForValue(x);
    ctx.save();
    if (pick.low !== undefined && pick.high !== undefined) {
      ctx.fillStyle = shown.glass;
      ctx.fillRect(at(pick.low), chartArea.top, at(pick.high) - at(pick.low), chartArea.bottom - chartArea.top);
    }
    ctx.strokeStyle = shown.edge;
    ctx.lineWidth = 3;
    ctx.beginPath();
    ctx.moveTo(at(pick.x), chartArea.top);
    ctx.lineTo(at(pick.x), chartArea.bottom);
    ctx.stroke();
    ctx.restore();
  },
  afterDatasetsDraw: ({ ctx, scales }) => {
    ctx.save();
    ctx.strokeStyle = shown.edge;
    ctx.lineWidth = 2;
    for (const { x, y, sigma } of shown.points) {
      if (sigma === undefined) continue;
      const px = scales['x']!.getPixelForValue(x);
      ctx.beginPath();
      ctx.moveTo(px, scales['y']!.getPixelForValue(y - sigma));
      ctx.lineTo(px, scales['y']!.getPixelForValue(y + sigma));
      ctx.stroke();
    }
    ctx.restore();
  },
});

/** An axis with its ends and ticks as the chart has them. */
function plotAxis(chart: Chart, id: 'x' | 'y', { title, log = false }: ChartAxis): PlotAxis {
  const { min, max, ticks } = chart.scales[id]!;
  const labelled = ticks.filter((tick) => String(tick.label ?? '') !== '');
  return {
    title,
    log,
    from: min,
    to: max,
    ticks: labelled.map(({ value, label }) => ({ at: value, text: String(label) })),
  };
}

/** Measured points with their bars, the fit with its band, the pick across: the one style of every chart. */
export function PointChart({ label, x, y, points, fit = [], pick, selected = null, onSelect }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawn = useRef<Chart | null>(null);
  const theme = useTheme();
  // Drawn anew when what it shows has changed, not with every new array of the same points.
  const latest = useRef({ x, y, points, fit, pick, selected, onSelect });
  latest.current = { x, y, points, fit, pick, selected, onSelect };
  const data = JSON.stringify([points, fit, pick, selected, x.title, y.title]);

  useEffect(() => {
    const { x, y, points, fit, pick, selected } = latest.current;
    const css = getComputedStyle(document.documentElement);
    const colour = (name: string): string => css.getPropertyValue(name).trim();
    const axis = (of: ChartAxis) => ({
      type: of.log ? ('logarithmic' as const) : ('linear' as const),
      title: { display: true, text: of.title, color: colour('--ink-soft'), font: { family: 'B612', size: 15 } },
      grid: { color: colour('--line') },
      ticks: {
        color: colour('--ink-soft'),
        font: { family: 'B612', size: 15 },
        maxTicksLimit: 6,
        callback: (value: string | number) => of.show(Number(value)),
      },
      ...(of.log
        ? {
            afterBuildTicks: (scale: Scale) => {
              const kept = new Set(
                readableTicks(
                  scale.ticks.map(({ value }) => value),
                  scale.min,
                  scale.max,
                ),
              );
              scale.ticks = scale.ticks.filter(({ value }) => kept.has(value));
            },
          }
        : {}),
      ...(of.from === undefined ? {} : { min: of.from }),
      ...(of.to === undefined ? {} : { max: of.to }),
    });
    const line = (of: 'y' | 'low' | 'high') => fit.map((point) => ({ x: point.x, y: point[of] }));
    const plain = { pointRadius: 0, showLine: true, borderWidth: 0 };
    const chart = new Chart(canvas.current!, {
      type: 'scatter',
      plugins: [bars({ points, pick, edge: colour('--edge'), glass: colour('--glass-soft') })],
      data: {
        datasets: [
          {
            label: 'measured',
            data: points.map((point) => ({ ...point })),
            pointRadius: points.map((point) => (point.cellIndex !== undefined && point.cellIndex === selected ? 8 : 5)),
            backgroundColor: points.map((point) => (point.hollow ? 'transparent' : colour('--edge'))),
            borderColor: colour('--edge'),
          },
          { label: 'fit', data: line('y'), ...plain, borderWidth: 2, borderColor: colour('--ink-soft') },
          { label: 'low', data: line('low'), ...plain },
          { label: 'band', data: line('high'), ...plain, fill: '-1', backgroundColor: `${colour('--glass')}88` },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        onClick: (_event, elements) => {
          const hit = elements.find((element) => element.datasetIndex === 0);
          const cellIndex = hit && points[hit.index]?.cellIndex;
          if (cellIndex !== undefined) latest.current.onSelect?.(cellIndex);
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              label: ({ parsed }) => `${x.show(parsed.x ?? 0)}: ${y.show(parsed.y ?? 0)}`,
            },
          },
        },
        scales: { x: axis(x), y: axis(y) },
      },
    });
    drawn.current = chart;
    return () => chart.destroy();
  }, [data, theme]);

  /** What is shown, with the axes as they are drawn. */
  const plotNow = (): Plot => ({
    label,
    x: plotAxis(drawn.current!, 'x', x),
    y: plotAxis(drawn.current!, 'y', y),
    points,
    fit,
    pick: pick ?? null,
  });

  return (
    <>
      <div className={styles.chart}>
        <canvas ref={canvas} role="img" aria-label={`${label}: ${points.length} points`} />
      </div>
      <SaveButtons what="chart" onSvg={() => saveAsSvg(plotNow())} onCsv={() => void saveAsCsv(plotNow())} />
    </>
  );
}
