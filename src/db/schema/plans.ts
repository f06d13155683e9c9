import { sql } from 'drizzle-orm';
import { boolean, check, foreignKey, index, jsonb, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { FEED_OF } from '../../core/planning/absence-of';
import {
  type Adopted,
  type PlanProgress,
  type PlanScope,
  PROPOSAL_STATES,
  type ProposalResult,
} from '../../core/planning/plan-proposal';
import type { WhatIfChange } from '../../core/planning/what-if';
import type { PersonId } from '../../core/shared/kinds';
import { createdAt, fleetId, id, instant, list } from './columns';
import { people } from './fleet';

/** An address at which a calendar program reads the plan of a depot, bay or person without signing in. Only its hash is kept. */
export const calendarFeeds = pgTable(
  'calendar_feeds',
  {
    id: id(),
    fleetId: fleetId(),
    of: text({ enum: list(FEED_OF) }).notNull(),
    ofId: uuid().notNull(),
    secretSha256: text().notNull().unique(),
    madeBy: uuid().$type<PersonId>().notNull(),
    createdAt: createdAt(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.madeBy], foreignColumns: [people.fleetId, people.id] }),
    unique().on(t.fleetId, t.of, t.ofId),
    check('calendar_feeds_of_known', sql`${t.of} in ('depot','bay','person')`),
  ],
);

/** A plan of the fleet that somebody asked for: worked out in the background, kept until it is adopted or put away. */
export const planProposals = pgTable(
  'plan_proposals',
  {
    id: id(),
    fleetId: fleetId(),
    state: text({ enum: list(PROPOSAL_STATES) })
      .notNull()
      .default('queued'),
    scope: jsonb().$type<PlanScope>().notNull(),
    /** Of a what-if: what it is called, and what would have to be so. */
    name: text(),
    changes: jsonb().$type<readonly WhatIfChange[]>().notNull().default([]),
    progress: jsonb().$type<PlanProgress>(),
    /** Somebody wants the best so far. */
    isStopped: boolean().notNull().default(false),
    result: jsonb().$type<ProposalResult>(),
    /** What adopting it did. */
    adopted: jsonb().$type<Adopted>(),
    /** Why it came to nothing. */
    problem: text(),
    askedBy: uuid().$type<PersonId>().notNull(),
    createdAt: createdAt(),
    finishedAt: instant(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.askedBy], foreignColumns: [people.fleetId, people.id] }),
    unique().on(t.fleetId, t.id),
    index().on(t.fleetId, t.createdAt),
    check('plan_proposals_state_known', sql`${t.state} in ('queued','running','done','failed','adopted','discarded')`),
  ],
);
