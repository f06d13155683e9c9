'use client';

import { Box, Flex } from '@chakra-ui/react';
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
import { Answer, FoundOnArrival, NotDone, NoteForNext } from './step-answers';

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

interface StepsProps {
  readonly floor: Floor;
  readonly onCodes: string;
  readonly onFollowUp: string;
  /** What is open before the places is done: on to them. */
  readonly onSites: () => void;
}

/** The steps in their order, phase by phase: the one in hand large, a phase that is said shut. */
export function StepPanel({ floor, onCodes, onFollowUp, onSites }: StepsProps) {
  const { job } = floor;
  const [chosen, setChosen] = useState<string | null>(null);
  const isOpen = (step: FloorStep): boolean => !step.perSite && stepStateIn(floor.record, step.key) === 'open';
  const inHand = job.steps.find(({ key }) => key === chosen) ?? job.steps.find(isOpen) ?? null;
  const counts = openCounts(countsIn(job, floor.record).filter(({ out }) => out !== null));
  const phases = [...new Set(job.steps.map(({ phase }) => phase ?? 'prepare'))];
  const links = { codes: onCodes, follow_up: onFollowUp };
  return (
    <Box>
      {phases.map((phase) => {
        const steps = job.steps.filter((step) => (step.phase ?? 'prepare') === phase);
        const open = steps.filter(isOpen).length;
        return (
          <details key={phase} className="phase-steps" open={open > 0 || steps.some(({ perSite }) => perSite)}>
            <summary>
              {PHASE_WORDS[phase]}
              <span>{open > 0 ? `${open} open` : `✓ ${steps.length === 1 ? 'said' : `all ${steps.length} said`}`}</span>
            </summary>
            <PhaseInOrder floor={floor} phase={phase} onSaid={phase === 'open' ? onSites : () => setChosen(null)} />
            <Box as="ol" listStyleType="none">
              {steps.map((step) => (
                <li key={step.key}>
                  {step.key === inHand?.key && !step.perSite ? (
                    <InHand {...{ floor, step, links }} onNext={() => setChosen(null)} />
                  ) : (
                    <StepRow floor={floor} step={step} onChoose={() => setChosen(step.key)} />
                  )}
                </li>
              ))}
            </Box>
          </details>
        );
      })}
      {counts.length > 0 && (
        <Box color="caution.ink" fontSize="16px" mt="3" role="status">
          Counts open: {counts.join(' ')}
        </Box>
      )}
    </Box>
  );
}

const numberOf = ({ job }: Floor, { key }: FloorStep): number => job.steps.findIndex((step) => step.key === key) + 1;

/** A step that is not in hand: one line, pressed to take it up. */
function StepRow({ floor, step, onChoose }: { floor: Floor; step: FloorStep; onChoose: () => void }) {
  const state = stepStateIn(floor.record, step.key);
  return (
    <button
      type="button"
      className="step-row"
      onClick={onChoose}
      data-said={state !== 'open' || undefined}
      disabled={step.perSite}
    >
      <span aria-hidden="true">{step.perSite ? '◇' : STATE_SIGN[state]}</span>
      <span>
        {numberOf(floor, step)}. {step.title}
        {gateOf(step.kind) && <span className="gate-tag">gate</span>}
        <Box as="span" srOnly>
          {step.perSite ? ', at its places' : `, ${state.replace('_', ' ')}`}
        </Box>
      </span>
    </button>
  );
}

function InHand({
  floor,
  step,
  links,
  onNext,
}: {
  floor: Floor;
  step: FloorStep;
  links: Readonly<Partial<Record<Ask['kind'], string>>>;
  onNext: () => void;
}) {
  const [told, setTold] = useState<readonly string[]>([]);
  const target = stepTarget(step.key);
  const state = stepStateIn(floor.record, step.key);
  const number = numberOf(floor, step);
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
      {step.kind === 'open' && <NoteForNext floor={floor} target={target} />}
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
