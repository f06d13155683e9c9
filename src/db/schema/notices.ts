import { sql } from 'drizzle-orm';
import { check, foreignKey, index, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { PersonId, VehicleId } from '../../core/shared/kinds';
import { day, fleetId, id, instant, list } from './columns';
import { people, vehicles } from './fleet';

export const NOTICE_KINDS = ['due', 'soon', 'silent', 'suspect'] as const;

/** Something that a person wants to be told once: a limit passed, one about to be, a feed gone silent, a doubtful reading. */
export const notices = pgTable(
  'notices',
  {
    id: id(),
    fleetId: fleetId(),
    vehicleId: uuid().$type<VehicleId>().notNull(),
    kind: text({ enum: list(NOTICE_KINDS) }).notNull(),
    /** What it is about, so that the same is told once: the clocks of the plugs, or the reading. */
    about: text().notNull(),
    /** What was known then, in words. */
    text: text().notNull(),
    notedOn: day().notNull(),
    notedAt: instant().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    unique().on(t.fleetId, t.vehicleId, t.kind, t.about),
    unique().on(t.fleetId, t.id),
    index().on(t.fleetId, t.notedOn),
    check('notices_kind_known', sql`${t.kind} in ('due','soon','silent','suspect')`),
  ],
);

/** What a person has put aside. */
export const noticeReads = pgTable(
  'notice_reads',
  {
    personId: uuid().$type<PersonId>().notNull(),
    noticeId: uuid().notNull(),
    fleetId: fleetId(),
    readAt: instant().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.personId, t.noticeId] }),
    foreignKey({ columns: [t.fleetId, t.noticeId], foreignColumns: [notices.fleetId, notices.id] }).onDelete('cascade'),
    foreignKey({ columns: [t.fleetId, t.personId], foreignColumns: [people.fleetId, people.id] }),
  ],
);

/** A filter and order of the due list that a person kept under a name. */
export const savedViews = pgTable(
  'saved_views',
  {
    id: id(),
    fleetId: fleetId(),
    personId: uuid().$type<PersonId>().notNull(),
    name: text().notNull(),
    /** The query of its address. */
    query: text().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.personId], foreignColumns: [people.fleetId, people.id] }),
    unique().on(t.personId, t.name),
  ],
);
