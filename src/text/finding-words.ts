import type { Confidence, Urgency, Verdict } from '@/core/inspection/finding';
import type { Shape } from '@/core/inspection/shape';

export const SHAPE_WORDS: Readonly<Record<Shape, string>> = {
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
