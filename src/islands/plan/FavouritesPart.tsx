import { useState } from 'react';
import { TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { SelectField, TextField } from '../../components/Field';
import { Notice, ProblemNotice } from '../../components/Notice';
import type { BasePlan } from '../../core/card/contract';
import type { FavouriteRecord } from '../../records/favourite';
import { fieldMessage } from '../../views/problem';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import type { PlanView } from '../../views/views';

interface Props {
  readonly view: PlanView;
  readonly plan: BasePlan;
  readonly onPlan: (plan: BasePlan) => void;
}

/**
 * Plans that are burned again and again. A favourite brings its cells and constants; how markers are burned and how the sheet is set up
 * stay as this bench proposes them, since they belong to the stock and the machine.
 */
export function FavouritesPart({ view, plan, onPlan }: Props) {
  const [favourites, setFavourites] = useState(view.favourites);
  const [chosen, setChosen] = useState<number | null>(favourites[0]?.id ?? null);
  const [name, setName] = useState('');
  const [said, setSaid] = useState('');
  const action = useAction();
  const favourite = favourites.find(({ id }) => id === chosen);
  const renew = async (): Promise<void> => {
    const all = await send<FavouriteRecord[]>(`/api/favourites?kind=${view.kind}`);
    setFavourites(all);
    if (!all.some(({ id }) => id === chosen)) setChosen(all[0]?.id ?? null);
  };
  const take = ({ plan: kept, name: title }: FavouriteRecord): void => {
    const { frame, setup } = view.proposal.plan;
    onPlan({ ...kept, frame, setup });
    setSaid(`“${title}” is on the card. Markers and set-up are this bench’s own.`);
  };
  const keep = (): void =>
    action.run(async () => {
      await send('/api/favourites', { method: 'POST', json: { name, kind: view.kind, plan } });
      await renew();
      setSaid(`Kept as “${name}”.`);
      setName('');
    });
  const drop = ({ id, name: title }: FavouriteRecord): void =>
    action.run(async () => {
      await send(`/api/favourites/${id}/drop`, { method: 'POST' });
      await renew();
      setSaid(`“${title}” is no favourite any more.`);
    });
  return (
    <TicketPart title="Favourites">
      {favourites.length > 0 && (
        <>
          <SelectField
            label="Favourite"
            value={chosen ?? ''}
            onChange={(event) => setChosen(Number(event.target.value))}
          >
            {favourites.map(({ id, name: title }) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </SelectField>
          <Button disabled={!favourite} onClick={() => favourite && take(favourite)}>
            Put it on this card
          </Button>
          <Button disabled={!favourite} busy={action.busy} onClick={() => favourite && drop(favourite)}>
            Take it off the favourites
          </Button>
        </>
      )}
      <TextField
        label="Keep this plan as"
        value={name}
        maxLength={60}
        error={fieldMessage(action.problem, 'name')}
        hint="to be burned again, on whatever stock"
        onChange={(event) => setName(event.target.value)}
      />
      <Button disabled={name.trim() === ''} busy={action.busy} onClick={keep}>
        Keep as a favourite
      </Button>
      {said && <Notice live>{said}</Notice>}
      <ProblemNotice problem={action.problem} />
    </TicketPart>
  );
}
