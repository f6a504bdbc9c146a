import { useRef, useState } from 'react';
import type { Drawing } from '../core/part/drawing';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import { Button } from './Button';
import { Notice, ProblemNotice } from './Notice';
import styles from './PictureField.module.css';

interface Props {
  readonly label: string;
  readonly drawing: Drawing;
  /** What is in it, in words. */
  readonly says?: string | undefined;
  readonly hint?: string | undefined;
  readonly error?: string | undefined;
  readonly onChange: (drawing: Drawing) => void;
}

/** A drawing of lines to be chosen from a file: the server reads it, and says what of it is left out. */
export function DrawingField({ label, drawing, says, hint, error, onChange }: Props) {
  const [leftOut, setLeftOut] = useState<readonly string[]>([]);
  const input = useRef<HTMLInputElement>(null);
  const action = useAction();
  const choose = (file: File | undefined): void => {
    if (!file) return;
    const name = encodeURIComponent(file.name.replace(/\.[^.]*$/, '').slice(0, 80));
    action.run(async () => {
      const svg = new Blob([file], { type: 'image/svg+xml' });
      const read = await send<{ drawing: Drawing; leftOut: readonly string[] }>(`/api/drawings?name=${name}`, {
        method: 'POST',
        file: svg,
      });
      setLeftOut(read.leftOut);
      onChange(read.drawing);
    });
  };
  return (
    <div className={styles.field} role="group" aria-label={label}>
      <h3>{drawing.name}</h3>
      {says && <p className={styles.hint}>{says}.</p>}
      <div className={styles.row}>
        <input
          ref={input}
          type="file"
          accept="image/svg+xml,.svg"
          aria-label="Drawing file"
          hidden
          onChange={(event) => {
            choose(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <Button busy={action.busy} onClick={() => input.current?.click()}>
          Choose a drawing (SVG)
        </Button>
      </div>
      {hint && <p className={styles.hint}>{hint}.</p>}
      {leftOut.length > 0 && <Notice look="straw">Left out: {leftOut.join('; ')}.</Notice>}
      <ProblemNotice problem={action.problem} />
      {error && <Notice look="heat">{error}</Notice>}
    </div>
  );
}
