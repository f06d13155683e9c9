import { beforeAll, describe, expect, it } from 'vitest';
import type { Actor } from '../../src/server/access';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { demoWorkspace, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
beforeAll(async () => {
  w = await demoWorkspace();
});

describe('demo', () => {
  it('lists the fleet', async () => {
    const list = value(await listDue(w.deps, w.supervisor, dueFilter.parse({})));
    console.table(
      list.items.map((i) => ({
        u: i.unitNumber,
        s: i.state,
        l: i.lifeUsed?.toFixed(2),
        d: i.due?.p50,
        lo: i.due?.p10,
        hi: i.due?.p90,
        b: i.binds,
        r: i.rate?.kmPerDay.toFixed(1),
        why: i.fitmentWhy,
        sus: i.suspectReadings,
      })),
    );
    expect(list.total).toBe(17);
  });
});
