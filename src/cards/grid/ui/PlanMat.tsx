import { useState, type PointerEvent } from 'react';
import { CardDrawing } from '../../../components/CardDrawing';
import { Mat, type MatView } from '../../../components/Mat';
import type { QuantityKinds } from '../../../components/quantity-kinds';
import type { UsedArea } from '../../../app/views';
import type { OpenPairing } from '../../../app/pairings';
import type { Cell } from '../../../core/card/layout';
import { familyOf } from '../../../core/stock/families';
import { formatArealEnergy, formatDuration, formatPower, formatSpeed } from '../../../core/quantities/format';
import { AXIS_COUNTS, type GridPlan } from '../plan';
import { AxisEditor } from './AxisEditor';
import { predictedColour } from './predicted-colour';
import type { LaidPlan } from './usePlan';
import styles from './PlanMat.module.css';

interface Props {
  readonly pairing: OpenPairing;
  readonly usedAreas: readonly UsedArea[];
  readonly plan: GridPlan;
  readonly onPlan: (plan: GridPlan) => void;
  readonly drawn: LaidPlan;
  readonly errors: Readonly<Record<string, string>>;
  readonly kinds: QuantityKinds;
  readonly onPlace: (place: { xMm: number; yMm: number }) => void;
  readonly selected: number | null;
  readonly onSelect: (cellIndex: number) => void;
}

export const FATE_WORDS: Readonly<Record<Cell['fate'], string>> = {
  plain: '',
  'no-mark': 'bound to leave no mark',
  overburn: 'bound to spoil the sheet',
  'does-not-fire': 'below the firing command',
  'too-fast': 'faster than the head',
};

const clampCount = (count: number): number =>
  Math.min(AXIS_COUNTS.most, Math.max(AXIS_COUNTS.least, Math.round(count)));

/** The sheet with the cards on it, and the one being planned: drag it about, drag its edges for more cells, type at its edges. */
export function PlanMat({
  pairing,
  usedAreas,
  plan,
  onPlan,
  drawn,
  errors,
  kinds,
  onPlace,
  selected,
  onSelect,
}: Props) {
  const { machine, stock } = pairing;
  const { layout, estimate } = drawn;
  const [wholeSheet, setWholeSheet] = useState(false);
  const [grab, setGrab] = useState<{
    kind: 'card' | 'columns' | 'rows';
    x: number;
    y: number;
    startX: number;
    startY: number;
    count: number;
  } | null>(null);
  const place = drawn.place ?? { xMm: 0, yMm: 0 };
  const extent = wholeSheet
    ? { x: 0, y: 0, width: stock.sheetWidthMm, height: stock.sheetDepthMm }
    : {
        x: place.xMm - layout.widthMm * 0.4,
        y: place.yMm - 3,
        width: layout.widthMm * 1.46,
        height: layout.heightMm * 1.3,
      };

  const begin = (kind: 'card' | 'columns' | 'rows') => (event: PointerEvent) => {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    setGrab({
      kind,
      x: event.clientX,
      y: event.clientY,
      startX: place.xMm,
      startY: place.yMm,
      count: kind === 'rows' ? plan.speed.count : plan.power.count,
    });
  };
  const drag = (view: MatView) => (event: PointerEvent) => {
    if (!grab) return;
    const dx = (event.clientX - grab.x) / view.pxPerMm;
    const dy = (event.clientY - grab.y) / view.pxPerMm;
    const pitch = plan.cellMm + plan.gapMm;
    if (grab.kind === 'card') {
      const snap = (mm: number, most: number): number =>
        Math.min(Math.max(0, Math.round(mm * 2) / 2), Math.max(0, most));
      onPlace({
        xMm: snap(grab.startX + dx, stock.sheetWidthMm - layout.widthMm),
        yMm: snap(grab.startY + dy, stock.sheetDepthMm - layout.heightMm),
      });
    } else if (grab.kind === 'columns')
      onPlan({ ...plan, power: { ...plan.power, count: clampCount(grab.count + dx / pitch) } });
    else onPlan({ ...plan, speed: { ...plan.speed, count: clampCount(grab.count + dy / pitch) } });
  };
  const end = (): void => setGrab(null);

  const describe = (cell: Cell): string =>
    `${formatPower(cell.settings.powerFraction)}, ${formatSpeed(cell.settings.speedMmPerS, machine.likedUnits)}, ${formatArealEnergy(cell.arealEnergyJPerMm2)}, ${formatDuration(estimate.cellsS[cell.index]!)}${cell.fate === 'plain' ? '' : `, ${FATE_WORDS[cell.fate]}`}`;

  return (
    <Mat
      label={`${stock.name} sheet with the planned card`}
      extent={extent}
      tools={
        <button type="button" aria-pressed={wholeSheet} onClick={() => setWholeSheet(!wholeSheet)}>
          {wholeSheet ? 'Show the card' : 'Show the whole sheet'}
        </button>
      }
      overlay={(view) => {
        if (wholeSheet || grab?.kind === 'card') return null;
        const topLeft = view.toPx(place.xMm, place.yMm);
        const bottomRight = view.toPx(place.xMm + layout.widthMm, place.yMm + layout.heightMm);
        // Wider than a small card, the editor is centred under it.
        const width = Math.max(460, bottomRight.x - topLeft.x);
        const left = Math.max(40, (topLeft.x + bottomRight.x - width) / 2);
        const height = Math.max(250, bottomRight.y - topLeft.y);
        return (
          <>
            <div className={styles.below} style={{ left, top: bottomRight.y + 22, width }}>
              <AxisEditor
                name="Power"
                axis={plan.power}
                kind={kinds.power}
                errors={errors}
                onChange={(power) => onPlan({ ...plan, power })}
              />
            </div>
            <div className={styles.beside} style={{ left: Math.max(30, topLeft.x - 142), top: topLeft.y, height }}>
              <AxisEditor
                vertical
                name="Speed"
                axis={plan.speed}
                kind={kinds.speed}
                errors={errors}
                onChange={(speed) => onPlan({ ...plan, speed })}
              />
            </div>
          </>
        );
      }}
    >
      {(view) => (
        <g onPointerMove={drag(view)} onPointerUp={end} onPointerCancel={end}>
          <rect width={stock.sheetWidthMm} height={stock.sheetDepthMm} fill={stock.colour} className={styles.sheet} />
          {usedAreas.map((area) => (
            <g key={area.cardId}>
              <rect x={area.x} y={area.y} width={area.width} height={area.height} className={styles.used} />
              <text x={area.x + area.width / 2} y={area.y + area.height / 2} className={styles.usedCode}>
                {area.code}
              </text>
            </g>
          ))}
          <g transform={`translate(${place.xMm} ${place.yMm})`} className={drawn.placeIsFree ? '' : styles.clash}>
            <rect
              width={layout.widthMm}
              height={layout.heightMm}
              className={styles.card}
              fill={stock.colour}
              data-grab=""
              onPointerDown={begin('card')}
            />
            <CardDrawing
              layout={layout}
              markColour={familyOf(stock.family).burnedColour}
              hatched
              look={(cell) => ({ fill: predictedColour(cell, machine, stock), dim: cell.fate !== 'plain' })}
              describe={describe}
              selected={selected}
              onSelect={onSelect}
            />
            {(
              [
                ['columns', layout.widthMm, layout.heightMm / 2],
                ['rows', layout.widthMm / 2, layout.heightMm],
              ] as const
            ).map(([kind, cx, cy]) => (
              <g key={kind} className={styles.handle} data-grab="" onPointerDown={begin(kind)}>
                <title>{`Drag for more or fewer ${kind}`}</title>
                {/* Easy to hit with a dusty finger, small enough not to hide the card. */}
                <circle cx={cx} cy={cy} r={22 / view.pxPerMm} fill="transparent" />
                <circle cx={cx} cy={cy} r={9 / view.pxPerMm} className={styles.knob} />
              </g>
            ))}
          </g>
        </g>
      )}
    </Mat>
  );
}
