import { z } from 'zod';

/* Background work by name, with what each is told. Both sides read it by these schemas: the app that asks, and the worker. */

export const JOBS = {
  /** Brings vehicles of some engine families into step with a changed catalogue. */
  'refresh-families': z.object({ fleetId: z.uuid(), familyIds: z.array(z.uuid()).min(1), why: z.string() }),
  /** Computes the due status of one fleet for the day, and notes what is new. */
  'due-run': z.object({ fleetId: z.uuid() }),
  /** Holds forecasts of one fleet's past against what came. */
  'back-test': z.object({ fleetId: z.uuid() }),
  /** Asks for the same of every fleet. Scheduled. */
  'back-tests': z.object({}),
  /** Asks for a due run of every fleet. Scheduled. */
  'due-runs': z.object({}),
  /** Works out what a large uploaded file would do. */
  'check-import': z.object({ fleetId: z.uuid(), importId: z.uuid() }),
  /** Does what a large uploaded file was shown to do. */
  'apply-import': z.object({ fleetId: z.uuid(), importId: z.uuid(), personId: z.uuid(), digest: z.string() }),
  /** Loads a large file of readings that has come. */
  'load-readings': z.object({ fleetId: z.uuid(), loadId: z.uuid() }),
  /** Works out a plan of the fleet that somebody asked for. */
  'plan-fleet': z.object({ fleetId: z.uuid(), proposalId: z.uuid() }),
  /** Notes what is new to be told of, for one fleet. */
  notices: z.object({ fleetId: z.uuid() }),
  /** Lets go of what is kept for a while only. Scheduled. */
  tidy: z.object({}),
} as const;

export type JobName = keyof typeof JOBS;
export type JobData<N extends JobName> = z.output<(typeof JOBS)[N]>;
export const JOB_NAMES = Object.keys(JOBS) as readonly JobName[];
