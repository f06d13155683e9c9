import { Box, chakra, Flex } from '@chakra-ui/react';
import { type ReactNode, useEffect, useId, useState } from 'react';
import { type Ask, waitLeft } from '@/core/work/ask';
import { headNow, USUAL_COOLING_MIN } from '@/core/work/cooling';
import { countsIn } from '@/core/work/order-model';
import { answerField, countTarget } from '@/core/work/targets';
import { countText } from '@/text/format';
import type { Floor } from '../sync/use-floor';
import { FieldHead, Press } from './parts';
import { PhotoRow } from './photo-row';

/* What a step asks for, each in the way that suits a glove. */

/** A line of text that is kept as it is typed. */
function Line({
  floor: { record, set, edit },
  target,
  field,
  name,
  isFigure = false,
  known,
}: {
  floor: Floor;
  target: string;
  field: string;
  name: string;
  isFigure?: boolean;
  known?: string;
}) {
  return (
    <label>
      <FieldHead name={name} known={known} />
      <chakra.input
        inputMode={isFigure ? 'decimal' : undefined}
        value={String(record[target]?.[field] ?? '')}
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
  );
}

/** What was missing or broken before anybody began: kept apart from what breaks today, and not charged to who says it. */
export function FoundOnArrival({ floor, target }: { floor: Floor; target: string }) {
  const field = answerField('found');
  const answer = String(floor.record[target]?.[field] ?? '');
  return (
    <Box as="details" mt="2" fontSize="16px">
      <summary>Missing or broken on arrival{answer && `: ${answer}`}</summary>
      <Line floor={floor} target={target} field={field} name="What was missing or broken when you came to it" />
      <PhotoRow target={target} job={floor.job} waiting={floor.photos} onAdd={floor.addPhoto} />
    </Box>
  );
}

/** What the next one at this item should know: it comes with the step on later orders of this engine. */
export function NoteForNext({ floor, target }: { floor: Floor; target: string }) {
  const field = answerField('note');
  const answer = String(floor.record[target]?.[field] ?? '');
  return (
    <Box as="details" mt="1" fontSize="16px">
      <summary>Note for the next at this engine{answer && `: ${answer}`}</summary>
      <Line floor={floor} target={target} field={field} name="What whoever does this next should know" />
    </Box>
  );
}

const REASONS = ['not needed on this vehicle', 'no tool for it today', 'stopped, goes on another day'] as const;

/** Why a step is not done: without a reason it stays open. */
export function NotDone({
  floor,
  target,
  isGate,
  onSaid,
}: {
  floor: Floor;
  target: string;
  isGate: boolean;
  onSaid: () => void;
}) {
  const field = answerField('why');
  const why = String(floor.record[target]?.[field] ?? '').trim();
  const id = useId();
  return (
    <Box role="group" aria-labelledby={id} mt="2">
      <Box id={id} fontSize="17px">
        Why is it not done?{isGate && ' It is a gate: what comes after it waits for a supervisor.'}
      </Box>
      <Flex gap="2" wrap="wrap" mt="1">
        {REASONS.map((reason) => (
          <Press key={reason} chosen={why === reason} onPress={() => floor.set(target, field, reason)}>
            {reason}
          </Press>
        ))}
      </Flex>
      <Line floor={floor} target={target} field={field} name="or in your words" />
      <Box mt="2">
        <Press disabled={why === ''} onPress={onSaid}>
          Mark as not done
        </Press>
      </Box>
    </Box>
  );
}

/** The unit of a bare figure. */
const FIGURE_UNITS: Readonly<Partial<Record<Ask['kind'], string>>> = { celsius: '°C', torque: 'N·m' };

/** One ask of a step. */
export function Answer({ floor, target, ask, link }: { floor: Floor; target: string; ask: Ask; link?: string }) {
  const { record, set, job } = floor;
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
    case 'each':
      return <Each ask={ask} said={value} onChange={(next) => set(target, field, next)} />;
    case 'clock':
      return <ShutOff floor={floor} target={target} ask={ask} />;
    case 'wait':
      return <Wait ask={ask} begun={value} onBegin={() => set(target, field, new Date().toISOString())} />;
    case 'parts':
      return (
        <Box mt="2" fontSize="17px">
          {ask.what}: on the parts page above
        </Box>
      );
    case 'codes':
      return <Codes floor={floor} target={target} ask={ask} link={link} />;
    case 'photo':
    case 'odometer':
    case 'celsius':
    case 'torque':
    case 'text':
    case 'follow_up':
      return (
        <Box>
          <Line
            floor={floor}
            target={target}
            field={field}
            name={FIGURE_UNITS[ask.kind] ? `${ask.what}, ${FIGURE_UNITS[ask.kind]}` : ask.what}
            isFigure={ask.kind in FIGURE_UNITS || ask.kind === 'odometer'}
            known={ask.key === 'from' ? lastRead(job) : undefined}
          />
          {ask.kind === 'photo' && <PhotoRow target={target} job={job} waiting={floor.photos} onAdd={floor.addPhoto} />}
          {ask.kind === 'follow_up' && <DeskLink href={link}>Make a follow-up</DeskLink>}
        </Box>
      );
  }
}

const lastRead = ({ dash }: Floor['job']): string | undefined =>
  dash ? `last read ${countText(dash.shown)} ${dash.unit}` : undefined;

const DeskLink = ({ href, children }: { href?: string; children: ReactNode }) => (
  <chakra.a href={href} color="action" textDecoration="underline" display="inline-block" py="2">
    {children}
  </chakra.a>
);

/** Codes: asked of the reader at once where one is connected, else typed. */
function Codes({ floor, target, ask, link }: { floor: Floor; target: string; ask: Ask; link?: string }) {
  const { job, readCodes } = floor;
  const moment = ask.key === 'after' ? 'after' : 'before';
  if (job.codesKept.includes(ask.key))
    return (
      <Box fontSize="17px" mt="2">
        ✓ {ask.what} kept. <DeskLink href={link}>See them</DeskLink>
      </Box>
    );
  return (
    <Box>
      {job.hasCodeReader && (
        <Box mt="2">
          <Press onPress={() => readCodes(moment, target)}>Read the {ask.what} with the code reader</Press>
        </Box>
      )}
      <Line
        floor={floor}
        target={target}
        field={answerField(ask.key)}
        name={`${ask.what}, typed: “none” is an answer too`}
      />
      <DeskLink href={link}>To the page of codes</DeskLink>
    </Box>
  );
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

/** One press for each, in one row; all of them by the first. */
function Each({ ask, said, onChange }: { ask: Ask; said: string; onChange: (said: string) => void }) {
  const choices = ask.choices ?? [];
  const on = new Set(said.split(' ').filter(Boolean));
  const flip = (choice: string): string =>
    choices.filter((own) => (own === choice ? !on.has(own) : on.has(own))).join(' ');
  return (
    <Box role="group" aria-label={ask.what}>
      <FieldHead name={ask.what} known={on.size === choices.length ? 'every one' : `${on.size} of ${choices.length}`} />
      <Flex gap="2" wrap="wrap">
        <Press chosen={on.size === choices.length} onPress={() => onChange(choices.join(' '))}>
          every one
        </Press>
        {choices.map((choice) => (
          <Press key={choice} chosen={on.has(choice)} onPress={() => onChange(flip(choice))}>
            {choice}
          </Press>
        ))}
      </Flex>
    </Box>
  );
}

const AGO = [
  ['just now', 0],
  ['half an hour ago', 30],
  ['an hour ago', 60],
  ['two hours ago', 120],
  ['yesterday', 900],
] as const;

/** Since when it cools, and when it is cold by estimate. */
function ShutOff({ floor: { record, set }, target, ask }: { floor: Floor; target: string; ask: Ask }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  const answerOf = (key: string): string => String(record[target]?.[answerField(key)] ?? '');
  const cooling = { shutAt: answerOf('shut'), outside: answerOf('outside'), head: answerOf('head') };
  const head = headNow(cooling, ask.minutes ?? USUAL_COOLING_MIN, now);
  return (
    <Box role="group" aria-label={`${ask.what}, if it was running`}>
      <FieldHead name={`${ask.what}, if it was running`} known="an estimate; a measured head stands above it" />
      <Flex gap="2" wrap="wrap">
        {AGO.map(([words, minutes]) => (
          <Press
            key={words}
            onPress={() => set(target, answerField('shut'), new Date(Date.now() - minutes * 60_000).toISOString())}
          >
            {words}
          </Press>
        ))}
      </Flex>
      {head && (
        <Box role="timer" fontSize="20px" fontWeight="650" mt="1">
          {head.by === 'measure' ? 'Head at' : 'Head at about'} {Math.round(head.headC)} °C:{' '}
          {head.coldInMin === 0 ? '✓ cold' : `cold at about ${clock(now + head.coldInMin * 60_000)}`}
        </Box>
      )}
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
