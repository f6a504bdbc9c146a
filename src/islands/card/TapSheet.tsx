import { Button } from '../../components/Button';
import { ProblemNotice } from '../../components/Notice';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';

const WORDS = {
  tap: ['Tapping …', 'Tap the simulated sheet'],
  push: ['Pushing …', 'Push an offcut into the simulated slots'],
  bend: ['Bending …', 'Bend the simulated flaps'],
  mate: ['Putting together …', 'Put the simulated parts together'],
  stop: ['Tapping …', 'Tap the simulated sheet'],
  count: ['Counting …', 'Count the simulated passes'],
  both: ['Trying …', 'Tap the simulated sheet, push the part in'],
} as const;

interface Props {
  readonly cardId: number;
  /** What a hand does. */
  readonly does: keyof typeof WORDS;
  /** What was noted is there once this is done: so many answers. */
  readonly onTapped: (tapped: number) => Promise<void>;
}

/** Has the bench's hand try every part or slot that nobody has spoken of yet. */
export function TapSheet({ cardId, does, onTapped }: Props) {
  const action = useAction();
  const tap = (): void =>
    action.run(async () => {
      const { tapped } = await send<{ tapped: number }>(`/api/cards/${cardId}/tap`, { method: 'POST' });
      await onTapped(tapped);
    });
  return (
    <>
      <ProblemNotice problem={action.problem} />
      <Button busy={action.busy} onClick={tap}>
        {WORDS[does][action.busy ? 0 : 1]}
      </Button>
    </>
  );
}
