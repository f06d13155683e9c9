import { randomUUID } from 'node:crypto';
import { verifyPassword } from 'better-auth/crypto';
import { eq, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { importSamples } from '../../demo/load';
import { addPersonForm } from '../../src/contracts/forms/people';
import { ROLES } from '../../src/core/shared/role';
import { account, people, session } from '../../src/db/schema';
import { type Actor, may, refusal } from '../../src/server/access';
import { listTokens, makeToken, revokeToken } from '../../src/server/auth/access-tokens';
import { findActor } from '../../src/server/auth/find-actor';
import { changeOwnPassword, rescueSupervisor, resetPassword, weaknessOf } from '../../src/server/auth/passwords';
import { signIn } from '../../src/server/auth/sign-in';
import { addBay, changeBay, listBays, listDepots, removeBay } from '../../src/server/fleet/bays';
import { createFirstSupervisor, isFirstRun } from '../../src/server/fleet/first-run';
import { addPerson, changeOwnSettings, changePerson, listPeople } from '../../src/server/fleet/people';
import { demoWorkspace, emptyWorkspace, inRole, value, type Workspace } from '../builders/workspace';

const first = (name: string) => ({
  fleetName: 'Test fleet',
  name,
  email: `${name.toLowerCase()}@example.org`,
  password: 'a long password',
});
const person = (name: string, over: object = {}) =>
  addPersonForm.schema.parse({ ...first(name), role: 'technician', ...over });

let w: Workspace;
let actor: Actor;
beforeAll(async () => {
  process.env.ISOBAR_SECRET ??= 'only-for-tests-0123456789abcdef0123';
  w = await emptyWorkspace();
});

const row = async (name: string) => {
  const found = value(await listPeople(w.deps, actor)).find((p) => p.name === name);
  if (!found) throw new Error(`nobody called ${name}`);
  return found;
};
const change = async (name: string, over: object) => {
  const { id, version, role, hybridQualified, active } = await row(name);
  return changePerson(w.deps, actor, { personId: id, version, role, hybridQualified, active, ...over });
};
const bearer = (token: string) => new Headers({ Authorization: `Bearer ${token}` });

describe('first run', () => {
  it('makes one fleet and one supervisor, even when two people try at once', async () => {
    expect(await isFirstRun(w.deps)).toBe(true);
    const tries = await Promise.all(['Anna', 'Bert', 'Cleo'].map((name) => createFirstSupervisor(w.deps, first(name))));
    const made = tries.filter((t) => t.ok);
    expect(made).toHaveLength(1);
    expect(tries.filter((t) => !t.ok).every((t) => !t.ok && t.error.kind === 'forbidden')).toBe(true);
    if (made[0]?.ok) actor = made[0].value;
    expect(await isFirstRun(w.deps)).toBe(false);
    expect(value(await listPeople(w.deps, actor))).toMatchObject([{ role: 'supervisor', active: true }]);
  });

  it('keeps a salted hash, never the password', async () => {
    const hashes = await w.deps.db.select({ password: account.password }).from(account);
    expect(hashes.every(({ password }) => password !== null && /^[0-9a-f]{32}:[0-9a-f]{128}$/.test(password))).toBe(
      true,
    );
  });
});

describe('people', () => {
  it('are added by a supervisor, each address once', async () => {
    value(await addPerson(w.deps, actor, person('Dora', { hybridQualified: true })));
    expect(await addPerson(w.deps, actor, person('DORA'))).toMatchObject({
      ok: false,
      error: { fields: { email: expect.any(String) } },
    });
    expect(value(await listPeople(w.deps, actor)).map((p) => p.name)).toContain('Dora');
    for (const role of ['technician', 'parts_clerk', 'viewer'] as const) {
      expect(await addPerson(w.deps, inRole(actor, role), person('Eve'))).toMatchObject({
        ok: false,
        error: { kind: 'forbidden' },
      });
    }
  });

  it.each([
    [{ password: 'short' }, 'password'],
    [{ email: 'nobody' }, 'email'],
    [{ name: '  ' }, 'name'],
    [{ role: 'owner' }, 'role'],
  ])('refuses %j', (over, field) => {
    const parsed = addPersonForm.schema.safeParse({ ...first('Fred'), role: 'viewer', ...over });
    expect(parsed.success ? [] : parsed.error.issues.map((issue) => issue.path[0])).toContain(field);
  });

  it('always leave one supervisor', async () => {
    const own = (await w.deps.db.select().from(people).where(eq(people.id, actor.personId)))[0]?.name ?? '';
    for (const over of [{ active: false }, { role: 'viewer' }])
      expect(await change(own, over)).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    value(await change('Dora', { role: 'supervisor' }));
    value(await change('Dora', { role: 'technician' }));
  });

  it('are changed once for each look at them', async () => {
    const { id, version, role, hybridQualified } = await row('Dora');
    const input = { personId: id, version, role, hybridQualified, active: true };
    const tries = await Promise.all([changePerson(w.deps, actor, input), changePerson(w.deps, actor, input)]);
    expect(tries.map((t) => t.ok).sort()).toEqual([false, true]);
  });

  it('choose their own units, and nobody else’s', async () => {
    value(await changeOwnSettings(w.deps, { ...actor, role: 'viewer' }, { unitSystem: 'us' }));
    const found = await w.deps.db.select({ id: people.id, units: people.unitSystem }).from(people);
    expect(found.filter((p) => p.units === 'us').map((p) => p.id)).toEqual([actor.personId]);
    value(await changeOwnSettings(w.deps, actor, { unitSystem: 'metric' }));
  });
});

describe('passwords', () => {
  const hashOf = async (personId: string) => {
    const [row] = await w.deps.db
      .select({ hash: account.password, userId: people.userId })
      .from(people)
      .innerJoin(account, eq(account.userId, people.userId))
      .where(eq(people.id, personId));
    return row;
  };
  const matches = async (personId: string, password: string) =>
    verifyPassword({ hash: (await hashOf(personId))?.hash ?? '', password });
  const signedIn = async (personId: string) => {
    const userId = (await hashOf(personId))?.userId ?? '';
    await w.deps.db
      .insert(session)
      .values({ id: randomUUID(), token: randomUUID(), userId, expiresAt: new Date(Date.now() + 1e6) });
    return () => w.deps.db.$count(session, eq(session.userId, userId));
  };

  it.each(['1234567890', 'password123', 'qwertyuiop', 'aaaaaaaaaaaa'])('refuse %s', (text) => {
    expect(weaknessOf(text, [])).not.toBeNull();
  });

  it('refuse what everyone knows of the person, and take words that go together nowhere', async () => {
    expect(weaknessOf('skerrymoor', ['Skerrymoor Island Services'])).not.toBeNull();
    expect(weaknessOf('gravel-otter-lantern', [])).toBeNull();
    expect(await addPerson(w.deps, actor, person('Ida', { password: 'iloveyou12' }))).toMatchObject({
      error: { kind: 'invalid', fields: { password: expect.any(String) } },
    });
  });

  it('are changed by their owner, who names the one of now, and every device signs in again', async () => {
    const dora = { ...actor, role: 'technician' as const, personId: (await row('Dora')).id, name: 'Dora' };
    const sessions = await signedIn(dora.personId);
    const password = 'gravel-otter-lantern';
    expect(await changeOwnPassword(w.deps, dora, { current: 'not it at all', password })).toMatchObject({
      error: { fields: { current: expect.any(String) } },
    });
    expect(await sessions()).toBe(1);
    value(await changeOwnPassword(w.deps, dora, { current: first('Dora').password, password }));
    expect([await matches(dora.personId, password), await sessions()]).toEqual([true, 0]);
  });

  it('are reset by a supervisor alone, within the fleet', async () => {
    const { id: personId } = await row('Dora');
    const input = { personId, password: 'copper-wharf-thimble' };
    expect(await resetPassword(w.deps, inRole(actor, 'technician'), input)).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await resetPassword(w.deps, { ...actor, fleetId: randomUUID() }, input)).toMatchObject({
      error: { kind: 'not-found' },
    });
    value(await resetPassword(w.deps, actor, input));
    expect(await matches(personId, input.password)).toBe(true);
  });

  it('of the last supervisor are given anew from the terminal, whoever locked them out', async () => {
    const own = (await w.deps.db.select().from(people).where(eq(people.id, actor.personId)))[0]?.name ?? '';
    await w.deps.db.update(people).set({ active: false }).where(eq(people.id, actor.personId));
    const rescue = (email: string) => w.deps.db.transaction((tx) => rescueSupervisor(tx, email, 'ledger-moth-quarry'));
    expect(await rescue('dora@example.org')).toBeNull();
    expect(await rescue(first(own).email.toUpperCase())).toBe(own);
    expect(await matches(actor.personId, 'ledger-moth-quarry')).toBe(true);
    expect((await row(own)).active).toBe(true);
  });
});

describe('tokens', () => {
  it('let a program in as the person who made them, until revoked', async () => {
    const { token } = value(await makeToken(w.deps, actor, { name: 'feed' }));
    expect(await findActor(w.deps, bearer(token))).toMatchObject({ personId: actor.personId, role: 'supervisor' });
    expect(await findActor(w.deps, bearer(`${token}x`))).toBeNull();
    const { rows } = await w.deps.db.execute(
      sql`select count(*)::int as n from api_tokens where token_sha256 like ${`%${token}%`}`,
    );
    expect(rows[0]?.n).toBe(0);
    const [listed] = value(await listTokens(w.deps, actor));
    value(await revokeToken(w.deps, actor, listed?.id ?? ''));
    expect(await findActor(w.deps, bearer(token))).toBeNull();
    expect(await revokeToken(w.deps, actor, listed?.id ?? '')).toMatchObject({
      ok: false,
      error: { kind: 'not-found' },
    });
  });

  it('end with the person, and so do the sessions', async () => {
    value(await change('Dora', { role: 'supervisor' }));
    const dora = await row('Dora');
    const { token } = value(await makeToken(w.deps, { ...actor, personId: dora.id }, { name: 'hers' }));
    const [{ userId } = { userId: null }] = await w.deps.db
      .select({ userId: people.userId })
      .from(people)
      .where(eq(people.id, dora.id));
    await w.deps.db
      .insert(session)
      .values({ id: 's1', token: 't1', userId: userId ?? '', expiresAt: new Date('2099-01-01') });
    value(await change('Dora', { active: false }));
    expect(await findActor(w.deps, bearer(token))).toBeNull();
    expect(await w.deps.db.select().from(session).where(eq(session.id, 's1'))).toEqual([]);
  });
});

describe('signing in', () => {
  it('gives nothing away about an address, and slows down guessing', async () => {
    const attempt = (email: string) => signIn(w.deps, { email, password: 'wrong wrong wrong' }, new Headers());
    const known = await attempt('dora@example.org');
    const unknown = await attempt('nobody@example.org');
    expect(known).toEqual(unknown);
    for (let i = 0; i < 8; i++) await attempt('nobody@example.org');
    expect(await attempt('nobody@example.org')).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining('Wait 15 minutes') },
    });
    expect(await attempt('other@example.org')).toEqual(unknown);
  });
});

describe('bays', () => {
  it('belong to a depot of this fleet, each name once', async () => {
    await importSamples(w.deps, actor);
    const [depot] = value(await listDepots(w.deps, actor));
    value(await addBay(w.deps, actor, { depotId: depot?.id ?? '', name: 'Bay 7' }));
    expect(await addBay(w.deps, actor, { depotId: depot?.id ?? '', name: 'Bay 7' })).toMatchObject({
      ok: false,
      error: { kind: 'invalid' },
    });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await addBay(w.deps, stranger, { depotId: depot?.id ?? '', name: 'Bay 2' })).toMatchObject({
      ok: false,
      error: { kind: 'not-found' },
    });
    expect(value(await listBays(w.deps, stranger))).toEqual([]);
    expect(value(await listBays(w.deps, actor)).filter(({ name }) => name === 'Bay 7')).toHaveLength(1);
  });

  it('are renamed with what is booked in them, and taken away only when nothing is', async () => {
    const demo = await demoWorkspace();
    const { deps, supervisor } = demo;
    const bay = async (name: string) =>
      value(await listBays(deps, supervisor)).find((one) => `${one.depot} ${one.name}` === name)?.id ?? '';
    const booked = await bay('Northhaven Bay 1');
    expect(await changeBay(deps, supervisor, { bayId: booked, name: 'Bay 2' })).toMatchObject({
      error: { kind: 'invalid', fields: { name: expect.any(String) } },
    });
    value(await changeBay(deps, supervisor, { bayId: booked, name: 'Long bay' }));
    expect(await bay('Northhaven Long bay')).toBe(booked);
    expect(await removeBay(deps, supervisor, { bayId: booked })).toMatchObject({
      error: { kind: 'conflict', message: expect.stringContaining('Long bay has a booking') },
    });
    const depotId = value(await listDepots(deps, supervisor))[0]?.id ?? '';
    const { bayId } = value(await addBay(deps, supervisor, { depotId, name: 'Bay 9' }));
    const stranger = { ...supervisor, fleetId: '00000000-0000-4000-8000-000000000000' };
    for (const [who, kind] of [
      [stranger, 'not-found'],
      [inRole(supervisor, 'technician'), 'forbidden'],
    ] as const) {
      expect(await removeBay(deps, who, { bayId })).toMatchObject({ error: { kind } });
      expect(await changeBay(deps, who, { bayId, name: 'Theirs' })).toMatchObject({ error: { kind } });
    }
    value(await removeBay(deps, supervisor, { bayId }));
    expect(await removeBay(deps, supervisor, { bayId })).toMatchObject({ error: { kind: 'not-found' } });
  });
});

describe('access', () => {
  it('is what each role needs and no more', () => {
    const allowed = (permission: Parameters<typeof may>[1]) => ROLES.filter((role) => may({ role }, permission));
    expect(allowed('read the fleet')).toEqual(['supervisor', 'technician', 'parts_clerk', 'viewer']);
    expect(allowed('record work')).toEqual(['supervisor', 'technician']);
    expect(allowed('import data')).toEqual(['supervisor', 'parts_clerk']);
    for (const permission of [
      'manage people',
      'open work orders',
      'plan work orders',
      'reopen or cancel work orders',
      'make access tokens',
      'manage bays',
    ] as const) {
      expect(allowed(permission)).toEqual(['supervisor']);
    }
  });

  it('says whom to ask', () => {
    expect(refusal(inRole(actor, 'viewer'), 'import data')).toMatchObject({
      error: { message: 'A viewer may not import data. Ask a supervisor or parts clerk.' },
    });
    expect(refusal(actor, 'import data')).toBeNull();
  });
});
