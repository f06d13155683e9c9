import { dueFilter } from '@/server/due/list-due';

/** The filter of the due list as its address carries it. */
export function filterFrom(request: Request) {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  return dueFilter.parse({ ...query, ids: query.ids?.split(','), descending: query.order === 'reversed' });
}
