import { deps } from '@/server/deps';
import { removeAbsence } from '@/server/planning/absences';
import { reply, route } from '../../http';

/** Takes an absence back. */
export const DELETE = route<{ id: string }>(async ({ actor, params }) =>
  reply(await removeAbsence(deps(), actor, { absenceId: params.id }), () => ({ removed: true })),
);
