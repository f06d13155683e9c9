import { AUDIT_ACTIONS, type AuditAction } from '@/core/shared/audit';

const WORK_ORDER_WORDS: Readonly<Record<AuditAction<'work-order'>, string>> = {
  open: 'opened it',
  record: 'recorded',
  'approve part': 'let another part in:',
  'lift gate': 'lifted a gate:',
  'choose way': 'chose the way:',
  'add other work': 'put on besides the ignition:',
  'add tasks': 'put on:',
  'take off task': 'took off:',
  split: 'moved to another visit:',
  step: 'marked step',
  plan: 'planned it for',
  unplan: 'took it off the plan',
  close: 'closed it at',
  reopen: 'reopened it:',
  cancel: 'cancelled it:',
  confirmed: 'confirmed a finding:',
  rejected: 'rejected a finding:',
  corrected: 'corrected a finding:',
  'add follow-up': 'added a follow-up:',
  'finish follow-up': 'finished a follow-up:',
  count: 'counted',
  order: 'declared the tray',
  photo: 'took a picture at',
  codes: 'kept the codes',
  'clear codes': 'cleared the codes',
  wait: 'stopped the job:',
  'go on': 'went on:',
  'take over sheet': 'took over another sheet:',
  release: 'let stand:',
  'hand over': 'handed it over',
};

/** What somebody did to a work order, as it goes on in a sentence that begins with who. */
export function workOrderActionWords(action: string): string {
  const known = AUDIT_ACTIONS['work-order'].find((own) => own === action);
  return known ? WORK_ORDER_WORDS[known] : action;
}
