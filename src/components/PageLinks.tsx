import page from './Page.module.css';

/** Links to the pages of a long list; nothing for one that fits. */
export function PageLinks({
  page: { total, limit, offset },
  address,
}: {
  page: { readonly total: number; readonly limit: number; readonly offset: number };
  /** With its query, if it has one. */
  address: string;
}) {
  if (total <= limit) return null;
  const now = Math.floor(offset / limit) + 1;
  const last = Math.ceil(total / limit);
  const to = (number: number): string => `${address}${address.includes('?') ? '&' : '?'}page=${number}`;
  return (
    <nav className={page.actions} aria-label="Pages">
      {now > 1 && <a href={to(now - 1)}>Earlier page</a>}
      <span>
        Page {now} of {last}, {total} in all
      </span>
      {now < last && <a href={to(now + 1)}>Next page</a>}
    </nav>
  );
}
