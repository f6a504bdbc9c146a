import { useMemo, useState } from 'react';
import type { BookEntry } from '../app/book-views';
import { TextField } from '../components/Field';
import { LinkButton } from '../components/Button';
import { Notice } from '../components/Notice';
import page from '../components/Page.module.css';
import { formatInterval, formatPower, formatSpeed, plainNumber } from '../core/quantities/format';

type SortKey = 'machine' | 'stock' | 'process' | 'kept';

const SORTS: Readonly<Record<SortKey, (entry: BookEntry) => string>> = {
  machine: (entry) => `${entry.machine} ${entry.stock}`,
  stock: (entry) => `${entry.stock} ${entry.machine}`,
  process: (entry) => `${entry.process} ${entry.machine}`,
  kept: (entry) => entry.newest.createdAt,
};

/** The settings book: the newest version of each setting, to be searched and sorted. */
export function BookTable({ entries }: { entries: readonly BookEntry[] }) {
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<SortKey>('machine');
  const shown = useMemo(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    const key = SORTS[sort];
    return entries
      .filter((entry) => {
        const text = [entry.machine, entry.lens, entry.stock, entry.batch, entry.process, entry.newest.note]
          .join(' ')
          .toLowerCase();
        return words.every((word) => text.includes(word));
      })
      .sort((a, b) => (sort === 'kept' ? key(b).localeCompare(key(a)) : key(a).localeCompare(key(b))));
  }, [entries, search, sort]);
  const head = (key: SortKey, name: string) => (
    <th scope="col" aria-sort={sort === key ? (key === 'kept' ? 'descending' : 'ascending') : 'none'}>
      <button type="button" onClick={() => setSort(key)}>
        {name} {sort === key ? (key === 'kept' ? '▾' : '▴') : ''}
      </button>
    </th>
  );

  return (
    <div className={page.page}>
      <div className={page.head}>
        <div>
          <h1>Settings book</h1>
          <p className={page.lead}>
            What is used from now on, by machine, stock and process. Every version stays, with where it came from.
          </p>
        </div>
        <div className={page.actions}>
          <LinkButton href="/api/settings/export.csv" download>
            CSV
          </LinkButton>
          <LinkButton href="/api/settings/export.json" download>
            JSON
          </LinkButton>
        </div>
      </div>
      <TextField
        label="Search"
        data-search=""
        autoFocus={typeof window !== 'undefined' && window.location.hash === '#search'}
        value={search}
        placeholder="birch heron engrave"
        onChange={(event) => setSearch(event.target.value)}
      />
      {entries.length === 0 && (
        <Notice>
          Nothing is kept yet. <a href="/bench">Open a bench</a>, burn a card, read it and keep a cell.
        </Notice>
      )}
      {entries.length > 0 && shown.length === 0 && <Notice>No setting has all of these words.</Notice>}
      {shown.length > 0 && (
        <div className={page.tableFrame} tabIndex={0} role="region" aria-label="Settings">
          <table className={page.table}>
            <thead>
              <tr>
                {head('machine', 'Machine')}
                {head('stock', 'Stock')}
                {head('process', 'Process')}
                <th scope="col">Power</th>
                <th scope="col">Speed</th>
                <th scope="col">Interval</th>
                <th scope="col">Lightness</th>
                {head('kept', 'Kept')}
                <th scope="col">Note</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((entry) => (
                <tr key={entry.settingId}>
                  <td>
                    {entry.machine}, {entry.lens}
                  </td>
                  <td>
                    {entry.stock}
                    {entry.batch && `, ${entry.batch}`}
                  </td>
                  <td>
                    <a href={`/book/${entry.settingId}`}>
                      {entry.process} v{entry.newest.version}
                    </a>
                    {entry.stale.length > 0 && <div>stale: {entry.stale.join(', ')}</div>}
                  </td>
                  <td>{formatPower(entry.newest.settings.powerFraction)}</td>
                  <td>{formatSpeed(entry.newest.settings.speedMmPerS)}</td>
                  <td>{formatInterval(entry.newest.settings.intervalMm)}</td>
                  <td>
                    {entry.newest.lightness === null
                      ? 'not read'
                      : `L* ${plainNumber(entry.newest.lightness, 3)} ± ${plainNumber(2 * (entry.newest.lightnessSigma ?? 0), 2)}`}
                  </td>
                  <td>{entry.newest.createdAt.slice(0, 10)}</td>
                  <td>{entry.newest.note}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
