import type { MachineRecord } from '../../records/machine';
import page from '../../components/Page.module.css';
import { RetiredNotice } from '../../components/RecordActions';
import { LensList } from './LensList';
import { MachineForm } from './MachineForm';

export function MachinePage({ machine }: { machine: MachineRecord | null }) {
  return (
    <div className={page.page}>
      <h1>{machine ? machine.name : 'A new machine'}</h1>
      {machine?.retired && <RetiredNotice />}
      <MachineForm machine={machine} />
      {machine && <LensList machine={machine} />}
    </div>
  );
}
