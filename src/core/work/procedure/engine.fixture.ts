import type { Layout } from '../../engine/layout';
import type { ProcedureEngine } from './step';

/** An engine of which nothing is known but its layout and what somebody stated for a plug service. */
export const plainEngine = (layout: Layout, over: Partial<ProcedureEngine> = {}): ProcedureEngine => ({
  layout,
  access: [],
  fasteners: [],
  items: null,
  notes: [],
  options: [],
  ways: {},
  coolingMinutes: null,
  hybrid: false,
  fuel: null,
  headMaterial: 'aluminium',
  weakPoints: [],
  earlier: null,
  policies: {},
  minutes: 90,
  correction: 1,
  ...over,
});
