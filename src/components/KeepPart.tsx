import { useState, type ReactNode } from 'react';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import { useRequestKey } from '../views/use-request-key';
import { TicketPart } from './BenchFrame';
import { Button } from './Button';
import { TextField } from './Field';
import { ProblemNotice } from './Notice';

interface Props {
  readonly title: string;
  readonly cardId: number;
  readonly wish: unknown;
  readonly choice: unknown;
  /** Versions kept from this card so far: with each the next press is a new intent. */
  readonly kept: number;
  readonly words: string;
  readonly disabled?: boolean;
  readonly onKept: () => void;
  readonly children?: ReactNode;
}

/** What is kept of a finding, with a note, by one main button and the key K. */
export function KeepPart({ title, cardId, wish, choice, kept, words, disabled = false, onKept, children }: Props) {
  const [note, setNote] = useState('');
  const action = useAction();
  const key = useRequestKey(wish, choice, note, kept);
  const keep = (): void =>
    action.run(async () => {
      await send('/api/facts', { method: 'POST', key, json: { cardId, wish, choice, note } });
      onKept();
    });
  return (
    <TicketPart title={title}>
      {children}
      <TextField
        label="Note"
        value={note}
        maxLength={1000}
        placeholder="for whom, what it looked like"
        onChange={(event) => setNote(event.target.value)}
      />
      <ProblemNotice problem={action.problem} />
      <Button look="main" shortcut="K" data-keep="" busy={action.busy} disabled={disabled} onClick={keep}>
        {words}
      </Button>
    </TicketPart>
  );
}

/** Presses the keep button of the screen, for the key that is shown on it. */
export function pressKeep(): void {
  document.querySelector<HTMLButtonElement>('[data-keep]:not(:disabled)')?.click();
}
