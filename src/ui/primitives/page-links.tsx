import { TextLink } from './links';

/** Links to the pages before and after, under a list that has several. */
export function PageLinks({
  path,
  query,
  page,
  pages,
}: {
  path: string;
  query: URLSearchParams;
  /** From 1. */
  page: number;
  pages: number;
}) {
  if (pages <= 1) return null;
  const to = (n: number) => {
    const next = new URLSearchParams(query);
    next.set('page', String(n));
    return `${path}?${next}`;
  };
  return (
    <nav className="page-links" aria-label="Pages">
      {page > 1 && <TextLink href={to(page - 1)}>Earlier rows</TextLink>}
      <span>
        Page {page} of {pages}
      </span>
      {page < pages && <TextLink href={to(page + 1)}>Later rows</TextLink>}
    </nav>
  );
}
