import { Box, Flex } from '@chakra-ui/react';
import { ActionForm, type FormAction, SubmitButton } from '../primitives/action-form';

export interface StepLine {
  readonly id: string;
  readonly title: string;
  readonly caution: string | null;
  readonly perSite: boolean;
  readonly state: 'open' | 'done' | 'not_done';
}

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
        <Flex as="li" key={step.id} gap="3" py="2" borderBottom="1px solid" borderColor="hair" align="flex-start">
          <Box w="18px" textAlign="center" color={step.state === 'open' ? 'soft' : 'action'} title={WORDS[step.state]}>
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
      ))}
    </Box>
  );
}
