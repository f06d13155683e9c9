'use server';

import { randomUUID } from 'node:crypto';
import { formAction } from '@/app/form-action';
import { fromJson } from '@/contracts/forms/form-input';
import { countsFrom, decideForm, lastOf, reportForm, withFigures } from '@/contracts/forms/misfire';
import { decideCase, mendCase } from '@/server/misfire/decide';
import { endDriverAddress, makeDriverAddress } from '@/server/misfire/driver-address';
import { reportMisfire } from '@/server/misfire/open-case';
import { keepCodesOfCase, sayOfCase, takeBackEntry } from '@/server/misfire/say';
import { dealtWithReport } from '@/server/misfire/unfiled-reports';

export const reportMisfireAction = formAction(reportMisfire, {
  ...reportForm,
  onDone: ({ caseId }) => ({ to: `/misfires/${caseId}` }),
});

/** Said by one press: what it says stands in the button. */
export const sayAction = formAction(sayOfCase, {
  read: ({ caseId, said = '' }) => ({
    caseId,
    entries: [{ id: randomUUID(), at: new Date().toISOString(), said: fromJson(said) }],
  }),
  fieldName: lastOf,
});

/** Said in the fields of a form; figures are read as such. */
export const sayFieldsAction = formAction(sayOfCase, {
  read: ({ caseId, ...fields }) => ({
    caseId,
    entries: [{ id: randomUUID(), at: new Date().toISOString(), said: withFigures(fields) }],
  }),
  fieldName: lastOf,
});

/** Misfires in 1,000 firings, a field a cylinder; one that is left empty was not counted. */
export const sayCountsAction = formAction(sayOfCase, {
  read: ({ caseId, ...fields }) => ({
    caseId,
    entries: [{ id: randomUUID(), at: new Date().toISOString(), said: { kind: 'counts', counts: countsFrom(fields) } }],
  }),
});

export const dealtWithReportAction = formAction(dealtWithReport);
export const keepCodesOfCaseAction = formAction(keepCodesOfCase);
export const takeBackEntryAction = formAction(takeBackEntry);
export const mendCaseAction = formAction(mendCase, {
  read: ({ cause = '', ...rest }) => ({ ...rest, cause: fromJson(cause) }),
  onDone: ({ workOrderId }) => ({ to: `/work-orders/${workOrderId}` }),
});
export const decideCaseAction = formAction(decideCase, decideForm);
export const makeDriverAddressAction = formAction(makeDriverAddress, {
  read: () => undefined,
  onDone: ({ secret }) => ({
    secret: {
      label: 'Address for drivers',
      text: `${process.env.ISOBAR_URL ?? ''}/report/${secret}`,
      isForPhones: true,
    },
  }),
});
export const endDriverAddressAction = formAction(endDriverAddress, { read: () => undefined });
