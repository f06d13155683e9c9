import { boolean, index, jsonb, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { PersonId } from '../../core/shared/kinds';
import { createdAt, fleetId, id, instant } from './columns';

/* Names of these four tables and their columns are the sign-in library's. */

export const user = pgTable('user', {
  id: text().primaryKey(),
  name: text().notNull(),
  email: text().notNull().unique(),
  emailVerified: boolean().notNull().default(false),
  image: text(),
  createdAt: createdAt(),
  updatedAt: createdAt(),
});

export const session = pgTable(
  'session',
  {
    id: text().primaryKey(),
    token: text().notNull().unique(),
    expiresAt: instant().notNull(),
    ipAddress: text(),
    userAgent: text(),
    userId: text()
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    createdAt: createdAt(),
    updatedAt: createdAt(),
  },
  (t) => [index().on(t.userId)],
);

export const account = pgTable(
  'account',
  {
    id: text().primaryKey(),
    accountId: text().notNull(),
    providerId: text().notNull(),
    userId: text()
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    accessToken: text(),
    refreshToken: text(),
    idToken: text(),
    accessTokenExpiresAt: instant(),
    refreshTokenExpiresAt: instant(),
    scope: text(),
    /** scrypt, salted. */
    password: text(),
    createdAt: createdAt(),
    updatedAt: createdAt(),
  },
  (t) => [index().on(t.userId)],
);

export const verification = pgTable('verification', {
  id: text().primaryKey(),
  identifier: text().notNull(),
  value: text().notNull(),
  expiresAt: instant().notNull(),
  createdAt: createdAt(),
  updatedAt: createdAt(),
});

/** Failed sign-ins, to slow down guessing. */
export const signInFailures = pgTable(
  'sign_in_failures',
  { id: id(), email: text().notNull(), at: createdAt() },
  (t) => [index().on(t.email, t.at)],
);

/** Bearer tokens for programs. Only the hash is kept. */
export const apiTokens = pgTable('api_tokens', {
  id: id(),
  fleetId: fleetId(),
  personId: uuid().$type<PersonId>().notNull(),
  name: text().notNull(),
  tokenSha256: text().notNull().unique(),
  createdAt: createdAt(),
  revokedAt: instant(),
});

/** First answers to writes by other programs: the same key of the same person at the same place gets the same answer. */
export const idempotencyAnswers = pgTable(
  'idempotency_answers',
  {
    id: id(),
    fleetId: fleetId(),
    personId: uuid().$type<PersonId>().notNull(),
    /** Method and path. */
    endpoint: text().notNull(),
    key: text().notNull(),
    /** Of the body that was sent with it: another body under the same key is a mistake. */
    bodySha256: text().notNull(),
    /** Null while the write is going on, which nobody else sees. */
    answer: jsonb(),
    createdAt: createdAt(),
  },
  (t) => [unique('idempotency_answers_once').on(t.personId, t.endpoint, t.key)],
);
