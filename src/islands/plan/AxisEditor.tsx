import { QuantityField, type QuantityKind } from '../../components/QuantityField';
import { COUNT } from '../../components/quantity-kinds';
import type { Axis } from '../../core/card/axis';
import styles from './AxisEditor.module.css';

interface Props {
  readonly name: string;
  /** Path of the axis in the plan: the fields' ids and errors stand under it. */
  readonly path: string;
  readonly axis: Axis;
  readonly kind: QuantityKind;
  readonly onChange: (axis: Axis) => void;
  readonly errors: Readonly<Record<string, string>>;
  readonly vertical?: boolean;
  /** Levels that lie all over the card have no left and right. */
  readonly scattered?: boolean;
}

/** The ends, count and spacing of an axis, laid along the edge of the drawn card. */
export function AxisEditor({ name, path, axis, kind, onChange, errors, vertical = false, scattered = false }: Props) {
  const [lowEnd, highEnd] = scattered ? ['from', 'to'] : vertical ? ['bottom', 'top'] : ['left', 'right'];
  const low = (
    <QuantityField
      id={`${path}-from`}
      label={`${name}, ${lowEnd}`}
      compact
      kind={kind}
      value={axis.from}
      onChange={(from) => onChange({ ...axis, from: from ?? NaN })}
      error={errors[`${path}.from`]}
    />
  );
  const high = (
    <QuantityField
      id={`${path}-to`}
      label={`${name}, ${highEnd}`}
      compact
      kind={kind}
      value={axis.to}
      onChange={(to) => onChange({ ...axis, to: to ?? NaN })}
      error={errors[`${path}.to`]}
    />
  );
  return (
    <fieldset className={`${styles.axis} ${vertical ? styles.vertical : ''}`} data-grab="">
      <legend className="visuallyHidden">{name}</legend>
      {vertical ? high : low}
      <div className={styles.middle}>
        <QuantityField
          id={`${path}-count`}
          label={vertical ? 'Rows' : 'Columns'}
          compact
          kind={COUNT}
          value={axis.count}
          onChange={(count) => onChange({ ...axis, count: count ?? NaN })}
          error={errors[`${path}.count`]}
        />
        {axis.from > 0 && (
          <button
            type="button"
            className={styles.spacing}
            onClick={() => onChange({ ...axis, spacing: axis.spacing === 'even' ? 'ratio' : 'even' })}
            aria-label={`${name} spacing: ${axis.spacing === 'even' ? 'even steps' : 'by ratio'}. Change it.`}
          >
            {axis.spacing === 'even' ? 'even' : 'by ratio'}
          </button>
        )}
      </div>
      {vertical ? low : high}
    </fieldset>
  );
}
