import type { FleetId, PersonId } from '@/core/shared/kinds';
import { ROLES, type Role } from '@/core/shared/role';
import { type Failure, fail } from './failure';

/** Who is asking. Every use-case takes one. */
export interface Actor {
  readonly personId: PersonId;
  readonly fleetId: FleetId;
  readonly name: string;
  readonly role: Role;
  readonly unitSystem: 'metric' | 'us';
}

const EVERYONE: readonly Role[] = ROLES;
const SUPERVISOR: readonly Role[] = ['supervisor'];

/** What each role may do. What is not listed is refused. */
const ALLOWED = {
  'read the fleet': EVERYONE,
  'change own settings': EVERYONE,
  'make access tokens': SUPERVISOR,
  'import data': ['supervisor', 'parts_clerk'],
  'manage people': SUPERVISOR,
  'manage bays': SUPERVISOR,
  'answer fitment questions': ['supervisor', 'parts_clerk'],
  'enter catalogue data': ['supervisor', 'parts_clerk'],
  'check spec sheets': ['supervisor', 'technician', 'parts_clerk'],
  'receive parts': ['supervisor', 'parts_clerk'],
  'resolve quarantined parts': SUPERVISOR,
  'ban sellers': SUPERVISOR,
  'run trials': SUPERVISOR,
  'choose shop policies': SUPERVISOR,
  'keep bench results': ['supervisor', 'technician', 'parts_clerk'],
  'manage wrenches': SUPERVISOR,
  'record odometer readings': ['supervisor', 'technician'],
  'resolve odometer readings': ['supervisor', 'parts_clerk'],
  'open work orders': SUPERVISOR,
  'defer work': SUPERVISOR,
  'set costs': SUPERVISOR,
  'plan work orders': SUPERVISOR,
  'report misfires': EVERYONE,
  'record work': ['supervisor', 'technician'],
  'decide on findings that stop work': SUPERVISOR,
  'grade trainer plugs': ['supervisor', 'technician', 'parts_clerk'],
  'release sites': SUPERVISOR,
  'lift gates': SUPERVISOR,
  'sign off work orders': SUPERVISOR,
  'reopen or cancel work orders': SUPERVISOR,
} as const satisfies Record<string, readonly Role[]>;

export type Permission = keyof typeof ALLOWED;

export function may(actor: Pick<Actor, 'role'>, permission: Permission): boolean {
  const roles: readonly Role[] = ALLOWED[permission];
  return roles.includes(actor.role);
}

const ROLE_NAMES: Readonly<Record<Role, string>> = {
  supervisor: 'supervisor',
  technician: 'technician',
  parts_clerk: 'parts clerk',
  viewer: 'viewer',
};

export const roleName = (role: Role): string => ROLE_NAMES[role];

/** Null when allowed; else the refusal to hand back. */
export function refusal(actor: Actor, permission: Permission): ReturnType<typeof fail> | null {
  if (may(actor, permission)) return null;
  const roles: readonly Role[] = ALLOWED[permission];
  return fail(
    'forbidden' satisfies Failure['kind'],
    `A ${roleName(actor.role)} may not ${permission}. Ask a ${roles.map(roleName).join(' or ')}.`,
  );
}
