import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewCosts } from '@/server/due/costs';
import { dueFilter, listDue } from '@/server/due/list-due';
import { moneyText } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { Facts, PageHead, Section } from '@/ui/primitives/page';
import { setCostsAction } from '../actions';

/** What costs something, as the fleet has it where no group says otherwise. */
const AMOUNTS = [
  { name: 'failureCost', label: 'A failure on the road, where nothing else is said', inputMode: 'numeric' },
  { name: 'wearCostPerPercent', label: 'Each per cent of life over the limit, a week', inputMode: 'decimal' },
  { name: 'labourPerHour', label: 'An hour of work in the bay', inputMode: 'decimal' },
  { name: 'downtimePerVisit', label: 'A vehicle off the road for one more visit', inputMode: 'decimal' },
  { name: 'moveCost', label: 'Moving a booking that was agreed', inputMode: 'numeric' },
  { name: 'hourCost', label: 'A vehicle out of service, an hour', inputMode: 'numeric' },
] as const;

/** What the bays and people can give. */
const TIMES = [
  {
    name: 'breakMinutes',
    label: 'A break in the middle of a long day’s work',
    hint: 'minutes; 0: none is planned',
    inputMode: 'numeric',
  },
  { name: 'bayPercent', label: 'Share of the bays’ time for plug and coil service', hint: '%', inputMode: 'decimal' },
] as const;

export default page(async function CostsPage() {
  const actor = await requireActor();
  const [view, list] = await Promise.all([
    viewCosts(deps(), actor),
    listDue(deps(), actor, { ...dueFilter.parse({}), page: { from: 0, limit: 1 } }),
  ]);
  mustShow(view);
  const costs = view.value;
  const groups = list.ok ? list.value.groups : [];
  return (
    <>
      <PageHead title="Costs and bay time">
        What a failure on the road and wear past the limit cost, and what the bays can give
      </PageHead>
      {may(actor, 'set costs') ? (
        <Box maxW="520px">
          <Form action={setCostsAction} input="costsForm">
            <TextField name="currency" label="Currency" hint="three letters" defaultValue={costs.currency} />
            {[...AMOUNTS.map((field) => ({ ...field, hint: costs.currency })), ...TIMES].map(({ name, ...field }) => (
              <TextField key={name} name={name} {...field} defaultValue={String(costs[name])} />
            ))}
            <Section title="By duty group" aside="empty: as above">
              {groups.map((group) => (
                <TextField
                  key={group}
                  name={`groups.${group}`}
                  label={group}
                  hint={costs.currency}
                  inputMode="numeric"
                  defaultValue={costs.groups[group] === undefined ? '' : String(costs.groups[group])}
                />
              ))}
            </Section>
            <SubmitButton main>Save the costs</SubmitButton>
          </Form>
        </Box>
      ) : (
        <Facts
          rows={[
            ...AMOUNTS.map(({ name, label }) => [label, moneyText(costs[name], costs.currency)] as const),
            ['A break in the middle of a long day’s work', `${costs.breakMinutes} min`],
            ['Share of the bays’ time for plug and coil service', `${costs.bayPercent} %`],
            ...Object.entries(costs.groups).map(([group, cost]) => [group, moneyText(cost, costs.currency)] as const),
          ]}
        />
      )}
      <Box color="soft" mt="4" maxW="60ch">
        A vehicle can have its own cost of a failure: column failure_cost of vehicles.csv. It comes before its group’s.
      </Box>
    </>
  );
});
