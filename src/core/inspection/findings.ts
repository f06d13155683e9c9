import { siteId } from '../engine/model';
import type { Confidence, EngineReading, Finding, Urgency } from './finding';
import { type Looked, RULES, type Rule } from './rules';
import { type Shape, shapesOf } from './shape';
import { NORMAL } from './vocabulary';

const RANK: Readonly<Record<Urgency, number>> = { stop: 0, before_return: 1, soon: 2, note: 3 };

/**
 * What the removed parts of an engine say together: each finding with the sites that speak for it, how sure it is, how
 * urgent, and what to check next. The most urgent first.
 *
 * A condition means by where it stands: soot on all, on one bank and on one cylinder are three causes. Where nothing is
 * wrong and something was looked at, the one finding is that it is healthy, for that is evidence too.
 */
export function readEngine(reading: EngineReading): readonly Finding[] {
  const looked = reading.sites.filter((site): site is Looked => site.seen !== null);
  if (looked.length === 0) return [];
  const told = new Set<string>();
  const findings: Finding[] = [];
  for (const rule of RULES) {
    const signs = looked.flatMap((site) => {
      const sign = rule.sign(site, reading);
      const key = `${rule.family}${siteId(site)}`;
      return sign && !(rule.family && told.has(key)) ? [{ site, sign, key }] : [];
    });
    if (signs.length === 0) continue;
    const shapes = shapesOf(
      reading,
      signs.map(({ site }) => site),
      looked,
    );
    const shape = rule.shapes.find((wanted) => shapes.has(wanted));
    if (!shape) continue;
    for (const { key } of signs) told.add(key);
    findings.push({
      cause: rule.cause,
      shape,
      sites: signs.map(({ site: { cylinder, position } }) => ({ cylinder, position })),
      evidence: signs.map(({ site: { cylinder, position }, sign: { words } }) => ({ cylinder, position, words })),
      confidence: confidence(
        rule,
        shape,
        signs.map(({ sign }) => sign.severity),
        looked.length / reading.layout.sites.length,
      ),
      urgency: rule.urgency,
      next: rule.next,
    });
  }
  if (findings.length === 0 && looked.every(isHealthy)) return [healthy(looked)];
  return findings.sort((a, b) => RANK[a.urgency] - RANK[b.urgency]);
}

/** A place that stands out is worth more than a scatter, clear signs more than faint ones, a whole set more than a part. */
function confidence(rule: Rule, shape: Shape, severities: readonly number[], seen: number): Confidence {
  const clear = severities.reduce((sum, severity) => sum + severity, 0) / severities.length;
  const points =
    (shape === 'some' ? 0 : 1) +
    (clear >= 2 ? 1 : 0) +
    (clear >= 2.5 ? 1 : 0) -
    (rule.ambiguous ? 1 : 0) -
    (seen < 0.75 ? 1 : 0);
  if (points >= 2) return 'high';
  return points === 1 ? 'medium' : 'low';
}

const isHealthy = ({ seen }: Looked): boolean =>
  seen.length > 0 && seen.every(({ condition }) => NORMAL.has(condition));

function healthy(looked: readonly Looked[]): Finding {
  return {
    cause: 'healthy',
    shape: looked.length > 1 ? 'all' : 'one',
    sites: looked.map(({ cylinder, position }) => ({ cylinder, position })),
    evidence: looked.map(({ cylinder, position, seen }) => ({
      cylinder,
      position,
      words: seen.map(({ condition }) => condition).join(', '),
    })),
    confidence: looked.length > 1 ? 'high' : 'medium',
    urgency: 'note',
    next: [],
  };
}
