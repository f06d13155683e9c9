import { Box } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { may } from '@/server/access';
import { listUnmatched, type UnmatchedGroup } from '@/server/catalogue/list-unmatched';
import { deps } from '@/server/deps';
import { ANSWER_FIELDS, AnswerField } from '@/ui/catalogue/answer-field';
import { SubmitButton } from '@/ui/primitives/button';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Code, Empty, PageHead, Section } from '@/ui/primitives/page';
import { answerFitmentAction } from '../../vehicles/actions';

export default page(async function UnmatchedPage() {
  const actor = await requireActor();
  const groups = await listUnmatched(deps(), actor);
  mustShow(groups);
  const list = groups.value;
  const count = list.reduce((sum, group) => sum + group.vehicles.length, 0);
  return (
    <>
      <PageHead title="Without a firm match">
        <strong>{count}</strong> vehicle{count === 1 ? '' : 's'} for which no part is named; the question that resolves
        most comes first
      </PageHead>
      {list.length === 0 && <Empty>Every vehicle has a firm match.</Empty>}
      {list.map((group) => (
        <Group
          key={`${group.familyId} ${group.key}`}
          group={group}
          canAnswer={may(actor, 'answer fitment questions')}
        />
      ))}
    </>
  );
});

function Group({ group, canAnswer }: { group: UnmatchedGroup; canAnswer: boolean }) {
  return (
    <Section
      title={
        <>
          <TextLink href={`/engines/${group.familyId}`}>{group.familyCode}</TextLink>: {group.question}
        </>
      }
      aside={`resolves ${group.vehicles.length}`}
    >
      {group.candidates.length > 0 && (
        <Box as="ul" pl="4" mb="3" color="soft">
          {group.candidates.map(({ scope, part }) => (
            <li key={`${scope} ${part}`}>
              {scope}: <Code>{part}</Code>
            </li>
          ))}
        </Box>
      )}
      {group.vehicles.map((vehicle) => (
        <Box
          key={vehicle.id}
          display="grid"
          gridTemplateColumns={{ base: '1fr', md: '220px minmax(0, 460px)' }}
          columnGap="4"
          py="2"
          borderBottom="1px solid"
          borderColor="hair"
        >
          <TextLink href={`/vehicles/${vehicle.id}`}>
            {vehicle.unitNumber} {vehicle.name}
          </TextLink>
          {canAnswer && group.key && group.key in ANSWER_FIELDS && (
            <Form action={answerFitmentAction}>
              <input type="hidden" name="vehicleId" value={vehicle.id} />
              <input type="hidden" name="version" value={vehicle.version} />
              <Box display="flex" gap="3" alignItems="end">
                <Box flex="1" mb="-12px">
                  <AnswerField question={group.key} choices={group.choices} unit={vehicle.unitNumber} />
                </Box>
                <SubmitButton>Resolve</SubmitButton>
              </Box>
            </Form>
          )}
        </Box>
      ))}
    </Section>
  );
}
