import type { BenchListView } from '../views/views';
import { assessPairing } from '../core/stock/assess';
import { Button, LinkButton } from '../components/Button';
import { Ladder } from '../components/Ladder';
import { Notice, ProblemNotice } from '../components/Notice';
import { usePairing } from '../components/PairingFields';
import { PageLinks } from '../components/PageLinks';
import page from '../components/Page.module.css';
import { send } from '../views/send';
import { useAction } from '../views/use-action';

/** The first benches side by side, to be chosen anew there. */
const compareAddress = (rows: BenchListView['benches']['rows']): string =>
  `/compare?${rows
    .slice(0, 2)
    .map(({ pairingId }) => `pairing=${pairingId}`)
    .join('&')}`;

/** The benches that are open, what waits for a hand first, and the start of a new one. */
export function BenchList({ view }: { view: BenchListView }) {
  const { machines, stocks, benches } = view;
  const { chosen, fields } = usePairing(machines, stocks);
  const { machineId, lensId, stockId, machine, stock } = chosen;
  const action = useAction();
  const remarks = machine && stock ? assessPairing(machine, stock) : [];
  const open = (): void =>
    action.run(async () => {
      const { id } = await send<{ id: number }>('/api/pairings', {
        method: 'POST',
        json: { machineId, lensId, stockId },
      });
      window.location.assign(`/bench/${id}`);
    });

  return (
    <div className={page.page}>
      <div className={page.head}>
        <div>
          <h1>Bench</h1>
          <p className={page.lead}>
            One bench for each machine, lens and stock. Its ladder shows what is known and what to burn next.
          </p>
        </div>
        {benches.total > 1 && <LinkButton href={compareAddress(benches.rows)}>Compare benches</LinkButton>}
      </div>
      <section className={page.group} aria-label="Open a bench">
        {machines.length === 0 || stocks.length === 0 ? (
          <Notice>
            A bench needs a machine and stock. <a href="/machines/new">Add a machine</a> or{' '}
            <a href="/stock/new">add stock</a>.
          </Notice>
        ) : (
          <>
            <div className={page.columns}>{fields}</div>
            {remarks.map((remark) => (
              <Notice key={remark.code} look={remark.severity === 'stop' ? 'heat' : 'straw'}>
                {remark.text} {remark.whatToDo}
              </Notice>
            ))}
            <ProblemNotice problem={action.problem} />
            <div className={page.actions}>
              <Button look="main" busy={action.busy} onClick={open}>
                Open this bench
              </Button>
            </div>
          </>
        )}
      </section>
      {benches.total === 0 ? (
        <Notice>No bench is open yet. Choose a machine, a lens and stock above.</Notice>
      ) : (
        <ul className={`${page.cards} ${page.plainList}`}>
          {benches.rows.map((bench) => (
            <li key={bench.pairingId}>
              <a className={page.card} href={`/bench/${bench.pairingId}`}>
                <span className={page.swatchRow}>
                  {bench.photoId === null ? (
                    <span className={page.swatch} style={{ background: bench.stockColour }} aria-hidden="true" />
                  ) : (
                    <img className={page.thumb} src={`/api/photos/${bench.photoId}/images/straightened`} alt="" />
                  )}
                  <span>
                    <strong>{bench.stock}</strong>
                    <br />
                    <span className={page.soft}>
                      {bench.machine}, lens {bench.lens}
                    </span>
                  </span>
                </span>
                <Ladder small rungs={bench.ladder} />
                <span className={page.soft}>
                  Next: {bench.next.text}
                  {bench.next.cost && ` (${bench.next.cost})`}
                </span>
              </a>
            </li>
          ))}
        </ul>
      )}
      <PageLinks page={benches} address="/bench" />
    </div>
  );
}
