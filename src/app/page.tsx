import { redirect } from 'next/navigation';
import { startOf } from './(work)/places';
import { requireActor } from './actor';

export const dynamic = 'force-dynamic';

/** Everybody begins where their work is. */
export default async function Home() {
  redirect(startOf((await requireActor()).role));
}
