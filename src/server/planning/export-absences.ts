import { timeOf } from '@/core/calendar/zone';
import { ok } from '@/core/shared/result';
import { toCsv } from '../exports/csv';
import { useCase } from '../use-case';
import { listAbsences } from './absences';

const COLUMNS = ['of', 'name', 'what', 'from', 'to', 'from_time', 'to_time', 'rule'] as const;

/** Absences in the columns of their import file. */
export const exportAbsences = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const list = await listAbsences(deps, actor);
    if (!list.ok) return list;
    const rows = list.value.map(({ of, name, what, fromDay, toDay, fromMin, toMin, rule }) => [
      of,
      of === 'vehicle' ? (/^unit (\S+)/.exec(name)?.[1] ?? name) : name,
      what,
      fromDay,
      toDay,
      fromMin === null ? '' : timeOf(fromMin),
      toMin === null ? '' : timeOf(toMin),
      rule ?? '',
    ]);
    return ok(toCsv([...COLUMNS], rows));
  },
});
