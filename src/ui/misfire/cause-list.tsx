import type { Advice, Ranked } from '@/core/misfire/advice';
import type { Story } from '@/core/misfire/case-entry';
import type { MisfireEngine } from '@/core/misfire/misfire-case';
import { percentText } from '@/text/format';
import { causeText, reasonWords } from '@/text/misfire-words';
import { placeNow } from './place-now';

const MAX_REASONS = 3;

/** What may be wrong, ranked: before anything was seen, and now; with what speaks for it and against it. */
export function CauseList({
  advice: { causes, others },
  ignition,
  away,
}: {
  advice: Advice;
  ignition: MisfireEngine['ignition'];
  away: Story['away'];
}) {
  const most = Math.max(0.01, ...causes.flatMap(({ before, probability }) => [before, probability]));
  return (
    <>
      <ol className="causes">
        {causes.map((cause) => (
          <li key={causeText(cause)}>
            <strong>{causeText(cause)}</strong>
            <Bars before={cause.before} now={cause.probability} most={most} />
            <span className="share">{percentText(cause.probability)}</span>
            <Reasons cause={cause} ignition={ignition} now={placeNow(cause, away)} />
          </li>
        ))}
      </ol>
      {others > 0.005 && <div className="soft small">All others together: {percentText(others)}</div>}
    </>
  );
}

function Bars({ before, now, most }: { before: number; now: number; most: number }) {
  const width = (share: number) => ({ width: `${Math.max(1.5, (share / most) * 100)}%` });
  return (
    <span className="cause-bars" aria-hidden="true">
      <i className="before" style={width(before)} />
      <i className="now" style={width(now)} />
    </span>
  );
}

function Reasons({ cause, ignition, now }: { cause: Ranked; ignition: MisfireEngine['ignition']; now: string | null }) {
  const words = (isFor: boolean) =>
    cause.reasons
      .filter(({ bits }) => bits > 0 === isFor)
      .slice(0, MAX_REASONS)
      .map((reason) => reasonWords(reason, ignition))
      .join('; ');
  const [pro, contra] = [words(true), words(false)];
  return (
    <small>
      {now && <b>{now}</b>}
      {pro && (
        <span>
          <b>for</b> {pro}
        </span>
      )}
      {contra && (
        <span>
          <b>against</b> {contra}
        </span>
      )}
    </small>
  );
}
