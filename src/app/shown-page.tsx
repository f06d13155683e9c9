import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { type Failure, type Outcome, Refused } from '@/server/failure';
import { Empty } from '@/ui/primitives/page';

/** What a page shows instead of its contents: “no such page” with its status, or why it is not for this person. */
export function NotShown({ error }: { error: Failure }) {
  if (error.kind === 'not-found') notFound();
  return <Empty>{error.message}</Empty>;
}

/** Goes on only with what may be shown. Within `page` alone. */
export function mustShow<T>(outcome: Outcome<T>): asserts outcome is Extract<Outcome<T>, { ok: true }> {
  if (!outcome.ok) throw new Refused(outcome.error);
}

/** A page whose `mustShow` says why it is not shown. */
export const page =
  <Props,>(render: (props: Props) => Promise<ReactNode>) =>
  async (props: Props): Promise<ReactNode> => {
    try {
      return await render(props);
    } catch (error) {
      if (error instanceof Refused) return <NotShown error={error.failure} />;
      throw error;
    }
  };
