import { useState } from 'react';
import { Button } from '../components/Button';
import { TextField } from '../components/Field';
import { ProblemNotice } from '../components/Notice';
import { QuantityField } from '../components/QuantityField';
import { quantityKinds } from '../components/quantity-kinds';
import type { Pieces } from '../core/book/worth';
import { formatSize } from '../core/quantities/format';
import type { BenchView } from '../views/views';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import styles from './BenchScreen.module.css';

/** How many pieces the stock is for: with that, a test is weighed against them. */
export function PiecesPart({ view }: { view: BenchView }) {
  const { pairing, pieces } = view;
  const liked = pairing.machine.likedUnits;
  const [count, setCount] = useState(String(pieces?.count ?? ''));
  const [widthMm, setWidthMm] = useState<number | null>(pieces?.widthMm ?? null);
  const [heightMm, setHeightMm] = useState<number | null>(pieces?.heightMm ?? null);
  const action = useAction();
  const whole = /^[1-9]\d*$/.test(count.trim()) ? Number(count) : null;
  const typed: Pieces | null =
    whole !== null && widthMm !== null && heightMm !== null ? { count: whole, widthMm, heightMm } : null;
  const say = (said: Pieces | null): void =>
    action.run(async () => {
      await send(`/api/pairings/${pairing.id}/pieces`, { method: 'PUT', json: { pieces: said } });
      window.location.reload();
    });
  const length = quantityKinds(liked).length;
  return (
    <details className={styles.pieces}>
      <summary>
        {pieces
          ? `For ${pieces.count === 1 ? 'one piece' : `${pieces.count} pieces`} of ${formatSize(pieces.widthMm, pieces.heightMm, liked)}`
          : 'For how many pieces?'}
      </summary>
      <p>A test costs time and stock once; it is weighed against the pieces that you make after it.</p>
      <TextField label="Pieces" inputMode="numeric" value={count} onChange={(event) => setCount(event.target.value)} />
      <QuantityField label="Engraved, width" kind={length} value={widthMm} onChange={setWidthMm} />
      <QuantityField label="Engraved, height" kind={length} value={heightMm} onChange={setHeightMm} />
      <ProblemNotice problem={action.problem} />
      <Button disabled={typed === null} busy={action.busy} onClick={() => say(typed)}>
        Weigh tests against them
      </Button>
      {pieces && (
        <Button busy={action.busy} onClick={() => say(null)}>
          Forget them
        </Button>
      )}
    </details>
  );
}
