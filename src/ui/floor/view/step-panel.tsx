'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { type Ask, openCounts } from '@/core/work/ask';
import { GATE_TABLE, GATES, type Gate, STAGE_WORDS } from '@/core/work/gate-table';
import type { FloorStep } from '@/core/work/job-record';
import { countsIn, stepStateIn } from '@/core/work/order-model';
import type { StepKind } from '@/core/work/procedure/step';
import { stepTarget } from '@/core/work/targets';
import { Caution } from '../../primitives/page';
import type { Floor } from '../sync/use-floor';
import { faultsOf, PhaseInOrder } from './in-order';
import { Press } from './parts';
import { Answer, FoundOnArrival, NotDone } from './step-answers';

const STATE_SIGN = { open: '○', done: '✓', not_done: '✕' } as const;

/** The gate that a step opens; null: none. */
const gateOf = (kind: StepKind | null): Gate | null =>
  (kind && GATES.find((gate) => GATE_TABLE[gate].steps.includes(kind))) || null;

const PHASE_WORDS: Readonly<Record<string, string>> = {
  prepare: 'Prepare',
  open: 'Open',
  plugs: 'At each place',
  close: 'Close',
  prove: 'Prove',
};

/** The steps in their order: the one in hand large, what was done and what comes short. */
export function StepPanel({ floor, onCodes, onFollowUp }: { floor: Floor; onCodes: string; onFollowUp: string }) {
  const { job } = floor;
  const [chosen, setChosen] = useState<string | null>(null);
  const open = job.steps.find((step) => !step.perSite && stepStateIn(floor.record, step.key) === 'open');
  const inHand = job.steps.find(({ key }) => key === chosen) ?? open ?? null;
  const counts = openCounts(countsIn(job, floor.record).filter(({ out }) => out !== null));
  return (
    <Box>
      {counts.length > 0 && (
        <Box color="caution.ink" fontSize="16px" mb="2" role="status">
          Counts open: {counts.join(' ')}
        </Box>
      )}
      <Box as="ol" listStyleType="none">
        {job.steps.map((step, index) => {
          const state = stepStateIn(floor.record, step.key);
          return (
            <li key={step.key}>
              {step.phase && step.phase !== job.steps[index - 1]?.phase && (
                <Box pt="3" pb="1">
                  <Box fontWeight="650" color="soft">
                    {PHASE_WORDS[step.phase]}
                  </Box>
                  <PhaseInOrder floor={floor} phase={step.phase} />
                </Box>
              )}
              {step.key === inHand?.key && !step.perSite ? (
                <InHand
                  floor={floor}
                  step={step}
                  number={index + 1}
                  state={state}
                  links={{ codes: onCodes, follow_up: onFollowUp }}
                  onNext={() => setChosen(null)}
                />
              ) : (
                <chakra.button
                  type="button"
                  onClick={() => setChosen(step.key)}
                  display="flex"
                  gap="3"
                  w="100%"
                  minH="48px"
                  alignItems="center"
                  textAlign="left"
                  borderBottom="1px solid"
                  borderColor="hair"
                  fontSize="17px"
                  color={state === 'open' ? 'ink' : 'soft'}
                  disabled={step.perSite}
                >
                  <Box as="span" w="20px" flexShrink={0} aria-hidden="true">
                    {step.perSite ? '◇' : STATE_SIGN[state]}
                  </Box>
                  <span>
                    {index + 1}. {step.title}
                    {gateOf(step.kind) && <span className="gate-tag">gate</span>}
                    <Box as="span" srOnly>
                      {step.perSite ? ', at its places' : `, ${state.replace('_', ' ')}`}
                    </Box>
                  </span>
                </chakra.button>
              )}
            </li>
          );
        })}
      </Box>
    </Box>
  );
}

function InHand({
  floor,
  step,
  number,
  state,
  links,
  onNext,
}: {
  floor: Floor;
  step: FloorStep;
  number: number;
  state: string;
  links: Readonly<Partial<Record<Ask['kind'], string>>>;
  onNext: () => void;
}) {
  const [told, setTold] = useState<readonly string[]>([]);
  const target = stepTarget(step.key);
  const gate = gateOf(step.kind);
  const [refusing, setRefusing] = useState(false);
  const mark = (next: string) => {
    const faults = next === 'done' ? faultsOf(floor, step) : [];
    setTold(faults);
    if (faults.length > 0) return;
    floor.edit(null);
    floor.set(target, 'state', next);
    if (next !== 'open') onNext();
  };
  const lines = [
    ['Tools', step.tools],
    ['Uses up', step.consumables],
  ] as const;
  return (
    <Box
      role="group"
      aria-label={`Step ${number} in hand`}
      borderLeft="4px solid"
      borderColor="action"
      pl="4"
      py="3"
      my="2"
      bg="sheet"
    >
      <Box fontSize="22px" fontWeight="650" lineHeight="1.25">
        {number}. {step.title}
        {gate && <span className="gate-tag">gate before {STAGE_WORDS[GATE_TABLE[gate].before]}</span>}
      </Box>
      {step.caution && (
        <Box my="2" fontSize="18px">
          <Caution>{step.caution}</Caution>
        </Box>
      )}
      {step.why && (
        <Box color="soft" fontSize="16px">
          {step.why}
          {step.minutes ? ` About ${step.minutes} min.` : ''}
        </Box>
      )}
      {lines.map(([name, items]) =>
        items.length > 0 ? (
          <Box key={name} fontSize="16px">
            {name}: {items.join('; ')}
          </Box>
        ) : null,
      )}
      {step.asks.map((ask) => (
        <Answer key={ask.key} floor={floor} target={target} ask={ask} link={links[ask.kind]} />
      ))}
      <FoundOnArrival floor={floor} target={target} />
      {told.length > 0 && (
        <Box role="alert" color="wrong.ink" mt="2" fontSize="17px">
          {told.map((fault) => (
            <div key={fault}>{fault}</div>
          ))}
        </Box>
      )}
      <Flex gap="2" wrap="wrap" mt="3">
        {state === 'open' ? (
          <>
            <Press main onPress={() => mark('done')}>
              Done
            </Press>
            <Press chosen={refusing} onPress={() => setRefusing(!refusing)}>
              Not done…
            </Press>
          </>
        ) : (
          <Press onPress={() => mark('open')}>Open it again</Press>
        )}
      </Flex>
      {refusing && state === 'open' && (
        <NotDone floor={floor} target={target} isGate={gate !== null} onSaid={() => mark('not_done')} />
      )}
    </Box>
  );
}
