import { useState } from 'react';
import { Button } from '../../components/Button';
import { SelectField } from '../../components/Field';
import { Notice, ProblemNotice } from '../../components/Notice';
import page from '../../components/Page.module.css';
import { COLUMN_MEANINGS, type ColumnMeaning, type TableRow } from '../../core/book/settings-table';
import { formatInterval, formatPower, formatSpeed } from '../../core/quantities/format';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { useRequestKey } from '../../views/use-request-key';
import type { BringView, TablePreview } from '../../views/views';

/** A table of settings: pasted or chosen, its columns' meanings looked at, then filed row by row. */
export function BringTable({ view }: { view: BringView }) {
  const { id, machine } = view.pairing;
  const [text, setText] = useState('');
  const [preview, setPreview] = useState<TablePreview | null>(null);
  const [filed, setFiled] = useState<number | null>(null);
  const action = useAction();
  const key = useRequestKey(text, preview);
  const look = (table: string, meanings: readonly ColumnMeaning[] | null): void =>
    action.run(async () => {
      const json = { text: table, meanings };
      setPreview(await send<TablePreview>(`/api/pairings/${id}/settings/preview`, { method: 'POST', json }));
      setFiled(null);
    });
  const good = preview?.rows.filter((row) => row.settings !== null) ?? [];
  const file = (): void =>
    action.run(async () => {
      const settings = good.map(({ settings: of, shade, note }) => ({ settings: of, shade, note }));
      const made = await send<{ facts: unknown[] }>(`/api/pairings/${id}/settings`, {
        method: 'POST',
        key,
        json: { settings },
      });
      setFiled(made.facts.length);
    });
  const means = (column: number, meaning: ColumnMeaning): void =>
    look(
      text,
      preview!.columns.map((one, place) => (place === column ? meaning : one.means)),
    );
  return (
    <fieldset className={page.group}>
      <legend>Many, from a table (CSV)</legend>
      <p className={page.soft}>The first line holds titles; commas, semicolons or tabs part the columns.</p>
      <input
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        aria-label="A CSV file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (!file) return;
          void file.text().then((table) => {
            setText(table);
            look(table, null);
          });
        }}
      />
      <label className={page.soft} htmlFor="table-text">
        Or paste it here
      </label>
      <textarea
        id="table-text"
        rows={6}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setPreview(null);
        }}
      />
      <Button busy={action.busy} disabled={text.trim() === ''} onClick={() => look(text, null)}>
        Look at it
      </Button>
      <ProblemNotice problem={action.problem} />
      {preview && (
        <>
          <h3>What each column means</h3>
          <div className={page.columns}>
            {preview.columns.map(({ title, means: meaning, samples }, column) => (
              <SelectField
                key={column}
                label={title || `column ${column + 1}`}
                hint={samples.filter(Boolean).join(', ')}
                value={meaning}
                onChange={(event) => means(column, event.target.value as ColumnMeaning)}
              >
                {Object.entries(COLUMN_MEANINGS).map(([value, name]) => (
                  <option key={value} value={value}>
                    {name}
                  </option>
                ))}
              </SelectField>
            ))}
          </div>
          <h3>What would be filed</h3>
          <div className={page.tableFrame} tabIndex={0} role="region" aria-label="Rows of the table">
            <table className={page.table}>
              <thead>
                <tr>
                  <th scope="col">Row</th>
                  <th scope="col">Power</th>
                  <th scope="col">Speed</th>
                  <th scope="col">Interval</th>
                  <th scope="col">Passes</th>
                  <th scope="col">Shade</th>
                  <th scope="col">Note, or why not</th>
                </tr>
              </thead>
              <tbody>
                {preview.rows.map((row) => (
                  <Row key={row.row} row={row} liked={machine.likedUnits} />
                ))}
              </tbody>
            </table>
          </div>
          {filed === null ? (
            <Button look="main" busy={action.busy} disabled={good.length === 0} onClick={file}>
              File {good.length} of {preview.rows.length} as unproven
            </Button>
          ) : (
            <Notice live>
              {filed} filed as unproven. Rows of one shade became versions of it, the last one in use.{' '}
              <a href="/book">Look at them in the book</a>.
            </Notice>
          )}
        </>
      )}
    </fieldset>
  );
}

function Row({ row, liked }: { row: TableRow; liked: BringView['pairing']['machine']['likedUnits'] }) {
  const { settings, shade, note, problems } = row;
  if (!settings)
    return (
      <tr>
        <td>{row.row}</td>
        <td colSpan={5}>not taken over</td>
        <td>{problems.join(' ')}</td>
      </tr>
    );
  return (
    <tr>
      <td>{row.row}</td>
      <td>{formatPower(settings.powerFraction)}</td>
      <td>{formatSpeed(settings.speedMmPerS, liked)}</td>
      <td>{formatInterval(settings.intervalMm, liked)}</td>
      <td>{settings.passes}</td>
      <td>{shade}</td>
      <td>{note}</td>
    </tr>
  );
}
