import type { BreakdownLine } from '@/core/due/due-breakdown';
import type { UnitSystem } from '@/core/units/person-units';
import { dateText, distanceText, meterText, percentText } from '@/text/format';

/** The reckoning behind the due date, as a person would check it with a pencil. */
export function DueSum({ lines, system }: { lines: readonly BreakdownLine[]; system: UnitSystem }) {
  return (
    <dl className="sum">
      {lines.map((line) => {
        const { words, figure, total } = lineText(line, system);
        return (
          <div key={line.kind} data-total={total || undefined}>
            <dt>{words}</dt>
            <dd>{figure}</dd>
          </div>
        );
      })}
    </dl>
  );
}

interface LineText {
  readonly words: string;
  readonly figure: string;
  /** The line sums up those above it. */
  readonly total?: boolean;
}

export function lineText(line: BreakdownLine, system: UnitSystem): LineText {
  const km = (value: number): string => distanceText(value, system);
  switch (line.kind) {
    case 'read':
      return { words: `Read on ${dateText(line.on)}`, figure: km(line.km) };
    case 'driven-since':
      return { words: `and ${line.days} days since, at ${km(line.kmPerDay)} a day`, figure: `+ ${km(line.km)}` };
    case 'now':
      return { words: 'Odometer today, about', figure: km(line.km), total: true };
    case 'fitted':
      return { words: `The worst of them fitted on ${dateText(line.on)} at`, figure: `− ${km(line.km)}` };
    case 'covered':
      return { words: 'Covered by it', figure: km(line.km), total: true };
    case 'good':
      return {
        words: `Looked at on ${dateText(line.on)} at ${km(line.km)}: good for`,
        figure: km(line.forKm),
      };
    case 'ran':
      return {
        words: `Engine hours since, ${meterText(Math.round(line.hours))} at ${km(line.kmPerHour)} an hour`,
        figure: km(line.km),
      };
    case 'limit':
      return {
        words: line.share < 1 ? `Limit: early, ${percentText(line.share)} of ${km(line.fullKm)}` : 'Limit of distance',
        figure: km(line.km),
      };
    case 'left':
      return {
        words:
          line.on === null
            ? 'Left'
            : `Left, ${Math.abs(line.days ?? 0)} days ${(line.days ?? 0) < 0 ? 'over' : 'more'}: ${dateText(line.on)}`,
        figure: line.km < 0 ? `− ${km(-line.km)}` : km(line.km),
      };
    case 'time-limit':
      return {
        words: `Limit of time: ${line.share < 1 ? `${percentText(line.share)} of ` : ''}${line.months} months`,
        figure: dateText(line.on),
      };
    case 'due':
      return {
        words: `Due by ${line.by === 'hours' ? 'engine hours' : line.by}`,
        figure: dateText(line.on),
        total: true,
      };
  }
}
