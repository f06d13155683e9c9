import type { UnitSystem } from '@/core/units/person-units';
import type { OtherWorkDue } from '@/core/work/other-work';
import type { Proposal, ProposalReason } from '@/core/work/proposal';
import { CAUSE_WORDS } from './cause-words';
import { STATE_WORDS } from './due-words';
import { dateText, distanceText, percentText } from './format';
import { ACTION_WORDS, partsText } from './task-words';

/** A proposal as a person would say it: "Replace plugs", "Inspect plugs, one of them". */
export function proposalText({ action, component, places }: Pick<Proposal, 'action' | 'component' | 'places'>): string {
  const count = Array.isArray(places) ? places.length : 2;
  const what = `${ACTION_WORDS[action]} ${partsText(component, isOne(component) ? 1 : count)}`;
  if (places === 'all') return what;
  if ('bank' in places) return `${what}, ${places.bank} bank`;
  return `${what} ${places.join(', ')}`;
}

const isOne = (component: Proposal['component']): boolean =>
  component === 'cap' || component === 'rotor' || component === 'lead_set' || component === 'rail';

const COILS_OPTIONS: Readonly<Record<string, string>> = {
  by_cost: 'by expected cost',
  on_failure: 'on failure',
  with_plugs: 'with the plugs',
};

/** Why it is proposed, and what speaks for or against it. */
export function reasonText(reason: ProposalReason, { coilsOption }: { readonly coilsOption: string }): string {
  switch (reason.kind) {
    case 'due':
      return [
        reason.on ? `${STATE_WORDS[reason.state]}: ${dateText(reason.on)}` : STATE_WORDS[reason.state],
        reason.retires &&
          `leaves the fleet ${dateText(reason.retires)}, before half of a new set is used: skip it, or let a cheaper plug in`,
      ]
        .filter(Boolean)
        .join('; ');
    case 'assumed':
      return 'Nobody knows how old: looked at before anything is bought';
    case 'nearly_used':
      return `Behind the same cover, ${percentText(reason.lifeUsed)} used`;
    case 'finding':
      return `Confirmed on an earlier visit: ${causeOf(reason.key)}`;
    case 'policy':
      return reason.policy === 'leads_with_plugs'
        ? 'Policy: leads are always changed with the plugs'
        : `Policy: coils ${COILS_OPTIONS[coilsOption] ?? coilsOption}`;
  }
}

/** How old it is, as far as anybody knows, and whether it is in reach: "80 % used: last done 3 Mar 2024 at 61,200 km". */
export function otherWorkText({ last, lifeUsed, inReach, behind }: OtherWorkDue, system: UnitSystem): string {
  const age =
    last === null || lifeUsed === null
      ? 'not on record here: look, and decide'
      : `${percentText(lifeUsed)} used: last done ${dateText(last.on)} at ${distanceText(last.km, system)}`;
  return inReach ? age : `${age}; the ${behind} bank stays closed on this visit`;
}

/** A finding is named by its cause and sites. */
const causeOf = (key: string): string => {
  const [cause = ''] = key.split(' ');
  return (CAUSE_WORDS as Readonly<Record<string, string>>)[cause]?.toLowerCase() ?? cause;
};
