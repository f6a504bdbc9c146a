import type { MachineRecord } from '../records/machine';
import page from '../components/Page.module.css';
import { Notice } from '../components/Notice';
import { LensList } from './LensList';
import { MachineForm } from './MachineForm';

export function MachinePage({ machine }: { machine: MachineRecord | null }) {
  return (
    <div className={page.page}>
      <h1>{machine ? machine.name : 'A new machine'}</h1>
      {machine?.retired && (
        <Notice look="straw">Retired: it keeps its history, but nothing new is planned on it.</Notice>
      )}
      <MachineForm machine={machine} />
      {machine && <LensList machine={machine} />}
    </div>
  );
}
