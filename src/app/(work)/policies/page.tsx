import { Box, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { ELECTRODES } from '@/core/gap/check';
import type { UnitSystem } from '@/core/units/person-units';
import { may } from '@/server/access';
import { deps } from '@/server/deps';
import { viewPolicies } from '@/server/policies/view-policies';
import { ELECTRODE_WORDS, SCOPE_WORDS } from '@/text/catalogue-words';
import { distanceText } from '@/text/format';
import { SubmitButton } from '@/ui/primitives/button';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { PageHead, Section } from '@/ui/primitives/page';
import { choosePolicyOptionAction, setCeilingAction } from './actions';

type View = Extract<Awaited<ReturnType<typeof viewPolicies>>, { ok: true }>['value'];
type Item = View['policies'][number];

export default page(async function PoliciesPage() {
  const actor = await requireActor();
  const view = await viewPolicies(deps(), actor);
  mustShow(view);
  const choose = may(actor, 'choose shop policies');
  return (
    <>
      <PageHead title="Shop policies">
        Where the trade divides, the shop chooses. A spec sheet’s own word overrides the shop, a duty group overrides
        both, a vehicle all. The manufacturer’s service information comes first.
      </PageHead>
      <Ceilings ceilings={view.value.ceilings} choose={choose} system={actor.unitSystem} />
      {view.value.policies.map((item) => (
        <PolicySection key={item.inForce.policy.id} item={item} groups={view.value.groups} choose={choose} />
      ))}
    </>
  );
});

/** How far the shop lets plugs of each electrode go, whatever their sheet says. */
function Ceilings({ ceilings, choose, system }: { ceilings: View['ceilings']; choose: boolean; system: UnitSystem }) {
  return (
    <Section
      title="Distance limits of the shop"
      aside="the shorter of the sheet’s interval and this limit applies; the vehicle’s page says which"
      id="ceilings"
    >
      {ELECTRODES.map((electrode) => {
        const km = ceilings.get(electrode);
        return (
          <Box key={electrode}>
            {ELECTRODE_WORDS[electrode]}: <strong>{km ? distanceText(km, system) : 'no limit'}</strong>
          </Box>
        );
      })}
      {choose && (
        <details>
          <summary>Set a limit</summary>
          <Box mt="2" maxW="760px">
            <Form action={setCeilingAction} input="ceilingForm">
              <Grid templateColumns={{ base: '1fr', md: '1fr 1fr 2fr' }} columnGap="4">
                <SelectField
                  name="electrode"
                  label="Electrode"
                  choices={ELECTRODES.map((value) => ({ value, label: ELECTRODE_WORDS[value] }))}
                />
                <TextField name="km" label="Limit, km" inputMode="numeric" hint="empty: no limit" />
                <TextField name="why" label="Why" />
              </Grid>
              <SubmitButton>Set</SubmitButton>
            </Form>
          </Box>
        </details>
      )}
    </Section>
  );
}

function PolicySection({
  item: { inForce, exceptions },
  groups,
  choose,
}: {
  item: Item;
  groups: readonly string[];
  choose: boolean;
}) {
  const { policy, option: inUse, scope, why } = inForce;
  return (
    <Section title={policy.name} aside={policy.question} id={policy.id}>
      <Grid templateColumns={{ base: '1fr', md: `repeat(${policy.options.length}, minmax(0, 1fr))` }} gap="5">
        {policy.options.map((option) => (
          <Box key={option.id} borderTop="3px solid" borderColor={option.id === inUse.id ? 'action' : 'hair'} pt="2">
            <Box fontWeight={option.id === inUse.id ? '650' : '400'}>
              {option.id === inUse.id ? '● ' : '○ '}
              {option.name}
            </Box>
            <Box color="soft" fontSize="sm">
              {option.reason}
            </Box>
            <Box fontSize="sm">{option.changes}</Box>
          </Box>
        ))}
      </Grid>
      <Box mt="2" fontSize="sm">
        In force: <strong>{inUse.name}</strong>, {SCOPE_WORDS[scope]}
        {scope === 'default' ? '' : `: ${why}`}
        {exceptions.map((exception) => (
          <Box key={`${exception.scope} ${exception.of}`}>
            {exception.scope === 'group' ? exception.of : `Unit ${exception.of}`}:{' '}
            <strong>{exception.option.name}</strong>, {exception.why}
          </Box>
        ))}
      </Box>
      {choose && <Choose item={inForce} groups={groups} />}
    </Section>
  );
}

function Choose({ item: { policy, option }, groups }: { item: Item['inForce']; groups: readonly string[] }) {
  return (
    <details>
      <summary>Choose for {policy.name.toLowerCase()}</summary>
      <Box mt="2" maxW="760px">
        <Form action={choosePolicyOptionAction} input="policyOptionForm">
          <input type="hidden" name="policy" value={policy.id} />
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="4">
            <SelectField
              name="option"
              label="Option"
              defaultValue={option.id}
              choices={[
                ...policy.options.map((s) => ({ value: s.id, label: s.name })),
                { value: '', label: 'take the choice back' },
              ]}
            />
            <SelectField
              name="scope"
              label="For"
              choices={[
                { value: 'shop', label: 'the whole shop' },
                { value: 'group', label: `a duty group: ${groups.join(', ')}` },
                { value: 'vehicle', label: 'one vehicle, by unit number' },
              ]}
            />
            <TextField name="scopeName" label="Duty group or unit number" hint="empty for the shop" />
            <TextField name="why" label="Why" />
          </Grid>
          <SubmitButton>Choose</SubmitButton>
        </Form>
      </Box>
    </details>
  );
}
