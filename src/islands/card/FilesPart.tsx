import { useState } from 'react';
import { TicketPart } from '../../components/BenchFrame';
import { LinkButton } from '../../components/Button';
import { SelectField } from '../../components/Field';
import { ZERO_PLACES, type ZeroPlace } from '../../core/machine/machine';
import type { CardRecord } from '../../records/card';
import styles from './BurnStage.module.css';

/** Files whose coordinates count from a zero. */
const FROM_ZERO = [
  ['gcode', 'G-code'],
  ['outline', 'Outline, no power'],
  ['outline-lit', 'Outline, lowest power'],
] as const;

const OTHERS = [
  ['zip', 'No G-code: zip of SVG, DXF and settings'],
  ['svg', 'SVG'],
  ['csv', 'Cells as CSV'],
  ['png', 'PNG preview'],
] as const;

/** A card's files for the machine. */
export function FilesPart({ card }: { card: CardRecord }) {
  const { machine } = card.madeFor;
  const [zero, setZero] = useState<ZeroPlace>(machine.zero);
  const address = (format: string): string => `/api/cards/${card.id}/export/${format}`;
  return (
    <TicketPart title="Take it to the machine">
      <SelectField
        label="Zero of the G-code"
        value={zero}
        hint={zero === 'head' ? 'put the head over the card’s front left corner, then start' : undefined}
        onChange={(event) => setZero(event.target.value as ZeroPlace)}
      >
        {Object.entries(ZERO_PLACES).map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </SelectField>
      <div className={styles.row}>
        {FROM_ZERO.map(([format, name]) => (
          <LinkButton key={format} href={`${address(format)}?zero=${zero}`} download>
            {name}
          </LinkButton>
        ))}
      </div>
      <p className={styles.pace}>
        The outline goes round the card once, to see where it will lie. At the lowest power it may leave a faint line:
        eyewear on.
      </p>
      <div className={styles.row}>
        {OTHERS.map(([format, name]) => (
          <LinkButton key={format} href={address(format)} download>
            {name}
          </LinkButton>
        ))}
      </div>
    </TicketPart>
  );
}
