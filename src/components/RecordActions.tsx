import type { RecordState } from '../views/use-record';
import { Button } from './Button';
import { Notice, ProblemNotice } from './Notice';
import page from './Page.module.css';

/** What went wrong or was saved, and the buttons of a record's form. */
export function RecordActions({
  record: { id, retired, saved, action, turnRetired },
  add,
  kept,
  blocked = false,
}: {
  record: RecordState;
  add: string;
  /** What a saved change leaves as it was. */
  kept: string;
  blocked?: boolean;
}) {
  return (
    <>
      <ProblemNotice problem={action.problem} />
      {saved && <Notice live>Saved. {kept}</Notice>}
      <div className={page.actions}>
        <Button look="main" type="submit" busy={action.busy} disabled={blocked}>
          {id === null ? add : 'Save'}
        </Button>
        {id !== null && (
          <Button onClick={turnRetired} busy={action.busy}>
            {retired ? 'Bring it back' : 'Retire'}
          </Button>
        )}
      </div>
    </>
  );
}

export function RetiredNotice() {
  return <Notice look="straw">Retired: it keeps its history, but nothing new is planned on it.</Notice>;
}
