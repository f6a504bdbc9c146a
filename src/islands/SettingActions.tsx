import { Button, LinkButton } from '../components/Button';
import { Notice, ProblemNotice } from '../components/Notice';
import page from '../components/Page.module.css';
import { usePairing } from '../components/PairingFields';
import type { MachineRecord } from '../records/machine';
import type { StockRecord } from '../records/stock';
import { send } from '../views/send';
import { useAction } from '../views/use-action';

interface Props {
  readonly factId: number;
  readonly pairingId: number;
  readonly unproven: boolean;
  readonly machines: readonly MachineRecord[];
  readonly stocks: readonly StockRecord[];
}

/** What can be done with a kept setting: prove it where nobody has, and foretell it for another bench. */
export function SettingActions({ factId, pairingId, unproven, machines, stocks }: Props) {
  const { chosen, fields } = usePairing(machines, stocks);
  const action = useAction();
  const copy = (): void =>
    action.run(async () => {
      const { machineId, lensId, stockId } = chosen;
      const json = { machineId, lensId, stockId };
      const bench = await send<{ id: number }>('/api/pairings', { method: 'POST', json });
      const made = await send<{ factId: number }>(`/api/facts/${factId}/copy`, {
        method: 'POST',
        json: { pairingId: bench.id },
      });
      window.location.assign(`/book/${made.factId}`);
    });
  return (
    <section className={page.group} aria-label="What to do with it">
      <h2>Use it</h2>
      <LinkButton look={unproven ? 'main' : 'plain'} href={`/bench/${pairingId}/plan/grid?prove=${factId}`}>
        {unproven ? 'Prove it on a small card' : 'Check it on a small card'}
      </LinkButton>
      <h3>Foretell it for another bench</h3>
      <p className={page.soft}>
        The same energy per area, as far as the other machine and stock are known. It is marked as a prediction until a
        card proves it.
      </p>
      {fields}
      <Button busy={action.busy} onClick={copy}>
        Copy it there
      </Button>
      {machines.length === 0 && <Notice look="straw">No machine is in use.</Notice>}
      <ProblemNotice problem={action.problem} />
    </section>
  );
}
