import { Button } from '../../components/Button';
import { wordOf, type EyeAsk, type Seen } from '../../core/card/asks';
import styles from './LookStage.module.css';

/** One question to the eye about a cell or the card, with a button for each answer; keys answer about the cell in focus alone. */
export function EyeQuestion({
  ask,
  seen,
  cellIndex,
  onAnswer,
}: {
  ask: EyeAsk;
  seen: Seen;
  cellIndex: number | null;
  onAnswer: (value: string) => void;
}) {
  const said = wordOf(seen, ask.field, cellIndex);
  const short = ask.options.every((option) => option.name.length <= 2);
  return (
    <div role="group" aria-label={ask.question} className={styles.ask}>
      <p>{ask.question}</p>
      <div className={short ? styles.grades : styles.outcomes}>
        {ask.options.map(({ id, key, name }) => (
          <Button
            key={id}
            {...(short && { 'aria-label': `${ask.field} ${name}` })}
            {...(!short && cellIndex !== null && { shortcut: key.toUpperCase() })}
            aria-pressed={said === id}
            onClick={() => onAnswer(id)}
          >
            {name}
          </Button>
        ))}
      </div>
    </div>
  );
}
