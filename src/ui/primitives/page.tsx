import { Alert, Breadcrumb, DataList, EmptyState } from '@chakra-ui/react';
import { TriangleAlert } from 'lucide-react';
import { Fragment, type ReactNode } from 'react';
import { TextLink } from './links';

/** The page's name in the browser's tab. */
export const TabTitle = ({ name }: { name: string }) => <title>{`${name} · Isobar`}</title>;

/**
 * The head of a page: what it is, one sentence of figures, and at the right what can be done. The browser's tab says the same.
 *
 * @param mono the title is a number, in which 0 and O must differ
 * @param trail what the page belongs to, from the outermost: name and address
 */
export function PageHead({
  title,
  mono = false,
  trail = [],
  children,
  actions,
}: {
  title: string;
  mono?: boolean;
  trail?: readonly (readonly [string, string])[];
  children?: ReactNode;
  actions?: ReactNode;
}) {
  return (
    <div className="page-head">
      <TabTitle name={title} />
      <div>
        {trail.length > 0 && <Trail steps={trail} />}
        <h1>{mono ? <Code>{title}</Code> : title}</h1>
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

const Trail = ({ steps }: { steps: readonly (readonly [string, string])[] }) => (
  <Breadcrumb.Root aria-label="Where this page belongs">
    <Breadcrumb.List>
      {steps.map(([name, href]) => (
        <Fragment key={href}>
          <Breadcrumb.Item>
            <TextLink href={href}>{name}</TextLink>
          </Breadcrumb.Item>
          <Breadcrumb.Separator>›</Breadcrumb.Separator>
        </Fragment>
      ))}
    </Breadcrumb.List>
  </Breadcrumb.Root>
);

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
    <Alert.Root role="note" aria-label="Caution">
      <Alert.Indicator>
        <TriangleAlert size={22} />
      </Alert.Indicator>
      <Alert.Content>{children}</Alert.Content>
    </Alert.Root>
  );
}

/** An empty state that says what would stand here and how to get it there. */
export const Empty = ({ children }: { children: ReactNode }) => (
  <EmptyState.Root>
    <EmptyState.Content>{children}</EmptyState.Content>
  </EmptyState.Root>
);

/** Name and value pairs, values aligned. */
export function Facts({ rows }: { rows: readonly (readonly [string, ReactNode])[] }) {
  return (
    <DataList.Root>
      {rows.map(([name, value]) => (
        <DataList.Item key={name}>
          <DataList.ItemLabel>{name}</DataList.ItemLabel>
          <DataList.ItemValue>{value}</DataList.ItemValue>
        </DataList.Item>
      ))}
    </DataList.Root>
  );
}

/** Numbers and codes where 0 and O, 1 and l must differ. */
export const Code = ({ children }: { children: ReactNode }) => <span className="code">{children}</span>;
