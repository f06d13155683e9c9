import { Box, Flex, Grid } from '@chakra-ui/react';
import { requireActor } from '@/app/actor';
import { mustShow, page } from '@/app/shown-page';
import { gradesFor } from '@/core/inspection/trainer';
import type { UnitSystem } from '@/core/units/person-units';
import { normalFor } from '@/core/work/place-fields';
import { deps } from '@/server/deps';
import { viewTrainer } from '@/server/findings/trainer';
import { COMPONENT_WORDS } from '@/text/catalogue-words';
import { gapText, NONE, rangeTexts } from '@/text/format';
import { GRADE_WORDS } from '@/text/grade-words';
import { PartDrawing } from '@/ui/drawings/part-drawing';
import { NewPlugDrawing, PlugDrawing } from '@/ui/drawings/plug-drawing';
import { PressForm } from '@/ui/primitives/action-form';
import { SubmitButton } from '@/ui/primitives/button';
import { PageHead, Section } from '@/ui/primitives/page';
import { PlainTable } from '@/ui/primitives/plain-table';
import { gradeAction } from '../actions';

/** How a kappa is usually read. Source: J. R. Landis, G. G. Koch, Biometrics 33 (1977). */
const AGREEMENT: readonly (readonly [number, string])[] = [
  [0.81, 'nearly full'],
  [0.61, 'substantial'],
  [0.41, 'moderate'],
];
const agreementWords = (kappa: number): string => AGREEMENT.find(([least]) => kappa >= least)?.[1] ?? 'weak';
const kappaText = (kappa: number | null): string =>
  kappa === null ? NONE : `${kappa.toFixed(2)}, ${agreementWords(kappa)}`;

export default page(async function TrainerPage() {
  const actor = await requireActor();
  const view = await viewTrainer(deps(), actor);
  mustShow(view);
  const { part, mine, withAnswer, between } = view.value;
  const { last } = mine;
  return (
    <>
      <PageHead title="Trainer: read the drawn part">
        {mine.graded === 0
          ? 'Nothing graded yet. What you know least comes first.'
          : `${mine.right} of ${mine.graded} right`}
        {mine.weakest.length > 0 && ` · least known: ${mine.weakest.map((grade) => GRADE_WORDS[grade]).join('; ')}`}
      </PageHead>
      {last && (
        <Box
          role="status"
          mb="4"
          px="4"
          py="2"
          rounded="sm"
          bg={last.answer === last.given ? 'tint' : 'wrong.bg'}
          color={last.answer === last.given ? 'ink' : 'wrong.ink'}
        >
          {last.answer === last.given
            ? `✓ Right: ${GRADE_WORDS[last.answer]}.`
            : `✕ It was “${GRADE_WORDS[last.answer]}”, not “${GRADE_WORDS[last.given]}”.`}
        </Box>
      )}
      <Grid templateColumns={{ base: 'minmax(0, 1fr)', lg: '420px minmax(0, 1fr)' }} gap="8" alignItems="start">
        <Box bg="sheet" rounded="sm" p="3" key={part.number}>
          <Shown part={part} system={actor.unitSystem} />
        </Box>
        <PressForm action={gradeAction} quiet>
          <input type="hidden" name="plug" value={part.number} />
          <Flex gap="2" wrap="wrap">
            {gradesFor(part.component).map((grade) => (
              <SubmitButton key={grade} name="said" value={grade} large>
                {GRADE_WORDS[grade]}
              </SubmitButton>
            ))}
          </Flex>
        </PressForm>
      </Grid>
      {withAnswer.length > 0 && (
        <Box mt="6">
          <Section title="Agreement" aside="Cohen’s kappa: 1 is full, 0 is what chance gives">
            <PlainTable heads={['Who', 'With', 'Parts', 'Agreement']} numeric={[3]}>
              {withAnswer.map(({ name, graded, kappa }) => (
                <tr key={name}>
                  <td>{name}</td>
                  <td>the answer</td>
                  <td>{graded}</td>
                  <td>{kappaText(kappa)}</td>
                </tr>
              ))}
              {between.map(({ names: [a, b], plugs, kappa }) => (
                <tr key={`${a} ${b}`}>
                  <td>{a}</td>
                  <td>{b}</td>
                  <td>{plugs}</td>
                  <td>{kappaText(kappa)}</td>
                </tr>
              ))}
            </PlainTable>
          </Section>
        </Box>
      )}
    </>
  );
});

/** The part beside a new one. The words of its conditions would be the answer, so they are not said. */
function Shown({ part: { component, seen, gapMm }, system }: { part: TrainerView['part']; system: UnitSystem }) {
  const isPlug = component === 'plug';
  return (
    <>
      <div className="beside">
        <figure>
          {isPlug ? (
            <NewPlugDrawing gapMm={NEW_GAP_MM} seat="gasket" height="380px" />
          ) : (
            <PartDrawing component={component} seen={normalFor(component)} title="A new one" height="300px" />
          )}
          <figcaption className="soft small">new</figcaption>
        </figure>
        <figure>
          {isPlug ? (
            <PlugDrawing seen={seen} gapMm={gapMm} seat="gasket" title="A removed plug" height="380px" quiet />
          ) : (
            <PartDrawing component={component} seen={seen} title="A removed part" height="300px" quiet />
          )}
          <figcaption className="soft small">removed</figcaption>
        </figure>
      </div>
      <Box color="soft" textAlign="center">
        {isPlug
          ? `gap ${gapText(gapMm, system)}, new ${rangeTexts(1, 1.1, system, 'gap')[0]}`
          : `${COMPONENT_WORDS[component]}: what is at fault?`}
      </Box>
    </>
  );
}

type TrainerView = Extract<Awaited<ReturnType<typeof viewTrainer>>, { ok: true }>['value'];
const NEW_GAP_MM = 1.05;
