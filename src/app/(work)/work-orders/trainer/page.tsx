import { Box, Flex, Grid, Table } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { NotShown } from '@/app/not-shown';
import { GRADES } from '@/core/inspection/trainer';
import { deps } from '@/server/deps';
import { viewTrainer } from '@/server/findings/trainer';
import { NONE } from '@/text/format';
import { GRADE_WORDS } from '@/text/grade-words';
import { PlugDrawing } from '@/ui/drawings/plug-drawing';
import { ActionForm, SubmitButton } from '@/ui/primitives/action-form';
import { PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { SubNav } from '@/ui/primitives/sub-nav';
import { gradeAction } from '../actions';
import { ORDER_PLACES } from '../places';

export const metadata = { title: 'Trainer' };

/** How a kappa is usually read. Source: J. R. Landis, G. G. Koch, Biometrics 33 (1977). */
const agreementWords = (kappa: number): string =>
  kappa >= 0.81 ? 'nearly full' : kappa >= 0.61 ? 'substantial' : kappa >= 0.41 ? 'moderate' : 'weak';
const kappaText = (kappa: number | null): string =>
  kappa === null ? NONE : `${kappa.toFixed(2)}, ${agreementWords(kappa)}`;

export default async function TrainerPage() {
  const view = await viewTrainer(deps(), await requireActor());
  if (!view.ok) return <NotShown error={view.error} />;
  const { plug, mine, withAnswer, between } = view.value;
  const { last } = mine;
  return (
    <>
      <PageHead title="Trainer: read the drawn plug">
        {mine.graded === 0
          ? 'Nothing graded yet. What you know least comes first.'
          : `${mine.right} of ${mine.graded} right`}
        {mine.weakest.length > 0 && ` · least known: ${mine.weakest.map((grade) => GRADE_WORDS[grade]).join('; ')}`}
      </PageHead>
      <SubNav label="Work orders" places={ORDER_PLACES} />
      {last && (
        <Box
          role="status"
          mb="4"
          px="4"
          py="2"
          rounded="sm"
          bg={last.answer === last.said ? 'tint' : 'wrong.bg'}
          color={last.answer === last.said ? 'ink' : 'wrong.ink'}
        >
          {last.answer === last.said
            ? `✓ Right: ${GRADE_WORDS[last.answer]}.`
            : `✕ It was “${GRADE_WORDS[last.answer]}”, not “${GRADE_WORDS[last.said]}”.`}
        </Box>
      )}
      <Grid templateColumns={{ base: '1fr', md: '300px 1fr' }} gap="8" alignItems="start">
        <Box bg="sheet" rounded="sm" p="3" key={plug.number}>
          {/* The words of its conditions would be the answer, so they are not said. */}
          <PlugDrawing seen={plug.seen} gapMm={plug.gapMm} seat="gasket" title="A removed plug" height="420px" quiet />
          <Box color="soft" textAlign="center">
            gap {plug.gapMm.toFixed(2)} mm, new 1.00 to 1.10 mm
          </Box>
        </Box>
        <ActionForm action={gradeAction} quiet>
          <input type="hidden" name="plug" value={plug.number} />
          <Flex gap="2" wrap="wrap">
            {GRADES.map((grade) => (
              <SubmitButton key={grade} name="said" value={grade} large>
                {GRADE_WORDS[grade]}
              </SubmitButton>
            ))}
          </Flex>
        </ActionForm>
      </Grid>
      {withAnswer.length > 0 && (
        <Box mt="6">
          <Section title="Agreement" aside="Cohen’s kappa: 1 is full, 0 is what chance gives">
            <PlainTable heads={['Who', 'With', 'Plugs', 'Agreement']} numeric={[3]}>
              {withAnswer.map(({ name, graded, kappa }) => (
                <Table.Row key={name}>
                  <Table.Cell>{name}</Table.Cell>
                  <Table.Cell>the answer</Table.Cell>
                  <Table.Cell>{graded}</Table.Cell>
                  <Table.Cell>{kappaText(kappa)}</Table.Cell>
                </Table.Row>
              ))}
              {between.map(({ names: [a, b], plugs, kappa }) => (
                <Table.Row key={`${a} ${b}`}>
                  <Table.Cell>{a}</Table.Cell>
                  <Table.Cell>{b}</Table.Cell>
                  <Table.Cell>{plugs}</Table.Cell>
                  <Table.Cell>{kappaText(kappa)}</Table.Cell>
                </Table.Row>
              ))}
            </PlainTable>
          </Section>
        </Box>
      )}
    </>
  );
}
