import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { deps } from '@/server/deps';
import { dueFilter, listDue } from '@/server/due/list-due';
import { HORIZON_WEEKS, type PolicyOutcome, viewHorizon, type WhatIf, whatIf } from '@/server/due/view-horizon';
import { viewLookAhead } from '@/server/planning/view-look-ahead';
import { heldText } from '@/text/due-words';
import { dateText, hoursText, moneyText, NONE, percentText } from '@/text/format';
import { HoursAhead, HoursMore } from '@/ui/planning/hours-ahead';
import { HorizonChart } from '@/ui/pressure/horizon-chart';
import { LinkChoices } from '@/ui/primitives/link-choices';
import { ButtonLink, TextLink } from '@/ui/primitives/links';
import { PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';

type Props = { searchParams: Promise<{ depot?: string; share?: string }> };

const SHARES = [1, 0.9, 0.75] as const;

export default page(async function HorizonPage({ searchParams }: Props) {
  const actor = await requireActor();
  const query = await searchParams;
  const { depot } = dueFilter.parse({ depot: query.depot });
  const share = SHARES.find((s) => String(s) === query.share) ?? null;
  const [view, list, what, hours] = await Promise.all([
    viewHorizon(deps(), actor, depot),
    listDue(deps(), actor, { ...dueFilter.parse({}), page: { from: 0, limit: 1 } }),
    share === null ? null : whatIf(deps(), actor, share),
    viewLookAhead(deps(), actor),
  ]);
  mustShow(view);
  const { weeks, bayMinutes, depots } = view.value;
  const to = (next: { depot?: string; share?: number }) => {
    const params = new URLSearchParams();
    if (next.depot) params.set('depot', next.depot);
    if (next.share) params.set('share', String(next.share));
    return `/pressure/horizon?${params}`;
  };
  return (
    <>
      <PageHead title="Horizon">
        Work falling due in {HORIZON_WEEKS} weeks, {depot ?? 'all depots'} · what is overdue stands in the first week
        {list.ok && list.value.tested && ` · ${heldText(list.value.tested)}`}
      </PageHead>
      <LinkChoices
        label="Depot"
        all="All depots"
        chosen={depot}
        choices={(list.ok ? list.value.depots : []).map((name) => [name, name])}
        to={(name) => to({ depot: name, share: share ?? undefined })}
      />
      <HorizonChart weeks={weeks} bayMinutes={bayMinutes} />
      <Grid templateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }} columnGap="8" mt="4">
        <Section title="By week" aside="bay time; likely is P10 to P90">
          <PlainTable heads={['Week of', 'Visits', 'About', 'Likely', 'Bays']} numeric={[2, 3, 4, 5]}>
            {weeks.map((week) => (
              <tr key={week.from}>
                <td className="nowrap">{dateText(week.from)}</td>
                <td>{week.visits < 0.05 ? NONE : week.visits.toFixed(1)}</td>
                <td className={week.mean > bayMinutes ? 'strong' : undefined}>{timeText(week.mean)}</td>
                <td>{week.p90 - week.p10 < 1 ? NONE : `${hoursText(week.p10)} to ${hoursText(week.p90)}`}</td>
                <td>{hoursText(bayMinutes)}</td>
              </tr>
            ))}
          </PlainTable>
        </Section>
        <Box minW="0">
          <Section title="By depot" aside="the next four weeks">
            <PlainTable heads={['Depot', 'Bays', 'Work', 'Bay time']} numeric={[2, 3, 4]}>
              {depots.map((row) => (
                <tr key={row.name}>
                  <td>{row.name}</td>
                  <td>{row.bays}</td>
                  <td className={row.minutesIn4 > row.bayMinutesIn4 ? 'strong' : undefined}>
                    {hoursText(row.minutesIn4)}
                  </td>
                  <td>{hoursText(row.bayMinutesIn4)}</td>
                </tr>
              ))}
            </PlainTable>
          </Section>
          <TextLink href={`/parts/to-order?weeks=${HORIZON_WEEKS}`}>Parts to order for these weeks</TextLink>
        </Box>
      </Grid>
      {hours.ok && (
        <>
          <Section
            title="Where hours run out"
            aside="work that falls due of the hours of bays or people, whichever are fewer"
          >
            <HoursAhead {...hours.value} />
          </Section>
          <Section
            title="What waiting for hours costs in these months, and what would change it"
            aside="another interval: below"
          >
            <HoursMore {...hours.value} />
          </Section>
        </>
      )}
      <Section title="If the interval were set another way" aside="nothing changes until it is chosen">
        <Flex gap="3" wrap="wrap" align="center" mb="3" data-no-print>
          Change the plugs of every vehicle at
          {SHARES.map((s) => (
            <ButtonLink key={s} href={`${to({ depot, share: s })}#what-if`} main={s === share}>
              {percentText(s)}
            </ButtonLink>
          ))}
          of their limit
        </Flex>
        {what?.ok && <What found={what.value} />}
      </Section>
    </>
  );
});

const timeText = (minutes: number): string => (minutes < 1 ? NONE : hoursText(minutes));

function What({ found: { share, now, changed, currency } }: { found: WhatIf }) {
  const rows: readonly (readonly [string, (of: PolicyOutcome) => string])[] = [
    ['Vehicles due in 8 weeks', (outcome) => String(outcome.vehicles)],
    ['Plugs', (outcome) => String(outcome.plugs)],
    ['Bay time', (outcome) => hoursText(outcome.minutes)],
    ['Plugs, by catalogue price', (outcome) => moneyText(outcome.partsCost, currency)],
    ['Pressure left waiting, a week', (outcome) => moneyText(outcome.pressure, currency)],
  ];
  return (
    <Box id="what-if" maxW="680px">
      <PlainTable heads={['', 'As it stands', `At ${percentText(share)}`]} numeric={[2, 3]}>
        {rows.map(([words, figure]) => (
          <tr key={words}>
            <td>{words}</td>
            <td>{figure(now)}</td>
            <td className="strong">{figure(changed)}</td>
          </tr>
        ))}
      </PlainTable>
      <Box color="soft">
        Expected by the assumed failure model. Choose it, for the shop, a duty group or one vehicle, under{' '}
        <TextLink href="/policies#interval">Shop policies</TextLink>.
      </Box>
    </Box>
  );
}
