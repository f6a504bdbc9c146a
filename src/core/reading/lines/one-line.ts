import { boxOfShape, type Burn } from '../../card/shape';

/** Whether a burn is a fill by a single sweep. */
export function isOneLine({ shape, settings: { intervalMm, direction } }: Burn): boolean {
  if (shape.do !== 'sweep') return false;
  const box = boxOfShape(shape);
  return (direction === 'horizontal' ? box.height : box.width) < 1.5 * intervalMm;
}
