import { DndContext } from '@dnd-kit/core';
import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { Placing } from '../../src/core/planning/board';
import type { BoardJob } from '../../src/core/planning/board-week';
import type { PlanProblem, PlanSlot } from '../../src/core/planning/plan-problem';
import { ChangeForm } from '../../src/ui/planning/change-form';
import { ChosenJob } from '../../src/ui/planning/chosen-job';
import { WaitingList } from '../../src/ui/planning/waiting-list';
import { draw } from './draw';

const [MON, TUE] = ['2026-11-16', '2026-11-17'];
const open = [MON, TUE].map((day) => ({ day, fromMin: 480, toMin: 960 }));
const planJob = (id: string) => ({
  ...{ id, name: `unit ${id}`, depot: 'Eastlight', minutes: 90, needsSkills: [], needsBay: [], allowed: null },
  ...{ kitFrom: null, coolFromMin: null, costByDay: [10, 20], costUnplanned: 200, pin: null, was: null },
});
/** Two bays, two people and two jobs on two days. */
const problem: PlanProblem = {
  days: [MON, TUE],
  bays: ['Bay 1', 'Bay 2'].map((name, i) => ({ id: `b${i + 1}`, name, depot: 'Eastlight', can: [], open })),
  people: ['A. Corrie', 'M. Vane'].map((name, i) => ({
    ...{ id: `p${i + 1}`, name, depots: ['Eastlight'], skills: [], shift: open },
  })),
  jobs: [planJob('15'), planJob('104')],
  moveCost: 20,
  currency: 'EUR',
  seconds: 1,
  seed: 1,
};
const slot: PlanSlot = { day: MON, bay: 'b1', person: 'p1', startMin: 510 };
const cost = (waiting: number) => ({ waiting, thrownAway: 5, downtime: 30, total: waiting + 35 });
const job = (over: Partial<BoardJob>): BoardJob => ({
  ...{ id: '15', unitNumber: '15', name: 'mobile library', components: ['plug'], workOrderId: null, vehicleId: 'v15' },
  ...{ number: null, minutes: 90, estimate: 90, likely: { fromMin: 70, toMin: 120 }, why: null, weekCost: 40 },
  ...{ weekly: [40, 40], costs: { byDay: [cost(0), cost(6)], weekly: [40, 40], unplanned: cost(160) } as never },
  ...{ short: [], coolFromMin: null, booking: null, isPinned: false, isBegun: false, isFinished: false, stop: null },
  ...{ progress: null as never, place: { slot, saves: 125, message: '' } as never },
  ...over,
});

/** The panel of one job, and what was asked for in it. */
function drawChosen(over: Partial<BoardJob> = {}, placing: Placing = new Map(), canMove = true) {
  const asked = { onMove: vi.fn(), onPin: vi.fn(), onClose: vi.fn() };
  const shown = job(over);
  const drawn = draw(
    <ChosenJob
      {...{ job: shown, problem, placing, canMove, ...asked }}
      today={MON as string}
      currency="EUR"
      goOn={null}
      isBusy={false}
      troubles={[]}
    />,
  );
  return { ...drawn, ...asked, shown };
}

describe('the panel of a job on the board', () => {
  it('says what each day costs, and plans a job that waits where it costs least', async () => {
    const { person, onMove, shown } = drawChosen();
    const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(rows.map((row) => row.textContent)).toEqual([
      'Mon 16 Nov€0€5€30€35',
      'Tue 17 Nov€6€5€30€41',
      'left out€160€5€30€195',
    ]);
    await person.click(screen.getByRole('button', { name: 'Plan on Mon 16 Nov 08:30, Bay 1, A. Corrie' }));
    expect(onMove).toHaveBeenCalledExactlyOnceWith(shown, slot);
  });

  it('says before a move by typing what the move breaks, and lets only a possible one be made', async () => {
    const { person, onMove, shown } = drawChosen(
      {},
      new Map([
        ['15', slot],
        ['104', { ...slot, bay: 'b2', person: 'p2' }],
      ]),
    );
    await person.click(screen.getByText('Move it by typing'));
    const move = screen.getByRole<HTMLButtonElement>('button', { name: 'Move' });
    expect(move.disabled).toBe(true);
    await person.selectOptions(screen.getByLabelText('Bay'), 'Bay 2');
    expect(screen.getByText(/^Cannot be:/)).toBeTruthy();
    expect(move.disabled).toBe(true);
    await person.clear(screen.getByLabelText('Start'));
    await person.type(screen.getByLabelText('Start'), '10:30');
    expect(screen.queryByText(/^Cannot be:/)).toBeNull();
    await person.click(move);
    expect(onMove).toHaveBeenCalledExactlyOnceWith(shown, { day: MON, bay: 'b2', person: 'p1', startMin: 630 });
  });

  it('reads no start that is none', async () => {
    const { person } = drawChosen({}, new Map([['15', slot]]));
    await person.click(screen.getByText('Move it by typing'));
    await person.clear(screen.getByLabelText('Start'));
    expect(screen.getByText('Cannot be: give the start as 08:30.')).toBeTruthy();
  });

  it('takes a job off the plan, pins one that is booked, and closes by its cross or Escape', async () => {
    const booking = { ...slot, version: 3 } as never;
    const { person, onMove, onPin, onClose, shown } = drawChosen({ booking }, new Map([['15', slot]]));
    await person.click(screen.getByRole('button', { name: 'Take off the plan' }));
    expect(onMove).toHaveBeenCalledExactlyOnceWith(shown, null);
    await person.click(screen.getByRole('button', { name: 'Pin it here' }));
    expect(onPin).toHaveBeenCalledExactlyOnceWith(shown);
    await person.click(screen.getByRole('button', { name: 'Close' }));
    await person.keyboard('{Escape}');
    expect(onClose).toHaveBeenCalledTimes(2);
  });

  it.each([
    ['is pinned', { isPinned: true }, true],
    ['has begun', { isBegun: true }, true],
    ['is looked at by somebody who may not plan', {}, false],
  ])('offers no move where the job %s', (_, over, canMove) => {
    drawChosen(over, new Map([['15', slot]]), canMove);
    expect(screen.queryByText('Move it by typing')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Take off the plan' })).toBeNull();
  });

  it('says where it is booked for less than it takes, and what is short', () => {
    drawChosen({ estimate: 150, short: [{ number: 'NL-3811', from: TUE as string }] }, new Map([['15', slot]]));
    expect(screen.getByText(/booked for 1:30 h, now estimated 2:30 h|booked for/)).toBeTruthy();
    expect(screen.getByText('NL-3811')).toBeTruthy();
  });
});

describe('what waits', () => {
  const drawWaiting = (jobs: readonly BoardJob[], canMove = true) => {
    const asked = { onChoose: vi.fn(), onPlace: vi.fn() };
    const drawn = draw(
      <DndContext>
        <WaitingList {...{ jobs, problem, canMove, ...asked }} currency="EUR" chosen={null} />
      </DndContext>,
    );
    return { ...drawn, ...asked };
  };
  const many = Array.from({ length: 14 }, (_, i) =>
    job({ id: `j${i}`, unitNumber: String(i), weekCost: i, vehicleId: `v${i}` }),
  );

  it('stands by what another week costs, the dearest first, the rest folded away', () => {
    drawWaiting(many);
    const units = screen.getAllByRole('listitem').map((item) => /^\d+/.exec(item.textContent ?? '')?.[0]);
    expect(units.slice(0, 3)).toEqual(['13', '12', '11']);
    expect(screen.getByText('2 more')).toBeTruthy();
  });

  it('is planned by one press where there is a place, else says why not', async () => {
    const { person, onPlace } = drawWaiting([
      job({}),
      job({
        id: '104',
        unitNumber: '104',
        place: { slot: null, saves: 0, message: 'No bay takes a hybrid.' } as never,
      }),
    ]);
    await person.click(screen.getByRole('button', { name: /^Plan on Mon 16 Nov/ }));
    expect(onPlace.mock.calls[0]?.[1]).toEqual(slot);
    expect(screen.getByText('No bay takes a hybrid.')).toBeTruthy();
  });

  it('cannot be planned by somebody who only looks', () => {
    drawWaiting([job({})], false);
    expect(screen.queryByRole('button', { name: /^Plan on/ })).toBeNull();
  });

  it('says so where nothing waits', () => {
    drawWaiting([]);
    expect(screen.getByText('Nothing waits: all that is due is on the plan.')).toBeTruthy();
  });
});

describe('a change that is tried out', () => {
  const drawChange = () => {
    const onAdd = vi.fn();
    const drawn = draw(<ChangeForm problem={problem} onAdd={onAdd} />);
    const add = () => drawn.person.click(screen.getByRole('button', { name: 'Add' }));
    return { ...drawn, onAdd, add };
  };

  it('is somebody away for some days, never until before the first', async () => {
    const { person, onAdd, add } = drawChange();
    await person.selectOptions(screen.getByLabelText('Person'), 'M. Vane');
    await person.selectOptions(screen.getByLabelText('from'), 'Tue 17 Nov');
    await add();
    expect(onAdd).toHaveBeenLastCalledWith({ kind: 'person_away', person: 'p2', from: TUE, to: TUE });
  });

  it.each([
    ['a bay more for a day', { kind: 'bay_more', depot: 'Eastlight', day: MON }],
    ['a bay closed', { kind: 'bay_closed', bay: 'b1', from: MON, to: MON }],
    ['a vehicle away', { kind: 'vehicle_away', job: '15', from: MON, to: MON }],
    ['parts that come late', { kind: 'parts_late', job: '15', until: MON }],
  ])('is %s', async (words, change) => {
    const { person, onAdd, add } = drawChange();
    await person.selectOptions(screen.getByLabelText('What if'), words);
    await add();
    expect(onAdd).toHaveBeenLastCalledWith(change);
  });
});
