import { useState } from 'react';
import { Button } from '../../components/Button';
import { ProblemNotice } from '../../components/Notice';
import type { CardView } from '../../views/views';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';

/** Types a text into the field in focus as a keyboard would, and presses Enter: what a caliper with a cable does. */
function typeAndEnter(text: string): void {
  const field = document.activeElement;
  if (!(field instanceof HTMLInputElement)) return;
  const setValue = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
  setValue.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  requestAnimationFrame(() => field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true })));
}

/** The simulated caliper: measures what the simulated bench cut, and types its reading where the cursor stands. */
export function SimulatedCaliper({ view, field, cellIndex }: { view: CardView; field: string; cellIndex: number }) {
  const action = useAction();
  const [last, setLast] = useState('');
  if (!view.burns.some((burn) => burn.place === 'bench' && burn.linesDone > 0)) return null;
  const measure = (): void =>
    action.run(async () => {
      const inputs = [...document.querySelectorAll<HTMLInputElement>(`[data-gauge^="${field} "]`)];
      const active = inputs.find((input) => input === document.activeElement);
      const target = active ?? inputs.find((input) => input.value === '') ?? inputs[0];
      const repeat = Number(target?.dataset['gauge']?.split(' ')[1] ?? 0);
      const { text } = await send<{ text: string }>(`/api/cards/${view.card.id}/gauge`, {
        method: 'POST',
        json: { field, cellIndex, repeat },
      });
      setLast(text);
      target?.focus();
      typeAndEnter(text);
    });
  return (
    <>
      <Button busy={action.busy} onMouseDown={(event) => event.preventDefault()} onClick={measure}>
        Measure with the simulated caliper
      </Button>
      {last && <p role="status">The caliper shows {last}.</p>}
      <ProblemNotice problem={action.problem} />
    </>
  );
}
