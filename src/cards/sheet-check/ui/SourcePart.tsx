import { useState } from 'react';
import { Button } from '../../../components/Button';
import { Notice, ProblemNotice } from '../../../components/Notice';
import { plainNumber } from '../../../core/quantities/format';
import { send } from '../../../views/send';
import { useAction } from '../../../views/use-action';
import type { CardView } from '../../../views/views';
import type { SheetCheckFinding } from '../find';

/** What a shift of power says of the machine where the sheet is the very same one, and a button that notes it in the machine's diary. */
export function SourcePart({ view, source }: { view: CardView; source: NonNullable<SheetCheckFinding['source']> }) {
  const { card, burns } = view;
  const [noted, setNoted] = useState(false);
  const action = useAction();
  const burn = burns.at(-1);
  const { code } = card.layout;
  // One card tells it once, however often its page is opened.
  const key = `inferred-by-card-${card.id}`;
  if (!burn) return null;
  const change = `${plainNumber(100 * Math.abs(source.share - 1), 2)} % (± ${plainNumber(200 * source.sigma, 2)} %)`;
  const note = (): void =>
    action.run(async () => {
      const json = {
        at: burn.startedAt,
        kind: 'inferred',
        note: `by card ${code}`,
        reading: null,
        share: source.share,
      };
      await send(`/api/machines/${burn.machineId}/diary`, { method: 'POST', key, json });
      setNoted(true);
    });
  return (
    <Notice title="If this is the very sheet it was found on">
      <p>
        Then this machine gives {change} {source.share < 1 ? 'less' : 'more'} light than when the setting was kept.
        Another sheet of the same batch may differ by as much. Noted in its diary, it makes doubtful what else was found
        before this card.
      </p>
      <ProblemNotice problem={action.problem} />
      <Button busy={action.busy} disabled={noted} onClick={note}>
        {noted ? 'It is in the diary' : 'Note it in the diary'}
      </Button>
    </Notice>
  );
}
