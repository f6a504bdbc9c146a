import {
  Chart,
  Legend,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import { formatDuration, plainNumber } from '../../../core/quantities/format';
import { useTheme } from '../../../components/use-theme';
import type { GridFinding } from '../find';
import styles from './Finding.module.css';

Chart.register(ScatterController, LinearScale, LogarithmicScale, PointElement, LineElement, Tooltip, Legend);

/** Every cell's lightness against the time of a 10 x 10 cm fill, the frontier joined. The cells on the mat say the same in words. */
export function FrontierChart({
  finding,
  selected,
  onSelect,
}: {
  finding: GridFinding;
  selected: number | null;
  onSelect: (cellIndex: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const select = useRef(onSelect);
  select.current = onSelect;

  useEffect(() => {
    const css = getComputedStyle(document.documentElement);
    const colour = (name: string): string => css.getPropertyValue(name).trim();
    const point = (candidate: GridFinding['candidates'][number]) => ({
      x: candidate.timeS / 60,
      y: candidate.lightness,
      cell: candidate.cellIndex,
    });
    const on = new Set(finding.frontier);
    const frontier = finding.frontier
      .map((index) => finding.candidates.find((candidate) => candidate.cellIndex === index)!)
      .map(point);
    const others = finding.candidates.filter((candidate) => !on.has(candidate.cellIndex)).map(point);
    const marked = finding.candidates.filter((candidate) => candidate.cellIndex === selected).map(point);
    const axis = {
      grid: { color: colour('--line') },
      ticks: { color: colour('--ink-soft'), font: { family: 'B612', size: 15 } },
    };
    const chart = new Chart(canvas.current!, {
      type: 'scatter',
      data: {
        datasets: [
          {
            label: 'chosen',
            data: marked,
            pointRadius: 9,
            pointStyle: 'rectRot',
            borderColor: colour('--ember'),
            backgroundColor: 'transparent',
            borderWidth: 3,
          },
          {
            label: 'frontier',
            data: frontier,
            showLine: true,
            borderColor: colour('--edge'),
            backgroundColor: colour('--edge'),
            pointRadius: 4,
          },
          {
            label: 'other cells',
            data: others,
            borderColor: colour('--ink-soft'),
            backgroundColor: 'transparent',
            pointRadius: 4,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        onClick: (_event, elements, current) => {
          const hit = elements[0];
          const data = hit && (current.data.datasets[hit.datasetIndex]!.data[hit.index] as unknown as { cell: number });
          if (data) select.current(data.cell);
        },
        plugins: {
          legend: { display: false },
          tooltip: {
            callbacks: {
              label: ({ raw }) => {
                const { x, y } = raw as { x: number; y: number };
                return `L* ${plainNumber(y, 3)}, ${formatDuration(x * 60)}`;
              },
            },
          },
        },
        scales: {
          x: {
            ...axis,
            type: 'logarithmic',
            title: { display: true, text: 'min for 10 × 10 cm', color: colour('--ink-soft') },
            ticks: { ...axis.ticks, maxTicksLimit: 6, callback: (value) => plainNumber(Number(value), 2) },
          },
          y: { ...axis, title: { display: true, text: 'L*', color: colour('--ink-soft') } },
        },
      },
    });
    return () => chart.destroy();
  }, [finding, selected, theme]);

  return (
    <div className={styles.chart}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Lightness against time of ${finding.candidates.length} cells, ${finding.frontier.length} on the frontier`}
      />
    </div>
  );
}
