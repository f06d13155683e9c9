import { AUDIT_ACTIONS, type AuditAction } from '@/core/shared/audit';

const WORK_ORDER_WORDS: Readonly<Record<AuditAction<'work-order'>, string>> = {
  open: 'opened the order',
  record: 'recorded',
  'approve part': 'approved another part:',
  'lift gate': 'lifted a gate:',
  'choose way': 'chose the access:',
  'add other work': 'added other work:',
  'add tasks': 'added:',
  'take off task': 'removed:',
  split: 'moved to another visit:',
  step: 'marked step',
  plan: 'planned for',
  unplan: 'took off the plan',
  close: 'closed at',
  reopen: 'reopened:',
  cancel: 'cancelled:',
  confirmed: 'confirmed a finding:',
  rejected: 'rejected a finding:',
  corrected: 'corrected a finding:',
  'add follow-up': 'added a follow-up:',
  'finish follow-up': 'finished a follow-up:',
  count: 'counted',
  order: 'declared the tray',
  photo: 'took a picture at',
  codes: 'saved the codes',
  'clear codes': 'cleared the codes',
  wait: 'stopped the job:',
  'go on': 'went on:',
  'take over sheet': 'took over another sheet:',
  release: 'released:',
  'hand over': 'handed over',
};

/** What somebody did to a work order, as it goes on in a sentence that begins with who. */
export function workOrderActionWords(action: string): string {
  const known = AUDIT_ACTIONS['work-order'].find((name) => name === action);
  return known ? WORK_ORDER_WORDS[known] : action;
}
