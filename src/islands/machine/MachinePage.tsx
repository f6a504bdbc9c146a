import type { DiaryView } from '../../records/diary';
import type { MachineRecord } from '../../records/machine';
import page from '../../components/Page.module.css';
import { RetiredNotice } from '../../components/RecordActions';
import { formatDuration } from '../../core/quantities/format';
import { DiaryPart } from './DiaryPart';
import { LensList } from './LensList';
import { MachineForm } from './MachineForm';

/** "2 entries, 5 h of burns" */
function entries({ entries: all, hours }: DiaryView): string {
  const count = all.filter(({ struck }) => !struck).length;
  return `${count === 1 ? '1 entry' : `${count} entries`}, ${formatDuration(hours.all * 3600)} of logged burns`;
}

export function MachinePage({ machine, diary }: { machine: MachineRecord | null; diary: DiaryView | null }) {
  return (
    <div className={page.page}>
      <h1>{machine ? machine.name : 'A new machine'}</h1>
      {machine?.retired && <RetiredNotice />}
      {diary && (
        <p className={page.lead}>
          <a href="#diary">Diary</a>: what was done to it and happened to it, {entries(diary)}.
        </p>
      )}
      <MachineForm machine={machine} />
      {machine && <LensList machine={machine} />}
      {machine && diary && <DiaryPart machine={machine} first={diary} />}
    </div>
  );
}
