import { deps } from '@/server/deps';
import { viewCase } from '@/server/misfire/view-case';
import { reply, route } from '../../http';
import { toCaseDetail } from '../../misfire';

/** A misfire with what was said of it, what it points to, and what to do next. */
export const GET = route<{ id: string }>(async ({ actor, params }) =>
  reply(await viewCase(deps(), actor, params.id), toCaseDetail),
);
