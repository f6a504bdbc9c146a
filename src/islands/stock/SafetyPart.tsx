import type { Machine } from '../../core/machine/machine';
import { assessPairing, assessStock } from '../../core/stock/assess';
import type { StockInput } from '../../records/stock';
import { Notice } from '../../components/Notice';
import page from '../../components/Page.module.css';

/** Whether the stock may be burned at all, and how each machine takes it. */
export function SafetyPart({
  stock,
  machines,
}: {
  stock: StockInput;
  machines: readonly (Machine & { id: number })[];
}) {
  const stops = assessStock(stock);
  return (
    <>
      <h2>May it be burned?</h2>
      {stops.map((stop) => (
        <Notice key={stop.code} look="heat" title="Stop" live>
          {stop.text} {stop.whatToDo}
        </Notice>
      ))}
      {stops.length === 0 &&
        machines.map((machine) => {
          const remarks = assessPairing(machine, stock).filter((remark) => remark.code.startsWith('wavelength'));
          const stop = remarks.some((remark) => remark.severity === 'stop');
          return (
            <Notice
              key={machine.id}
              look={stop ? 'heat' : remarks.length > 0 ? 'straw' : 'plain'}
              title={`Under ${machine.name}`}
            >
              {remarks.length > 0 ? remarks.map((remark) => `${remark.text} ${remark.whatToDo}`).join(' ') : 'Works.'}
            </Notice>
          );
        })}
      <p className={page.soft}>Usual shop cautions. Local codes and the maker’s data sheet come first.</p>
    </>
  );
}
