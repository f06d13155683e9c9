import { Box } from '@chakra-ui/react';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { SCOPE_WORDS } from '@/text/catalogue-words';
import { TextLink } from '@/ui/primitives/links';
import { Facts, Section } from '@/ui/primitives/page';

/** The options in force for this vehicle, and why. */
export function PoliciesSection({ view: { policies } }: { view: VehicleView }) {
  const chosen = policies.filter(({ scope }) => scope !== 'default');
  return (
    <Section
      id="policies"
      title="Shop policies in force here"
      aside={<TextLink href="/policies">all options and their reasons</TextLink>}
    >
      <Facts
        rows={chosen.map(({ policy, option, scope, why }) => [
          policy.name,
          <Box key={policy.id}>
            <strong>{option.name}</strong>, {SCOPE_WORDS[scope]}: {why}{' '}
            <Box as="span" color="soft">
              {option.changes}
            </Box>
          </Box>,
        ])}
      />
      <Box color="soft" fontSize="sm" mt="1">
        By default:{' '}
        {policies
          .filter(({ scope }) => scope === 'default')
          .map(({ policy, option }) => `${policy.name.toLowerCase()} ${option.name.toLowerCase()}`)
          .join('; ')}
        .
      </Box>
    </Section>
  );
}
