import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { dueFilter, listDue } from '@/server/due/list-due';
import { viewHorizon } from '@/server/due/view-horizon';
import { viewPressure } from '@/server/due/view-pressure';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { dateText, hoursText } from '@/text/format';
import { PressureBoard } from '@/ui/pressure/pressure-board';
import { LinkChoices } from '@/ui/primitives/link-choices';
import { ButtonLink } from '@/ui/primitives/links';
import { Empty, PageHead } from '@/ui/primitives/page';
import { deferAction, openSelectedAction } from './actions';

type Props = { searchParams: Promise<{ component?: string; depot?: string; group?: string; search?: string }> };

export default page(async function PressurePage({ searchParams }: Props) {
  const actor = await requireActor();
  const { component, depot, group, search } = dueFilter.parse(await searchParams);
  const [view, list, horizon] = await Promise.all([
    viewPressure(deps(), actor, { component, depot, group, search }),
    listDue(deps(), actor, { ...dueFilter.parse({}), page: { from: 0, limit: 1 } }),
    viewHorizon(deps(), actor, depot),
  ]);
  mustShow(view);
  mustShow(list);
  const { points, ...facts } = view.value;
  const { counts, total, depots, components } = list.value;
  const hours = horizon.ok ? horizon.value.weeks.slice(0, 4).reduce((sum, week) => sum + week.mean, 0) : 0;
  const bays = horizon.ok ? horizon.value.bayMinutes * 4 : 0;
  return (
    <>
      <PageHead
        title={`Service pressure, ${dateText(deps().today())}`}
        actions={<ButtonLink href="/due">As a list</ButtonLink>}
      >
        <strong>{counts.past}</strong> past a limit · <strong>{counts.soon}</strong> due within 4 weeks ·{' '}
        <strong>{counts.inspect}</strong> to inspect · <strong>{hoursText(hours)}</strong> of bay work in four weeks,{' '}
        <strong>{hoursText(bays)}</strong> of bays · {depot ?? 'all depots'}
      </PageHead>
      <LinkChoices
        label="Depot"
        all="All depots"
        chosen={depot}
        choices={depots.map((name) => [name, name])}
        to={(name) => address({ component, depot: name })}
      />
      <LinkChoices
        label="Component"
        all="All components"
        chosen={component}
        choices={components.map((name) => [name, COMPONENT_WORDS[name]])}
        to={(name) => address({ component: name, depot })}
      />
      {points.length === 0 ? (
        <Empty>
          {total === 0
            ? 'No vehicles yet. Once vehicles, spec sheets, readings and service history are here, each stands on this chart by life used and by what its failure on the road would cost.'
            : 'No vehicle has a firm match, a reading and an interval yet. The due list says what each one lacks.'}
        </Empty>
      ) : (
        <PressureBoard
          key={`${component} ${depot} ${group} ${search}`}
          points={points}
          isWhole={!component}
          {...facts}
          open={may(actor, 'open work orders') ? openSelectedAction : null}
          defer={may(actor, 'defer work') ? deferAction : null}
        />
      )}
      <p style={{ fontSize: 14, marginTop: 8 }}>
        Service pressure is what another week of waiting is expected to cost: the chance of a failure on the road in
        seven days times its cost, plus wear past the limit. How parts fail is <strong>assumed</strong> (Weibull in life
        used, shape {facts.model.shape}, scale {facts.model.scale} of the limit) until this fleet’s own evidence is
        enough; lines are drawn for an ordinary week of this fleet.
      </p>
    </>
  );
});

function address(chosen: { readonly component?: string | undefined; readonly depot?: string | undefined }): string {
  const query = new URLSearchParams(Object.entries(chosen).filter((pair): pair is [string, string] => !!pair[1]));
  return query.size > 0 ? `/pressure?${query}` : '/pressure';
}
