import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomBehavior, type ZoomTransform } from 'd3-zoom';
import {
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEventHandler,
  type ReactNode,
} from 'react';
import type { Rect } from '../core/geometry/point';
import styles from './Mat.module.css';

/** Where millimetres lie on the screen. */
export interface MatView {
  readonly pxPerMm: number;
  readonly toPx: (xMm: number, yMm: number) => { x: number; y: number };
}

interface Props {
  readonly label: string;
  /** What is to be seen at first, in mm. */
  readonly extent: Rect;
  readonly children: (view: MatView) => ReactNode;
  /** HTML laid over the drawing. */
  readonly overlay?: (view: MatView) => ReactNode;
  readonly onKeyDown?: KeyboardEventHandler;
  readonly tools?: ReactNode;
  /** False where the drawing is not in millimetres, as a photo’s pixels: it has no rules then. */
  readonly ruled?: boolean;
}

const RULE_PX = 36;
const STEPS_MM = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];

function Rule({ along, size, view }: { along: 'x' | 'y'; size: number; view: ZoomTransform }) {
  const step = STEPS_MM.find((candidate) => candidate * view.k >= 60) ?? 1000;
  const minor = step / 5;
  const start = along === 'x' ? view.x : view.y;
  const first = Math.ceil((RULE_PX - start) / view.k / minor);
  const last = Math.floor((size - start) / view.k / minor);
  const ticks = Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => first + index);
  return (
    <g className={styles.rule} aria-hidden="true">
      <rect x={0} y={0} width={along === 'x' ? size : RULE_PX} height={along === 'x' ? RULE_PX : size} />
      {ticks.map((tick) => {
        const at = start + tick * minor * view.k;
        const major = tick % 5 === 0;
        const from = RULE_PX - (major ? 10 : 5);
        return along === 'x' ? (
          <g key={tick}>
            <line x1={at} x2={at} y1={from} y2={RULE_PX} />
            {major && (
              <text x={at + 4} y={19}>
                {tick * minor}
              </text>
            )}
          </g>
        ) : (
          <g key={tick}>
            <line y1={at} y2={at} x1={from} x2={RULE_PX} />
            {major && (
              <text x={3} y={at - 4}>
                {tick * minor}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** A true-scale drawing board with millimetre rules; wheel or pinch zooms, dragging the ground moves it. */
export function Mat({ label, extent, children, overlay, onKeyDown, tools, ruled = true }: Props) {
  const rulePx = ruled ? RULE_PX : 0;
  const frame = useRef<HTMLDivElement>(null);
  const svg = useRef<SVGSVGElement>(null);
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [transform, setTransform] = useState<ZoomTransform>(zoomIdentity);

  useLayoutEffect(() => {
    const element = frame.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useEffect(() => {
    const board = select(svg.current!);
    const zooming = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.2, 200])
      .filter((event: Event) => !(event.target as Element).closest('[data-grab]') && !(event as MouseEvent).button)
      .on('zoom', (event: { transform: ZoomTransform }) => setTransform(event.transform));
    board.call(zooming).on('dblclick.zoom', null);
    behaviour.current = zooming;
    return () => void board.on('.zoom', null);
  }, []);

  const { x, y, width, height } = extent;
  const fit = useMemo(() => {
    const room = 14;
    const wide = size.width - rulePx - 2 * room;
    const high = size.height - rulePx - 2 * room;
    if (wide < 20 || high < 20) return null;
    const k = Math.min(wide / width, high / height);
    const left = rulePx + room + (wide - width * k) / 2 - x * k;
    const top = rulePx + room + (high - height * k) / 2 - y * k;
    return zoomIdentity.translate(left, top).scale(k);
  }, [size, x, y, width, height, rulePx]);

  useEffect(() => {
    if (!fit || !behaviour.current) return;
    // A photo of thousands of pixels fits at a scale that no drawing in millimetres asks for.
    behaviour.current.scaleExtent([Math.min(0.2, fit.k / 2), 200]);
    select(svg.current!).call(behaviour.current.transform, fit);
  }, [fit]);

  const view: MatView = {
    pxPerMm: transform.k,
    toPx: (xMm, yMm) => ({ x: transform.applyX(xMm), y: transform.applyY(yMm) }),
  };
  const refit = (): void => {
    if (fit && behaviour.current) select(svg.current!).call(behaviour.current.transform, fit);
  };
  return (
    <div className={styles.frame} ref={frame} onKeyDown={onKeyDown}>
      <svg ref={svg} className={styles.board} width={size.width} height={size.height} role="group" aria-label={label}>
        <g transform={`translate(${transform.x} ${transform.y}) scale(${transform.k})`}>
          {size.width > 0 && children(view)}
        </g>
        {ruled && (
          <>
            <Rule along="x" size={size.width} view={transform} />
            <Rule along="y" size={size.height} view={transform} />
            <rect className={styles.corner} width={RULE_PX} height={RULE_PX} />
            <text className={styles.unit} x={5} y={22} aria-hidden="true">
              mm
            </text>
          </>
        )}
      </svg>
      {overlay && size.width > 0 && <div className={styles.overlay}>{overlay(view)}</div>}
      <div className={styles.tools}>
        {tools}
        <button type="button" onClick={refit}>
          Fit
        </button>
      </div>
    </div>
  );
}
