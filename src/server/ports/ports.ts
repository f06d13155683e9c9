import { eq } from 'drizzle-orm';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier } from '@/db/client';
import { fleets } from '@/db/schema';
import { readCodes, readCounts } from '@/simulators/code-reader';
import { playFeed } from '@/simulators/telematics';
import type { CodeReader } from './code-reader';
import type { Telematics } from './telematics';

/** The outside devices and services of a fleet; null: none is connected. */
interface Ports {
  readonly codeReader: CodeReader | null;
  readonly telematics: Telematics | null;
}

const NONE: Ports = { codeReader: null, telematics: null };

/** The stand-ins ship with the app. What they say is invented, so they answer in a demo fleet alone. */
const STAND_INS: Ports = {
  codeReader: {
    name: 'code reader, stand-in',
    read: ({ unitNumber, cylinders, after }) => readCodes(unitNumber, cylinders, after),
    counts: ({ unitNumber, cylinders }) => readCounts(unitNumber, cylinders),
  },
  telematics: { name: 'telematics stand-in', play: playFeed },
};

export const isDemoFleet = async (q: Querier, fleetId: FleetId): Promise<boolean> => {
  const [fleet] = await q.select({ isDemo: fleets.isDemo }).from(fleets).where(eq(fleets.id, fleetId));
  return fleet?.isDemo ?? false;
};

/** What is connected to a fleet of which it is known whether it is the demo. */
export const portsFor = (isDemo: boolean): Ports => (isDemo ? STAND_INS : NONE);

/** What is connected to a fleet. */
export const portsOf = async (q: Querier, fleetId: FleetId): Promise<Ports> => portsFor(await isDemoFleet(q, fleetId));
