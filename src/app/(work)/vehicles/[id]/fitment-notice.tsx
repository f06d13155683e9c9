import { Box } from '@chakra-ui/react';
import { scopeWords } from '@/core/catalogue/scope';
import { type Actor, may } from '@/server/access';
import { QUESTIONS } from '@/server/due/refresh-due';
import type { VehicleView } from '@/server/fleet/view-vehicle';
import { BLOCKER_WORDS } from '@/text/catalogue-words';
import { gapText } from '@/text/format';
import { SOURCE_WORDS } from '@/text/order-words';
import { AnswerField } from '@/ui/catalogue/answer-field';
import { SubmitButton } from '@/ui/primitives/button';
import { SelectField, TextField } from '@/ui/primitives/fields';
import { Form } from '@/ui/primitives/form';
import { TextLink } from '@/ui/primitives/links';
import { Code } from '@/ui/primitives/page';
import { openWorkOrderAction } from '../../work-orders/actions';
import { answerFitmentAction } from '../actions';

/** What keeps a vehicle from a firm match, and the field that resolves it; nothing for a match. */
export function FitmentNotice({ view: { vehicle, family, fitment }, actor }: { view: VehicleView; actor: Actor }) {
  if (fitment.kind === 'match') return null;
  const hidden = (
    <>
      <input type="hidden" name="vehicleId" value={vehicle.id} />
      <input type="hidden" name="version" value={vehicle.version} />
    </>
  );
  if (fitment.kind === 'no-spec')
    return (
      <Box bg="wrong.bg" color="wrong.ink" p="4" rounded="sm" mb="5">
        <strong>No spec: do not fit.</strong>{' '}
        {fitment.reason === 'only-memory'
          ? 'The only sheet is from memory.'
          : `There is no spec sheet for ${family.code} that covers this vehicle.`}{' '}
        Import one with its source.
      </Box>
    );
  return (
    <Box bg="sheet" border="1px solid" borderColor="line" p="4" rounded="sm" mb="5" maxW="640px">
      <Box fontWeight="650">No firm match yet: {QUESTIONS[fitment.key]}</Box>
      <Box as="ul" pl="4" my="2" color="soft">
        {[...fitment.candidates]
          .sort((a, b) => scopeWords(a).localeCompare(scopeWords(b)))
          .map((spec) => (
            <li key={spec.id}>
              {scopeWords(spec)}: <Code>{spec.part.number}</Code>, gap {gapText(spec.gapMinMm, actor.unitSystem)} and up
              ({SOURCE_WORDS[spec.sourceKind]})
            </li>
          ))}
      </Box>
      {may(actor, 'answer fitment questions') && (
        <Form action={answerFitmentAction}>
          {hidden}
          {fitment.key === 'sheet' ? (
            <SelectField
              name="chosenSheetId"
              label="The sheet that holds for this vehicle"
              choices={fitment.candidates.map((spec) => ({
                value: spec.id,
                label: `${spec.part.number}, ${scopeWords(spec)}, ${spec.sourceDocument}`,
              }))}
            />
          ) : (
            <AnswerField question={fitment.key} choices={fitment.choices} />
          )}
          <SubmitButton main>Resolve it</SubmitButton>
        </Form>
      )}
    </Box>
  );
}

/** The sheet in force releases no work by itself. */
export function SheetBlocked({
  view: { vehicle, family, blockers },
  canOpen,
}: {
  view: VehicleView;
  canOpen: boolean;
}) {
  return (
    <Box bg="caution.bg" color="caution.ink" p="4" rounded="sm" mb="5" maxW="640px">
      <strong>The spec sheet in force may not be used yet.</strong>
      <Box as="ul" pl="4" my="1">
        {blockers.map((blocker) => (
          <li key={blocker}>{BLOCKER_WORDS[blocker]}.</li>
        ))}
      </Box>
      {family && blockers.includes('unchecked') && (
        <Box>
          Whoever may check sheets, and did not enter it, does so on the page of engine{' '}
          <TextLink href={`/engines/${family.id}`}>{family.code}</TextLink>.
        </Box>
      )}
      {canOpen && (
        <Box color="ink" mt="2">
          <Form action={openWorkOrderAction}>
            <input type="hidden" name="vehicleId" value={vehicle.id} />
            <TextField name="releaseReason" label="Why it may be worked by all the same" />
            <SubmitButton main>Open a work order with this reason</SubmitButton>
          </Form>
        </Box>
      )}
    </Box>
  );
}
