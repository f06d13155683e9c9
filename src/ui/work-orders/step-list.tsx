import { Box, Flex } from '@chakra-ui/react';
import { Fragment } from 'react';
import type { Phase } from '@/core/procedure/generate';
import { ActionForm, type FormAction, SubmitButton } from '../primitives/action-form';

export interface StepLine {
  readonly id: string;
  readonly title: string;
  readonly caution: string | null;
  readonly perSite: boolean;
  readonly phase: Phase | null;
  readonly why: string | null;
  readonly tools: readonly string[] | null;
  readonly consumables: readonly string[] | null;
  readonly record: readonly string[] | null;
  readonly minutes: number | null;
  readonly state: 'open' | 'done' | 'not_done';
}

const PHASE_WORDS: Readonly<Record<Phase, string>> = {
  prepare: 'Prepare',
  open: 'Open',
  plugs: 'Plugs',
  close: 'Close',
  prove: 'Prove',
};

const SIGNS = { open: '○', done: '✓', not_done: '✕' } as const;
const WORDS = { open: 'open', done: 'done', not_done: 'marked as not done' } as const;

/** The steps in the order of work, each with its hazard and three possible answers. */
export function StepList({
  steps,
  workOrderId,
  action,
  live,
  sitesText,
}: {
  steps: readonly StepLine[];
  workOrderId: string;
  action: FormAction;
  live: boolean;
  sitesText: string;
}) {
  return (
    <Box as="ol" listStyleType="none">
      {steps.map((step, index) => (
        <Fragment key={step.id}>
          {step.phase && step.phase !== steps[index - 1]?.phase && (
            <Box as="li" pt="3" fontWeight="650" fontSize="sm" color="soft">
              {PHASE_WORDS[step.phase]}
            </Box>
          )}
          <Flex as="li" gap="3" py="2" borderBottom="1px solid" borderColor="hair" align="flex-start">
            <Box
              w="18px"
              textAlign="center"
              color={step.state === 'open' ? 'soft' : 'action'}
              title={WORDS[step.state]}
            >
              {step.perSite ? '◇' : SIGNS[step.state]}
              <Box as="span" srOnly>
                {WORDS[step.state]}
              </Box>
            </Box>
            <Box flex="1" minW="0">
              {index + 1}. {step.title}
              {step.perSite && (
                <Box as="span" color="soft">
                  {' '}
                  · {sitesText}
                </Box>
              )}
              {step.caution && (
                <Box color="caution.ink" fontSize="sm">
                  {step.caution}
                </Box>
              )}
              <Detail step={step} />
            </Box>
            {live && !step.perSite && (
              <ActionForm action={action} quiet>
                <input type="hidden" name="workOrderId" value={workOrderId} />
                <input type="hidden" name="stepId" value={step.id} />
                <Flex gap="2" data-no-print>
                  {step.state === 'open' ? (
                    <>
                      <SubmitButton name="state" value="done">
                        Done
                      </SubmitButton>
                      <SubmitButton name="state" value="not_done">
                        Not done
                      </SubmitButton>
                    </>
                  ) : (
                    <SubmitButton name="state" value="open">
                      Undo
                    </SubmitButton>
                  )}
                </Flex>
              </ActionForm>
            )}
          </Flex>
        </Fragment>
      ))}
    </Box>
  );
}

/** Why, what with, and what to write down: one press away, so that the list stays short. */
function Detail({ step: { why, tools, consumables, record, minutes } }: { step: StepLine }) {
  if (!why) return null;
  const lines = [
    ['Tools', tools],
    ['Uses up', consumables],
    ['Write down', record],
  ] as const;
  return (
    <details>
      <Box as="summary" fontSize="sm" display="list-item">
        Why, and what with{minutes ? `, about ${minutes} min` : ''}
      </Box>
      <Box fontSize="sm" color="soft" pb="1">
        <div>{why}</div>
        {lines.map(([name, items]) =>
          items && items.length > 0 ? (
            <div key={name}>
              {name}: {items.join('; ')}
            </div>
          ) : null,
        )}
      </Box>
    </details>
  );
}
