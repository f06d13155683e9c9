'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { type Ask, openCounts, waitLeft } from '@/core/work/ask';
import type { FloorStep } from '@/core/work/job-record';
import { countsIn, stepStateIn } from '@/core/work/order-model';
import { stepFaultsIn } from '@/core/work/order-rules';
import { answerField, countTarget, stepTarget } from '@/core/work/targets';
import { Caution } from '../../primitives/page';
import type { Floor } from '../sync/use-floor';
import { FieldHead, Press } from './parts';
import { PhotoRow } from './photo-row';

const STATE_SIGN = { open: '○', done: '✓', not_done: '✕' } as const;

const PHASE_WORDS: Readonly<Record<string, string>> = {
  prepare: 'Prepare',
  open: 'Open',
  plugs: 'At each place',
  close: 'Close',
  prove: 'Prove',
};

/** What keeps a step from being ticked; pictures that are not yet sent count. */
const faultsOf = ({ job, record, photos }: Floor, step: FloorStep): readonly string[] =>
  stepFaultsIn({ ...job, photos: [...job.photos, ...photos] }, record, step.key, Date.now());

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
                <Box pt="3" pb="1" fontWeight="650" color="soft">
                  {PHASE_WORDS[step.phase]}
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
            <Press main={false} onPress={() => mark('not_done')}>
              Not done
            </Press>
          </>
        ) : (
          <Press onPress={() => mark('open')}>Open it again</Press>
        )}
      </Flex>
    </Box>
  );
}

function Answer({ floor, target, ask, link }: { floor: Floor; target: string; ask: Ask; link?: string }) {
  const { record, set, edit, job } = floor;
  const field = answerField(ask.key);
  const value = String(record[target]?.[field] ?? '');
  switch (ask.kind) {
    case 'choice':
      return (
        <Box role="group" aria-label={ask.what}>
          <FieldHead name={ask.what} />
          <Flex gap="2" wrap="wrap">
            {ask.choices?.map((choice) => (
              <Press key={choice} chosen={value === choice} onPress={() => set(target, field, choice)}>
                {choice}
              </Press>
            ))}
          </Flex>
        </Box>
      );
    case 'count':
      return <Count floor={floor} ask={ask} />;
    case 'wait':
      return <Wait ask={ask} begun={value} onBegin={() => set(target, field, new Date().toISOString())} />;
    case 'parts':
      return (
        <Box mt="2" fontSize="17px">
          {ask.what}: on the parts page above
        </Box>
      );
    case 'codes':
    case 'photo':
    case 'odometer':
    case 'text':
    case 'follow_up':
      return (
        <Box>
          <label>
            <FieldHead name={ask.what} />
            <chakra.input
              value={value}
              onFocus={() => edit(target, field)}
              onBlur={() => edit(null)}
              onChange={(event) => set(target, field, event.target.value)}
              w="100%"
              minH="48px"
              px="3"
              bg="paper"
              border="1px solid"
              borderColor="line"
              rounded="sm"
              fontSize="18px"
            />
          </label>
          {ask.kind === 'photo' && <PhotoRow target={target} job={job} waiting={floor.photos} onAdd={floor.addPhoto} />}
          {ask.kind === 'codes' && (
            <chakra.a href={link} color="action" textDecoration="underline" display="inline-block" py="2">
              {job.codesKept.includes(ask.key) ? '✓ kept by the code reader' : 'To the code reader'}
            </chakra.a>
          )}
          {ask.kind === 'follow_up' && (
            <chakra.a href={link} color="action" textDecoration="underline" display="inline-block" py="2">
              Make a follow-up
            </chakra.a>
          )}
        </Box>
      );
  }
}

const clock = (ms: number): string => new Date(ms).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
const TICK_MS = 5_000;

/** A wait that the device times: it goes on while other steps are done, and outlives a reload. */
function Wait({ ask: { what, minutes = 0 }, begun, onBegin }: { ask: Ask; begun: string; onBegin: () => void }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  const left = waitLeft(begun, minutes, now);
  const over = Date.parse(begun) + minutes * 60_000;
  return (
    <Box role="group" aria-label={what}>
      <FieldHead name={`${what}, ${minutes} min`} />
      <Flex gap="3" align="center" wrap="wrap">
        {left !== null && (
          <Box role="timer" fontSize="20px" fontWeight="650">
            {left > 0 ? `${left} min left, until ${clock(over)}` : `✓ ${minutes} min are over`}
          </Box>
        )}
        <Press onPress={onBegin}>{left === null ? `Begin the ${minutes} min` : 'Begin again'}</Press>
      </Flex>
    </Box>
  );
}

const wentOut = (out: number | null): string => (out === null ? 'not counted out yet' : `${out} went out`);
const shouldBe = (expected: number | null): string =>
  expected === null ? 'as many as there are' : `there should be ${expected}`;

/** Counted out, counted back: presses up and down from what there should be. */
function Count({ floor, ask }: { floor: Floor; ask: Ask }) {
  const { job } = floor;
  const [side = 'out', row = ''] = ask.key.split(':');
  const count = countsIn(job, floor.record).find(({ key }) => key === row);
  if (!count) return null;
  const field = side === 'back' ? 'back' : 'out';
  const now = count[field];
  const offered = field === 'back' ? count.out : count.expected;
  const put = (value: number) => floor.set(countTarget(row), field, Math.max(0, Math.min(200, value)));
  return (
    <Box role="group" aria-label={ask.what}>
      <FieldHead name={ask.what} known={field === 'back' ? wentOut(count.out) : shouldBe(count.expected)} />
      <Flex gap="2" align="center">
        <Press onPress={() => put((now ?? 1) - 1)} label={`${ask.what}: one less`}>
          −
        </Press>
        <Box fontSize="24px" fontWeight="700" minW="56px" textAlign="center" role="status">
          {now ?? '–'}
        </Box>
        <Press onPress={() => put((now ?? 0) + 1)} label={`${ask.what}: one more`}>
          +
        </Press>
        {now === null && offered !== null && <Press onPress={() => put(offered)}>{offered} counted</Press>}
      </Flex>
    </Box>
  );
}
