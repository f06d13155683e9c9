import { customType, date, integer, numeric, timestamp, uuid } from 'drizzle-orm/pg-core';
import type { Day, FleetId, Km, Mm, Nm, Ohm } from '../../core/shared/kinds';

/** Columns that most tables share. */
export const id = () => uuid().primaryKey().defaultRandom();
export const fleetId = () => uuid().$type<FleetId>().notNull();
export const instant = () => timestamp({ withTimezone: true, mode: 'date' });
export const createdAt = () => instant().notNull().defaultNow();
export const day = () => date({ mode: 'string' }).$type<Day>();
export const km = () => numeric({ precision: 9, scale: 1, mode: 'number' }).$type<Km>();
export const mm = () => numeric({ precision: 6, scale: 4, mode: 'number' }).$type<Mm>();
export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
export const nm = () => numeric({ precision: 6, scale: 2, mode: 'number' }).$type<Nm>();
export const ohm = () => numeric({ precision: 14, scale: 2, mode: 'number' }).$type<Ohm>();
/** Counts up with every change: a write that names an older one is refused. */
export const version = () => integer().notNull().default(1);
/** The names of a closed list, as a text column wants them. */
export const list = <T extends readonly string[]>(names: T): T & [string, ...string[]] =>
  names as T & [string, ...string[]];
