'use client';

import { useDroppable } from '@dnd-kit/core';
import { nameOfDay, sayDay } from '@/core/calendar/day-names';
import type { PlainDate } from '@/core/calendar/plain-date';
import { timeTo24 } from '@/core/calendar/zone';
import { type Judgement, loadOf, type Placing } from '@/core/planning/board';
import type { BoardWeek } from '@/core/planning/board-week';
import type { PlanProblem, PlanSlot } from '@/core/planning/plan-problem';
import { type Bar, differenceText, inHours, type Lane, laneOf, PX_A_MINUTE, type Reading } from './board-shape';
import { JobBar } from './job-bar';

/** Where the job in hand would lie, with what that costs and breaks. */
export interface InHand {
  readonly job: string;
  readonly unitNumber: string;
  readonly minutes: number;
  readonly to: PlanSlot;
  readonly judgement: Judgement;
}

interface DayProps {
  readonly day: PlainDate;
  readonly problem: PlanProblem;
  readonly placing: Placing;
  readonly lanes: readonly Lane[];
  readonly bars: readonly Bar[];
  readonly hours: { readonly fromMin: number; readonly toMin: number };
  readonly reading: Reading;
  readonly isToday: boolean;
  readonly nowMin: number | null;
  readonly elsewhere: BoardWeek['elsewhere'];
  readonly away: BoardWeek['away'];
  readonly isShown: boolean;
  readonly chosen: string | null;
  readonly troubled: ReadonlySet<string>;
  readonly canMove: boolean;
  readonly inHand: InHand | null;
  readonly currency: string;
  readonly onChoose: (job: string) => void;
}

/** A day of the board: a lane for each bay or person. */
export function BoardDay(props: DayProps) {
  const { day, problem, placing, reading, lanes, isToday, isShown } = props;
  const all = reading === 'bays' ? problem.bays : problem.people;
  const loads = all.map((resource) => loadOf(problem, placing, day, resource));
  const taken = loads.reduce((sum, load) => sum + load.taken, 0);
  const open = loads.reduce((sum, load) => sum + load.open, 0);
  return (
    <section
      className="board-day"
      data-shown={isShown || undefined}
      data-today={isToday || undefined}
      aria-label={isToday ? `${sayDay(day)}, today` : sayDay(day)}
    >
      <header>
        <strong>
          {nameOfDay(day)} {Number(day.slice(8))}
        </strong>
        <span className="soft small" data-over={taken > open || undefined}>
          {inHours(taken)} of {inHours(open)} h
        </span>
      </header>
      <div className="lanes">
        {lanes.map((lane) => (
          <BoardLane key={lane.id} lane={lane} {...props} />
        ))}
      </div>
    </section>
  );
}

function BoardLane({ lane, ...props }: DayProps & { lane: Lane }) {
  const { day, bars, hours, reading, isToday, nowMin, inHand, problem, chosen, troubled, canMove, onChoose } = props;
  const { setNodeRef } = useDroppable({ id: `${day}|${lane.id}` });
  const ofLane = bars.filter(({ slot }) => slot.day === day && laneOf(slot, reading) === lane.id);
  const windows = lane.windows.filter((window) => window.day === day);
  const top = (minute: number): number => (minute - hours.fromMin) * PX_A_MINUTE;
  const others = reading === 'bays' ? problem.people : problem.bays;
  const landing = inHand?.to.day === day && laneOf(inHand.to, reading) === lane.id ? inHand : null;
  return (
    <div className="lane">
      <div className="lane-name" title={lane.name}>
        {lane.name}
      </div>
      <div
        className="lane-hours"
        ref={setNodeRef}
        style={{ height: top(hours.toMin) }}
        data-lane={`${day}|${lane.name}`}
      >
        {windows.length === 0 && (
          <span className="lane-closed">
            {awayText(props.away, lane.id, day) ?? (reading === 'bays' ? 'closed' : 'away')}
          </span>
        )}
        {windows.map((window) => (
          <div
            key={window.fromMin}
            className="lane-open"
            style={{
              top: top(window.fromMin),
              height: (window.toMin - window.fromMin) * PX_A_MINUTE,
              // Its lines are the hours, whenever it begins.
              backgroundPositionY: -(window.fromMin % 60) * PX_A_MINUTE,
            }}
          />
        ))}
        {reading === 'people' && <Elsewhere {...props} person={lane.id} />}
        {ofLane.map((bar) => (
          <Cooling key={bar.job.id} bar={bar} laneBars={ofLane} fromMin={hours.fromMin} />
        ))}
        {ofLane.map((bar) => (
          <JobBar
            key={bar.job.id}
            bar={bar}
            fromMin={hours.fromMin}
            other={nameOf(others, reading === 'bays' ? bar.slot.person : bar.slot.bay)}
            isChosen={chosen === bar.job.id}
            isTroubled={troubled.has(bar.job.id)}
            canMove={canMove}
            onChoose={() => onChoose(bar.job.id)}
          />
        ))}
        {isToday && nowMin !== null && nowMin > hours.fromMin && nowMin < hours.toMin && (
          <div className="lane-now" style={{ top: top(nowMin) }} />
        )}
        {landing && <Landing inHand={landing} top={top(landing.to.startMin)} currency={props.currency} />}
      </div>
    </div>
  );
}

/** Why a lane is closed that day, where somebody said so. */
const awayText = (away: BoardWeek['away'], id: string, day: PlainDate): string | null =>
  away.find((absence) => absence.id === id && absence.day === day)?.what ?? null;

/** What a person does at other depots. */
function Elsewhere({
  person,
  day,
  elsewhere,
  hours,
}: Pick<DayProps, 'day' | 'elsewhere' | 'hours'> & { person: string }) {
  return elsewhere
    .filter((visit) => visit.day === day && visit.person === person)
    .map(({ fromMin, toMin, depot }) => (
      <div
        key={fromMin}
        className="elsewhere"
        style={{ top: (fromMin - hours.fromMin) * PX_A_MINUTE, height: (toMin - fromMin) * PX_A_MINUTE }}
        title={`at ${depot}`}
      >
        at {depot}
      </div>
    ));
}

const nameOf = (list: readonly { readonly id: string; readonly name?: string }[], id: string): string =>
  list.find((item) => item.id === id)?.name ?? '';

/** Ends of cooling so near to the start are shown: farther ones decide nothing. */
const NEAR_MIN = 20;
/** So much of the cooling is drawn. */
const COOLING_MIN = 60;

/** Its engine cools until it may be begun. */
function Cooling({ bar, laneBars, fromMin }: { bar: Bar; laneBars: readonly Bar[]; fromMin: number }) {
  const { coolFromMin, isBegun, isFinished } = bar.job;
  if (
    coolFromMin === null ||
    isBegun ||
    isFinished ||
    Math.abs(bar.fromMin - coolFromMin - NEAR_MIN / 2) > NEAR_MIN / 2
  )
    return null;
  const before = Math.max(fromMin, ...laneBars.filter(({ toMin }) => toMin <= bar.fromMin).map(({ toMin }) => toMin));
  const from = Math.max(before, coolFromMin - COOLING_MIN);
  if (coolFromMin - from < NEAR_MIN) return null;
  return (
    <div
      className="cooling"
      style={{ top: (from - fromMin) * PX_A_MINUTE, height: (coolFromMin - from) * PX_A_MINUTE }}
    >
      <span>cooling</span>
    </div>
  );
}

function Landing({ inHand, top, currency }: { inHand: InHand; top: number; currency: string }) {
  const { judgement, minutes, to, unitNumber } = inHand;
  const isWrong = judgement.breaks.length > 0;
  return (
    <div className="landing" data-wrong={isWrong || undefined} style={{ top, height: minutes * PX_A_MINUTE }}>
      <div>
        <strong>
          {unitNumber} {timeTo24(to.startMin)}
        </strong>
        <div>{isWrong ? 'cannot be here' : differenceText(judgement.difference, currency)}</div>
      </div>
    </div>
  );
}
