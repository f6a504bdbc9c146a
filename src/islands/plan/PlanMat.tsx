import { useMemo, useState, type PointerEvent } from 'react';
import { areasOf } from '../../core/card/station';
import { CardDrawing } from '../../components/CardDrawing';
import { Mat, type MatView } from '../../components/Mat';
import { SheetMap } from '../../components/SheetMap';
import { predictedColour } from '../../components/predicted-colour';
import { kindOfChannel, type QuantityKinds } from '../../components/quantity-kinds';
import type { Axis } from '../../core/card/axis';
import { CHANNELS } from '../../core/card/channels';
import type { BasePlan, EdgeAxis } from '../../core/card/contract';
import { wayOf } from '../../core/card/estimate';
import type { Cell, Layout } from '../../core/card/layout';
import { cardPath } from '../../core/card/path';
import type { Machine } from '../../core/machine/machine';
import { valueAt, withValueAt } from '../../core/card/plan-fields';
import { outlinePath } from '../../core/stock/outline';
import { burnedColourOf } from '../../core/stock/families';
import type { UsedArea } from '../../records/card';
import type { OpenPairing } from '../../records/pairing';
import { AxisEditor } from './AxisEditor';
import { draggedCount, draggedPlace } from './drag';
import type { LaidPlan } from './usePlan';
import styles from './PlanMat.module.css';

interface Props {
  readonly pairing: OpenPairing;
  readonly edges: readonly EdgeAxis[];
  readonly usedAreas: readonly UsedArea[];
  readonly plan: BasePlan;
  readonly onPlan: (plan: BasePlan) => void;
  readonly drawn: LaidPlan;
  readonly errors: Readonly<Record<string, string>>;
  readonly kinds: QuantityKinds;
  readonly onPlace: (place: { xMm: number; yMm: number }) => void;
  readonly selected: number | null;
  readonly onSelect: (cellIndex: number) => void;
  readonly describe: (cell: Cell) => string;
}

interface Grab {
  readonly what: 'card' | EdgeAxis['edge'];
  readonly x: number;
  readonly y: number;
  readonly startX: number;
  readonly startY: number;
  readonly count: number;
}

/** Everywhere the head goes in a burn, run-up included, as path data in card millimetres. */
function headsWay(layout: Layout, machine: Machine): string {
  const parts: string[] = ['M0 0'];
  for (const step of cardPath(layout, machine))
    for (const { x, y } of wayOf(step)) parts.push(`L${x.toFixed(2)} ${y.toFixed(2)}`);
  return parts.join('');
}

/** The sheet with the cards on it, and the one being planned: drag it about, drag its edges for more cells, type at its edges. */
export function PlanMat(props: Props) {
  const { pairing, edges, usedAreas, plan, onPlan, drawn, errors, kinds, onPlace, selected, onSelect, describe } =
    props;
  const { stock } = pairing;
  const { layout } = drawn;
  const [wholeSheet, setWholeSheet] = useState(false);
  const [showWay, setShowWay] = useState(false);
  const [grab, setGrab] = useState<Grab | null>(null);
  const { machine } = pairing;
  const { reach } = drawn.estimate;
  const way = useMemo(() => (showWay ? headsWay(layout, machine) : ''), [showWay, layout, machine]);
  const place = drawn.place ?? { xMm: 0, yMm: 0 };
  const extent = wholeSheet
    ? { x: 0, y: 0, width: stock.sheetWidthMm, height: stock.sheetDepthMm }
    : {
        x: place.xMm - layout.widthMm * 0.4,
        y: place.yMm - 3,
        width: layout.widthMm * 1.6,
        height: layout.heightMm * 1.3,
      };

  const axisAt = (edge: EdgeAxis): Axis => valueAt(plan, edge.path) as Axis;
  const setAxis = (edge: EdgeAxis, axis: Axis): void => onPlan(withValueAt(plan, edge.path, axis));
  const edgeOf = (which: Grab['what']): EdgeAxis | undefined => edges.find((edge) => edge.edge === which);

  const begin = (what: Grab['what']) => (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const edge = edgeOf(what);
    const count = edge ? axisAt(edge).count : 0;
    setGrab({ what, x: event.clientX, y: event.clientY, startX: place.xMm, startY: place.yMm, count });
  };
  const drag = (view: MatView) => (event: PointerEvent) => {
    if (!grab) return;
    const dx = (event.clientX - grab.x) / view.pxPerMm;
    const dy = (event.clientY - grab.y) / view.pxPerMm;
    if (grab.what === 'card') {
      onPlace(draggedPlace({ xMm: grab.startX, yMm: grab.startY }, { dxMm: dx, dyMm: dy }, layout, stock));
      return;
    }
    const edge = edgeOf(grab.what);
    if (!edge) return;
    const [along, byMm] = grab.what === 'below' ? (['columns', dx] as const) : (['rows', dy] as const);
    setAxis(edge, { ...axisAt(edge), count: draggedCount(layout, along, grab.count, byMm, edge.mostSteps) });
  };
  const end = (): void => setGrab(null);

  const editor = (edge: EdgeAxis) => (
    <AxisEditor
      key={edge.path}
      vertical={edge.edge === 'left'}
      scattered={edge.scattered ?? false}
      name={CHANNELS[edge.channel].name}
      path={edge.path}
      axis={axisAt(edge)}
      kind={kindOfChannel(edge.channel, kinds)}
      errors={errors}
      onChange={(axis) => setAxis(edge, axis)}
    />
  );

  return (
    <Mat
      label={`${stock.name} sheet with the planned card`}
      extent={extent}
      tools={
        <>
          <button type="button" aria-pressed={showWay} onClick={() => setShowWay(!showWay)}>
            {showWay ? 'Hide the head’s way' : 'Show the head’s way'}
          </button>
          <button type="button" aria-pressed={wholeSheet} onClick={() => setWholeSheet(!wholeSheet)}>
            {wholeSheet ? 'Show the card' : 'Show the whole sheet'}
          </button>
        </>
      }
      overlay={(view) => {
        if (wholeSheet || grab?.what === 'card') return null;
        const topLeft = view.toPx(place.xMm, place.yMm);
        const bottomRight = view.toPx(place.xMm + layout.widthMm, place.yMm + layout.heightMm);
        // Wider than a small card, the editor is centred under it.
        const width = Math.max(420, bottomRight.x - topLeft.x);
        const left = Math.max(40, (topLeft.x + bottomRight.x - width) / 2);
        const height = Math.max(250, bottomRight.y - topLeft.y);
        const below = edgeOf('below');
        const beside = edgeOf('left');
        return (
          <>
            <SheetMap
              stock={stock}
              usedAreas={usedAreas}
              card={{ x: place.xMm, y: place.yMm, width: layout.widthMm, height: layout.heightMm }}
              areas={areasOf(layout).map((area) => ({ ...area, x: place.xMm + area.x, y: place.yMm + area.y }))}
            />
            {below && (
              <div className={styles.below} style={{ left, top: bottomRight.y + 22, width }}>
                {editor(below)}
              </div>
            )}
            {beside && (
              <div className={styles.beside} style={{ left: Math.max(30, topLeft.x - 142), top: topLeft.y, height }}>
                {editor(beside)}
              </div>
            )}
          </>
        );
      }}
    >
      {(view) => (
        <g onPointerMove={drag(view)} onPointerUp={end} onPointerCancel={end}>
          <path d={outlinePath(stock)} fill={stock.colour} className={styles.sheet} />
          {usedAreas.map((area) => (
            <g key={`${area.cardId} ${area.x} ${area.y}`}>
              <rect x={area.x} y={area.y} width={area.width} height={area.height} className={styles.used} />
              <text x={area.x + area.width / 2} y={area.y + area.height / 2} className={styles.usedCode}>
                {area.code}
              </text>
            </g>
          ))}
          <g transform={`translate(${place.xMm} ${place.yMm})`} className={drawn.placeIsFree ? '' : styles.clash}>
            {areasOf(layout).map((area) => (
              <rect
                key={`${area.x} ${area.y}`}
                {...area}
                className={styles.card}
                fill={stock.colour}
                data-grab=""
                onPointerDown={begin('card')}
              />
            ))}
            <CardDrawing
              layout={layout}
              markColour={burnedColourOf(stock)}
              hatched
              look={(cell) => ({ fill: predictedColour(cell, pairing), dim: cell.expected !== null })}
              describe={describe}
              selected={selected}
              onSelect={onSelect}
            />
            {showWay && (
              <g className={styles.way} aria-hidden="true">
                <path d={way} />
                <rect x={reach.left} y={reach.top} width={reach.right - reach.left} height={reach.bottom - reach.top} />
              </g>
            )}
            {edges.map(({ edge }) => {
              const [cx, cy] =
                edge === 'below' ? [layout.widthMm, layout.heightMm / 2] : [layout.widthMm * 0.75, layout.heightMm];
              return (
                <g key={edge} className={styles.handle} data-grab="" onPointerDown={begin(edge)}>
                  <title>{`Drag for more or fewer ${edge === 'below' ? 'columns' : 'rows'}`}</title>
                  {/* Easy to hit with a dusty finger, small enough not to hide the card. */}
                  <circle cx={cx} cy={cy} r={22 / view.pxPerMm} fill="transparent" />
                  <circle cx={cx} cy={cy} r={9 / view.pxPerMm} className={styles.knob} />
                </g>
              );
            })}
          </g>
        </g>
      )}
    </Mat>
  );
}
