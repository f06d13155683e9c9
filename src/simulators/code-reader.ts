import { seeded } from '../core/stats/seeded';

/* A code reader as a stand-in for a real one: what an engine computer would hold before the work, and what comes back. */

interface ReadCode {
  readonly code: string;
  /** What the computer froze with it. */
  readonly freeze: Readonly<Record<string, string>>;
}

/**
 * What the computer of one engine has counted, always the same for the same unit: most on the cylinder that its codes name.
 *
 * @returns misfires in 1,000 firings of each cylinder
 */
export function readCounts(unitNumber: string, cylinders: number): readonly { cylinder: number; misfires: number }[] {
  const random = seeded(seedOf(unitNumber) + 1);
  const named = readCodes(unitNumber, cylinders, false).flatMap(({ code }) =>
    /^P03(0[1-9]|1[0-2])$/.test(code) ? [Number(code.slice(3))] : [],
  );
  return Array.from({ length: cylinders }, (_, i) => ({
    cylinder: i + 1,
    misfires: Math.round(named.includes(i + 1) ? 60 + random() * 200 : random() * 8),
  }));
}

const seedOf = (text: string): number => [...text].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) | 0, 7);

/**
 * The codes of one engine, always the same for the same unit. Most are gone once they are cleared; a few come back, as a
 * fault that the plugs did not cause does.
 */
export function readCodes(unitNumber: string, cylinders: number, cleared: boolean): readonly ReadCode[] {
  const random = seeded(seedOf(unitNumber));
  if (random() < 0.4) return [];
  const cylinder = 1 + Math.floor(random() * cylinders);
  const examples = [`P03${String(cylinder).padStart(2, '0')}`, 'P0300', 'P0171', `P03${50 + cylinder}`];
  const codes = [examples[Math.floor(random() * examples.length)] ?? 'P0300', ...(random() < 0.3 ? ['P0171'] : [])];
  const comesBack = random() < 0.15;
  return [...new Set(codes)]
    .filter(() => !cleared || comesBack)
    .map((code) => ({
      code,
      freeze: {
        speed: `${Math.round(random() * 90)} km/h`,
        engine: `${Math.round(700 + random() * 3200)} /min`,
        load: `${Math.round(20 + random() * 70)} %`,
        coolant: `${Math.round(60 + random() * 35)} °C`,
      },
    }));
}
