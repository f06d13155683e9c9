import { type Layout, siteName } from '@/core/engine/layout';
import { type Confidence, type Finding, isUnplaced, type Urgency, type Verdict } from '@/core/inspection/finding';
import type { Shape } from '@/core/inspection/shape';

const SHAPE_WORDS: Readonly<Record<Shape, string>> = {
  all: 'all alike',
  deactivated: 'those that rest',
  position: 'one row of plugs',
  bank: 'one bank',
  neighbours: 'neighbours',
  ends: 'the ends of the row',
  partners: 'one of each coil’s pair',
  one: 'one alone',
  engine: 'distributor',
  some: 'no pattern',
};

export const URGENCY_WORDS: Readonly<Record<Urgency, string>> = {
  stop: 'Stop the work',
  before_return: 'Before it goes back into service',
  soon: 'Soon',
  note: 'To know',
};

export const CONFIDENCE_WORDS: Readonly<Record<Confidence, string>> = {
  high: 'clear',
  medium: 'likely',
  low: 'a suspicion',
};

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  confirmed: 'Confirmed',
  rejected: 'Rejected',
  corrected: 'Corrected',
};

/** Where a finding stands: "5, 6, 7, 8 (one bank)". */
export const findingPlaces = (layout: Layout, finding: Pick<Finding, 'shape' | 'sites'>): string =>
  isUnplaced(finding)
    ? 'One of the banks: declare the direction of the tray'
    : `${finding.sites.map((site) => siteName(layout, site)).join(', ')} (${SHAPE_WORDS[finding.shape]})`;

/** What was seen, once where it is the same everywhere: "dry soot", else "1 dry soot; 3 oil"; empty where no site is named. */
export const findingEvidence = (layout: Layout, { evidence }: Pick<Finding, 'evidence'>): string =>
  new Set(evidence.map(({ words }) => words)).size === 1
    ? (evidence[0]?.words ?? '')
    : evidence.map((item) => `${siteName(layout, item)} ${item.words}`).join('; ');
