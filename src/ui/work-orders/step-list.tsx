import { Box, Flex } from '@chakra-ui/react';
import { Fragment } from 'react';
import type { Ask } from '@/core/work/ask';
import type { Phase } from '@/core/work/procedure/step';

interface StepLine {
  readonly id: string;
  readonly title: string;
  readonly caution: string | null;
  readonly perSite: boolean;
  readonly phase: Phase | null;
  readonly why: string | null;
  readonly tools: readonly string[] | null;
  readonly consumables: readonly string[] | null;
  readonly asks: readonly Ask[] | null;
  readonly answers: Readonly<Record<string, string>>;
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

/** The steps in the order of work, each with its hazard, what was answered and what was written down. Answered at the vehicle. */
export function StepList({ steps, sitesText }: { steps: readonly StepLine[]; sitesText: string }) {
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
              {step.asks
                ?.filter(({ key }) => step.answers[key])
                .map(({ key, what }) => (
                  <Box key={key} fontSize="sm">
                    {what}: <strong>{step.answers[key]}</strong>
                  </Box>
                ))}
              <Detail step={step} />
            </Box>
          </Flex>
        </Fragment>
      ))}
    </Box>
  );
}

/** Why, what with, and what to write down: one press away, so that the list stays short. */
function Detail({ step: { why, tools, consumables, asks, minutes } }: { step: StepLine }) {
  if (!why) return null;
  const lines = [
    ['Tools', tools],
    ['Uses up', consumables],
    ['Write down', asks?.map(({ what }) => what) ?? null],
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
