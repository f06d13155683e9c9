import { Fragment, type ReactNode } from 'react';

/** The head of a page: what it is, one sentence of figures, and at the right what can be done. */
export function PageHead({
  title,
  children,
  actions,
}: {
  title: ReactNode;
  children?: ReactNode;
  actions?: ReactNode;
}) {
  return (
    <div className="page-head">
      <div>
        <h1>{title}</h1>
        {children && <div>{children}</div>}
      </div>
      {actions && (
        <div className="page-actions" data-no-print>
          {actions}
        </div>
      )}
    </div>
  );
}

/** A part of a page, parted from the last by a hairline rather than a box. */
export function Section({
  title,
  aside,
  children,
  id,
}: {
  title: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
  id?: string;
}) {
  return (
    <section className="section" id={id}>
      <div className="section-head">
        <h2>{title}</h2>
        {aside && <div>{aside}</div>}
      </div>
      {children}
    </section>
  );
}

/** A hazard, where it is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <div className="caution" role="note" aria-label="Caution">
      <svg width="22" height="20" viewBox="0 0 22 20" aria-hidden="true" style={{ flexShrink: 0 }}>
        <path
          d="M11 1 21 19H1Z M11 7v6 M11 15.5v1.5"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeLinejoin="round"
        />
      </svg>
      <div>{children}</div>
    </div>
  );
}

/** An empty state that says what would stand here and how to get it there. */
export const Empty = ({ children }: { children: ReactNode }) => <div className="empty">{children}</div>;

/** Name and value pairs, values aligned. */
export function Facts({ rows }: { rows: readonly (readonly [string, ReactNode])[] }) {
  return (
    <dl className="facts">
      {rows.map(([name, value]) => (
        <Fragment key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </Fragment>
      ))}
    </dl>
  );
}

/** Numbers and codes where 0 and O, 1 and l must differ. */
export const Code = ({ children }: { children: ReactNode }) => <span className="code">{children}</span>;
