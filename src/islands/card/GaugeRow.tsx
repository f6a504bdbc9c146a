import { useEffect, useRef, useState } from 'react';
import { TextField } from '../../components/Field';
import type { Ask } from '../../core/card/asks';
import { farOff } from '../../core/card/gauge-reading';
import { plainNumber } from '../../core/quantities/format';
import { parseLength, QuantityError } from '../../core/quantities/parse';

type GaugeAsk = Extract<Ask, { by: 'gauge' }>;

interface Props {
  readonly ask: GaugeAsk;
  readonly repeat: number;
  /** What a reading must be near to, in mm; null where nothing tells. */
  readonly nearMm: number | null;
  readonly value: number | null;
  readonly onAnswer: (value: number | null) => void;
  /** Enter, as gauges that type end each reading with. */
  readonly onEnter: () => void;
}

/** One reading of a gauge: typed in any unit, or by a caliper that types a number and Enter. */
export function GaugeRow({ ask, repeat, nearMm, value, onAnswer, onEnter }: Props) {
  const shown = value === null ? '' : `${plainNumber(value, 6)} ${ask.unit}`;
  const [text, setText] = useState(shown);
  const [problem, setProblem] = useState<string | undefined>();
  const typing = useRef(false);
  useEffect(() => {
    if (!typing.current) setText(shown);
  }, [shown]);
  const read = (): boolean => {
    typing.current = false;
    if (text.trim() === '') {
      setProblem(undefined);
      if (value !== null) onAnswer(null);
      return true;
    }
    try {
      const mm = parseLength(text);
      const off = nearMm === null ? null : farOff(mm, nearMm);
      if (off !== null) {
        setProblem(off);
        return false;
      }
      setProblem(undefined);
      if (mm !== value) onAnswer(mm);
      return true;
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      setProblem(error.message.charAt(0).toUpperCase() + error.message.slice(1));
      return false;
    }
  };
  return (
    <TextField
      label={`Reading ${repeat + 1}`}
      data-gauge={`${ask.field} ${repeat}`}
      compact
      value={text}
      inputMode="decimal"
      placeholder={`${ask.unit}, or 0.984 in`}
      error={problem}
      onChange={(event) => {
        typing.current = true;
        setText(event.target.value);
      }}
      onBlur={read}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter' && read()) onEnter();
      }}
    />
  );
}
