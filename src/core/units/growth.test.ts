import { describe, expect, it } from 'vitest';
import { readDate } from '../calendar/read-date';
import { readVin } from '../catalogue/vin';
import { fastenersFromText } from '../engine/access';
import { readNumber } from './read-number';
import { readQuantity } from './read-quantity';
import { readRange, writtenAs } from './read-range';
import { unitFromText } from './unit';

/* Whatever is typed or sent, reading it takes time in proportion to its length at most. */

const READERS: Readonly<Record<string, (text: string) => unknown>> = {
  readNumber,
  'readQuantity of a gap': (text) => readQuantity({ kind: 'gap', text }),
  'readQuantity of a torque': (text) => readQuantity({ kind: 'torque', text }),
  'readQuantity of a distance': (text) => readQuantity({ kind: 'distance', text }),
  readRange: (text) => readRange({ kind: 'gap', text }),
  readDate,
  readVin,
  writtenAs,
  unitFromText,
  fastenersFromText: (text) => fastenersFromText(text, () => 9),
};
const FILLINGS = [' ', '0', '.', ',', '-', "'", 'a', 't', '0 ', ' .', '± ', 'M8 x4 ', ' dry', ' 1/2', 'of ', '0, '];

/** The least processor time of some runs, ms: how busy the machine is does not count. */
function leastMs(run: () => unknown): number {
  const runs = Array.from({ length: 5 }, () => {
    const from = process.cpuUsage();
    run();
    return process.cpuUsage(from).user / 1000;
  });
  return Math.min(...runs);
}

describe.each(Object.keys(READERS))('%s', (name) => {
  it.each(FILLINGS)('grows no faster than a text of %j', (filling) => {
    const read = READERS[name] as (text: string) => unknown;
    const at = (length: number) => leastMs(() => read(`1${filling.repeat(length)}x`));
    // Eight times the text: 8 where it is linear, 64 where each place is tried against each other.
    expect(at(16_000)).toBeLessThan(24 * at(2_000) + 10);
  });
});
