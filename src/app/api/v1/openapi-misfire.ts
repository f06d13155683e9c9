import {
  caseDetail,
  caseEntriesBody,
  caseEntriesKept,
  caseList,
  casesQuery,
  decisionBody,
  decisionMade,
  reportBody,
  reported,
} from '@/contracts/http/misfire';
import { ID, json, list, PROBLEM, write } from './openapi-shapes';

/** Misfires, from the report to the cure. */
export const MISFIRE_PATHS = {
  '/api/v1/cases': {
    ...list('Misfires of the fleet, the newest first', casesQuery, caseList),
    post: write('Reports that a vehicle misfires', reportBody, reported),
  },
  '/api/v1/cases/{id}': {
    get: {
      summary: 'A misfire: what was said of it, what it points to, and what to do next',
      parameters: [ID],
      responses: {
        200: { description: 'The misfire', content: json(caseDetail, 'output') },
        401: PROBLEM,
        404: PROBLEM,
      },
    },
  },
  '/api/v1/cases/{id}/entries': {
    post: {
      ...write(
        'Keeps what was said, found or tried; an entry sent twice is kept once',
        caseEntriesBody,
        caseEntriesKept,
      ),
      parameters: [ID],
    },
  },
  '/api/v1/cases/{id}/decisions': {
    post: {
      ...write(
        'Puts the cure on a visit, refers, watches or closes it, or goes on with it',
        decisionBody,
        decisionMade,
      ),
      parameters: [ID],
    },
  },
};
