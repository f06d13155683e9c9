import { POLICY_TABLE, type Policy, type PolicyOption } from './table';

type PolicyId = keyof typeof POLICY_TABLE;
/** The options of each policy, by its id. */
export type PolicyOptions = { readonly [P in PolicyId]: (typeof POLICY_TABLE)[P]['options'][number]['id'] };

export const POLICY_IDS = Object.keys(POLICY_TABLE) as readonly PolicyId[];
export const POLICIES: readonly Policy<PolicyId>[] = Object.values(POLICY_TABLE);

const BY_ID: { readonly [P in PolicyId]: Policy<P, PolicyOptions[P]> } = POLICY_TABLE;

/** A policy by its id. */
export const policyOf = <P extends PolicyId>(id: P): Policy<P, PolicyOptions[P]> => BY_ID[id];

/** Share of the interval at which the option of early change calls a plug due. */
export const EARLY_SHARE = 0.75;

/** Where a choice was made, the widest first: each later one overrides those before it. */
export const POLICY_SCOPES = ['default', 'shop', 'sheet', 'group', 'vehicle'] as const;
export type PolicyScope = (typeof POLICY_SCOPES)[number];

export interface PolicyChoice {
  readonly policy: PolicyId;
  readonly scope: Exclude<PolicyScope, 'default'>;
  /** Null for the shop; the duty group, the vehicle or the sheet otherwise. */
  readonly scopeKey: string | null;
  readonly option: string;
  /** Why this was chosen, by whom. */
  readonly why: string;
}

export interface InForce<P extends PolicyId = PolicyId> {
  readonly policy: Policy<P, PolicyOptions[P]>;
  readonly option: PolicyOption<PolicyOptions[P]>;
  readonly scope: PolicyScope;
  readonly why: string;
  /** Choices that this one overrides, the nearest first. */
  readonly overrides: readonly { readonly scope: PolicyScope; readonly option: PolicyOption<PolicyOptions[P]> }[];
}

/**
 * The option in force for one vehicle: its own choice before its group's, that before the spec sheet's, that before the
 * shop's, that before the default.
 *
 * @param choices those that concern the vehicle; an option that the policy does not know is passed over
 */
export function policyInForce<P extends PolicyId>(id: P, choices: readonly PolicyChoice[]): InForce<P> {
  const policy = policyOf(id);
  const chosen = choices
    .filter((choice) => choice.policy === id)
    .flatMap((choice) => {
      const option = policy.options.find((s) => s.id === choice.option);
      return option ? [{ scope: choice.scope as PolicyScope, option, why: choice.why }] : [];
    });
  const byDefault = policy.options.find((s) => s.id === policy.byDefault) ?? policy.options[0];
  if (!byDefault) throw new RangeError(`policyInForce: ${id} has no option`);
  const all = [
    ...chosen,
    { scope: 'default' as PolicyScope, option: byDefault, why: 'the default; nobody has chosen' },
  ].sort((a, b) => POLICY_SCOPES.indexOf(b.scope) - POLICY_SCOPES.indexOf(a.scope));
  const [first, ...rest] = all;
  if (!first) throw new RangeError(`policyInForce: ${id} has no default`);
  return { policy, option: first.option, scope: first.scope, why: first.why, overrides: rest };
}

/** The id of the option in force. */
export const optionInForce = <P extends PolicyId>(id: P, choices: readonly PolicyChoice[]): PolicyOptions[P] =>
  policyInForce(id, choices).option.id;

/** The option in force of every policy. */
export const optionsInForce = (choices: readonly PolicyChoice[]): PolicyOptions =>
  Object.fromEntries(POLICY_IDS.map((id) => [id, optionInForce(id, choices)])) as PolicyOptions;
