'use client';

import { useState } from 'react';
import { hoursText, moneyText } from '@/text/format';
import type { FormAction } from '../primitives/action-form';
import { SubmitButton } from '../primitives/button';
import { Form } from '../primitives/form';
import { ListFrame } from '../primitives/plain-table';

/** A proposed task, in words, with what is sent when it is taken. */
interface ProposedTask {
  /** What it is sent as: a task, or other work of the engine. */
  readonly name: 'take' | 'otherWork';
  /** The task as it is put on. */
  readonly value: string;
  readonly words: string;
  readonly reason: string;
  readonly minutes: number;
  /** Null: a price is not known. */
  readonly partsCost: number | null;
  readonly isTaken: boolean;
}

/** What belongs to the visit: one press takes or leaves each, and the sums follow. */
export function VisitForm({
  vehicleId,
  tasks,
  currency,
  labourPerHour,
  open,
}: {
  vehicleId: string;
  tasks: readonly ProposedTask[];
  currency: string;
  labourPerHour: number;
  open: FormAction;
}) {
  const [taken, setTaken] = useState<ReadonlySet<string>>(
    () => new Set(tasks.filter(({ isTaken }) => isTaken).map(({ value }) => value)),
  );
  const toggle = (value: string) =>
    setTaken((before) => {
      const after = new Set(before);
      if (!after.delete(value)) after.add(value);
      return after;
    });
  const chosen = tasks.filter(({ value }) => taken.has(value));
  const hasTask = chosen.some(({ name }) => name === 'take');
  const minutes = chosen.reduce((sum, task) => sum + task.minutes, 0);
  const parts = chosen.reduce((sum, task) => sum + (task.partsCost ?? 0), 0);
  const unknown = chosen.some(({ partsCost }) => partsCost === null);
  return (
    <Form action={open}>
      <input type="hidden" name="vehicleId" value={vehicleId} />
      <ListFrame>
        <table className="list visit-tasks" data-keep>
          <thead>
            <tr>
              <th scope="col">Take</th>
              <th scope="col">Task, and why</th>
              <th scope="col" className="figure">
                Adds
              </th>
              <th scope="col" className="figure">
                Parts
              </th>
            </tr>
          </thead>
          <tbody>
            {tasks.map((task) => (
              <tr key={task.value}>
                <td>
                  <input
                    type="checkbox"
                    name={task.name}
                    value={task.value}
                    checked={taken.has(task.value)}
                    onChange={() => toggle(task.value)}
                    aria-label={task.words}
                  />
                </td>
                <td>
                  <strong>{task.words}</strong>
                  <span className="second">{task.reason}</span>
                </td>
                <td className="figure">{hoursText(task.minutes)}</td>
                <td className="figure">{task.partsCost === null ? 'no price' : moneyText(task.partsCost, currency)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td />
              <td>
                <strong>{chosen.length === 0 ? 'Nothing taken' : `${chosen.length} taken`}</strong>
                <span className="second">
                  work at {moneyText(labourPerHour, currency)} an hour:{' '}
                  {moneyText((minutes / 60) * labourPerHour, currency)}
                </span>
              </td>
              <td className="figure strong">{hoursText(minutes)}</td>
              <td className="figure strong">
                {moneyText(parts, currency)}
                {unknown && ' and more'}
              </td>
            </tr>
          </tfoot>
        </table>
      </ListFrame>
      {hasTask && <SubmitButton main>Open the visit with what is taken</SubmitButton>}
    </Form>
  );
}
