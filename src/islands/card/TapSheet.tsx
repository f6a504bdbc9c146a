import { Button } from '../../components/Button';
import { ProblemNotice } from '../../components/Notice';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';

/** Has the bench's hand tap the sheet under every part that nobody has spoken of yet. */
export function TapSheet({ cardId, onTapped }: { cardId: number; onTapped: () => Promise<void> }) {
  const action = useAction();
  const tap = (): void =>
    action.run(async () => {
      await send(`/api/cards/${cardId}/tap`, { method: 'POST' });
      await onTapped();
    });
  return (
    <>
      <ProblemNotice problem={action.problem} />
      <Button busy={action.busy} onClick={tap}>
        {action.busy ? 'Tapping …' : 'Tap the simulated sheet'}
      </Button>
    </>
  );
}
