import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Point } from '../core/geometry/point';

/** Steps with Shift held are this many times as far. */
const FAR = 10;
const WAYS: Readonly<Record<string, Point>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** Where a pointer is, in the units of the drawing that a shape of it lies in. */
function placeOf({ currentTarget, clientX, clientY }: PointerEvent<SVGCircleElement>): Point {
  const toDrawing = (currentTarget.parentNode as SVGGElement).getScreenCTM()!.inverse();
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(toDrawing);
  return { x, y };
}

/** A circle on a drawing that is dragged by where it was taken hold of, or moved by arrow keys: `step` at a time, with Shift ten times as far. */
export function DragHandle({
  at,
  radius,
  step,
  label,
  className,
  onMove,
}: {
  at: Point;
  radius: number;
  step: number;
  label: string;
  className: string | undefined;
  onMove: (to: Point) => void;
}) {
  const held = useRef<Point>({ x: 0, y: 0 });
  const take = (event: PointerEvent<SVGCircleElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const { x, y } = placeOf(event);
    held.current = { x: at.x - x, y: at.y - y };
  };
  const drag = (event: PointerEvent<SVGCircleElement>): void => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const { x, y } = placeOf(event);
    onMove({ x: x + held.current.x, y: y + held.current.y });
  };
  const nudge = (event: KeyboardEvent): void => {
    const way = WAYS[event.key];
    if (!way) return;
    event.preventDefault();
    const far = step * (event.shiftKey ? FAR : 1);
    onMove({ x: at.x + far * way.x, y: at.y + far * way.y });
  };
  return (
    <circle
      className={className}
      cx={at.x}
      cy={at.y}
      r={radius}
      data-grab=""
      tabIndex={0}
      role="button"
      aria-label={label}
      onPointerDown={take}
      onPointerMove={drag}
      onKeyDown={nudge}
    />
  );
}
