import { notFound } from 'next/navigation';
import type { Failure } from '@/server/failure';
import { Empty } from '@/ui/primitives/page';

/** What a page shows instead of its contents: “no such page” with its status, or why it is not for this person. */
export function NotShown({ error }: { error: Failure }) {
  if (error.kind === 'not-found') notFound();
  return <Empty>{error.message}</Empty>;
}
