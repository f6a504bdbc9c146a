import { useEffect, useState } from 'react';
import { TextField } from '../components/Field';
import { LinkButton } from '../components/Button';
import { Notice, ProblemNotice } from '../components/Notice';
import { PageLinks } from '../components/PageLinks';
import page from '../components/Page.module.css';
import { isUnproven } from '../core/book/facts';
import { dayOf } from '../core/quantities/day';
import type { BookEntry } from '../views/book';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import type { Page } from '../views/views';

const OWNERS = { pairing: '', machine: 'machine', lens: 'lens', stock: 'stock' } as const;

/** The settings book: the newest version of each fact, to be searched. */
export function BookTable({ start, search: wanted }: { start: Page<BookEntry>; search: string }) {
  const [search, setSearch] = useState(wanted);
  const [entries, setEntries] = useState(start);
  const [asked, setAsked] = useState(wanted);
  const action = useAction();
  useEffect(() => {
    if (search === asked) return;
    const wait = setTimeout(() => {
      setAsked(search);
      action.run(async () => {
        const found = await send<Page<BookEntry>>(`/api/facts?search=${encodeURIComponent(search)}`);
        setEntries(found);
        window.history.replaceState(null, '', search ? `/book?search=${encodeURIComponent(search)}` : '/book');
      });
    }, 200);
    return () => clearTimeout(wait);
  }, [search, asked, action]);

  return (
    <div className={page.page}>
      <div className={page.head}>
        <div>
          <h1>Settings book</h1>
          <p className={page.lead}>
            What is used from now on, by machine, stock and name. Every version stays, with where it came from.
          </p>
        </div>
        <div className={page.actions}>
          <LinkButton href="/api/facts/export.csv" download>
            CSV
          </LinkButton>
          <LinkButton href="/api/facts/export.json" download>
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
      <ProblemNotice problem={action.problem} />
      {entries.total === 0 && asked === '' && (
        <Notice>
          Nothing is kept yet. <a href="/bench">Open a bench</a>, burn a card, look at it and keep what it says.
        </Notice>
      )}
      {entries.total === 0 && asked !== '' && <Notice>Nothing in the book has all of these words.</Notice>}
      {entries.rows.length > 0 && (
        <div className={page.tableFrame} tabIndex={0} role="region" aria-label="Settings and facts">
          <table className={page.table}>
            <thead>
              <tr>
                <th scope="col">Machine</th>
                <th scope="col">Stock</th>
                <th scope="col">What</th>
                <th scope="col">Value</th>
                <th scope="col">How sure</th>
                <th scope="col">Kept</th>
                <th scope="col">Note</th>
              </tr>
            </thead>
            <tbody>
              {entries.rows.map((entry) => (
                <tr key={entry.factId}>
                  <td>{[entry.machine, entry.lens].filter(Boolean).join(', ')}</td>
                  <td>{[entry.stock, entry.batch].filter(Boolean).join(', ')}</td>
                  <td>
                    <a href={`/book/${entry.factId}`}>
                      {entry.title} v{entry.version}
                    </a>
                    {entry.conditions && <div>{entry.conditions}</div>}
                    {isUnproven(entry.origin) && <div>not proven here</div>}
                    {OWNERS[entry.owner] && <div>of the {OWNERS[entry.owner]}</div>}
                    {entry.stale.length > 0 && <div>stale: {entry.stale.join(', ')}</div>}
                  </td>
                  <td>{entry.value}</td>
                  <td>{entry.sure}</td>
                  <td className={page.date}>{dayOf(entry.keptAt)}</td>
                  <td>{entry.note}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <PageLinks page={entries} address={asked ? `/book?search=${encodeURIComponent(asked)}` : '/book'} />
    </div>
  );
}
