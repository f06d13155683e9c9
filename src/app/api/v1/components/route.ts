import type { z } from 'zod';
import { componentItem, componentsQuery } from '@/contracts/http/resources';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listComponents } from '@/server/fleet/list-components';
import { csvReply, readQuery, reply, route, wantsCsv } from '../http';

type Fitted = Extract<Awaited<ReturnType<typeof listComponents>>, { ok: true }>['value']['items'][number];

const toItem = (fitted: Fitted): z.output<typeof componentItem> => ({
  unit_number: fitted.unit,
  component: fitted.component,
  place: fitted.place,
  tag: fitted.tag,
  part_number: fitted.number ?? fitted.observedNumber ?? fitted.believedNumber,
  history: fitted.history,
  installed_on: fitted.installedOn,
  installed_km: fitted.installedKm,
  installed_certainty: fitted.installedKmCertainty,
  lot: fitted.lot,
  checked_on: fitted.checkedOn,
  good_for_km: fitted.goodForKm,
  checked_from: fitted.checkedFrom,
});

/** What sits where, from when on. */
export const GET = route(async ({ request, actor }) => {
  const query = readQuery(request, componentsQuery);
  if (!query.ok) return query.response;
  const list = await listComponents(deps(), actor, query.value);
  if (!list.ok || !wantsCsv(request))
    return reply(list, ({ items, nextCursor }) => ({ items: items.map(toItem), next_cursor: nextCursor }));
  const keys = componentItem.keyof().options;
  return csvReply(
    toCsv(
      keys,
      list.value.items.map(toItem).map((item) => keys.map((key) => item[key])),
    ),
  );
});
