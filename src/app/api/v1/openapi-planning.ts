import { z } from 'zod';
import {
  absenceBody,
  absenceKept,
  absenceList,
  absenceRemoved,
  adopted,
  bayList,
  bookedList,
  moveBody,
  moved,
  personList,
  pinBody,
  pinKept,
  planQuery,
  proposal,
  proposalAsked,
  proposalBody,
  stopped,
} from '@/contracts/http/planning';
import { ID, json, list, PROBLEM, REFUSALS, write } from './openapi-shapes';

/** What the planner plans with. */
const RESOURCE_PATHS = {
  '/api/v1/bays': list('Bays, with what they take and their own hours', z.object({}), bayList),
  '/api/v1/people': list('People, with what they are trained on, where and when', z.object({}), personList),
  '/api/v1/absences': {
    ...list('When depots, bays, people and vehicles cannot be had', z.object({}), absenceList),
    post: write('Says that one of them is away, once or by a rule of RFC 5545', absenceBody, absenceKept),
  },
  '/api/v1/absences/{id}': {
    delete: {
      summary: 'Takes an absence back',
      parameters: [ID],
      responses: {
        200: { description: 'It is gone', content: json(absenceRemoved, 'output') },
        404: PROBLEM,
        ...REFUSALS,
      },
    },
  },
};

const ofProposal = (summary: string, output: z.ZodType) => ({
  summary,
  parameters: [ID],
  responses: {
    200: { description: 'What was done', content: json(output, 'output') },
    404: PROBLEM,
    409: PROBLEM,
    ...REFUSALS,
  },
});

/** What is booked, and what moves it. */
const PLAN_PATHS = {
  '/api/v1/plan': list('What is booked on some days', planQuery, bookedList),
  '/api/v1/plan/moves': { post: write('Moves a job on the plan, puts one on it, or takes it off', moveBody, moved) },
  '/api/v1/plan/pins': { post: write('Says that a booking stays where it is', pinBody, pinKept) },
};

/** Plans of the fleet. */
const PROPOSAL_PATHS = {
  '/api/v1/plan/proposals': {
    post: write('Asks for a plan of the fleet, worked out in the background', proposalBody, proposalAsked),
  },
  '/api/v1/plan/proposals/{id}': {
    get: {
      summary: 'How far a proposal is, or what it came to',
      parameters: [ID],
      responses: {
        200: { description: 'The proposal', content: json(proposal, 'output') },
        401: PROBLEM,
        404: PROBLEM,
      },
    },
  },
  '/api/v1/plan/proposals/{id}/adopt': { post: ofProposal('Books what was proposed', adopted) },
  '/api/v1/plan/proposals/{id}/stop': { post: ofProposal('Ends the search: the best so far is kept', stopped) },
};

/** Bays, people, absences, and plans of the fleet. */
export const PLANNING_PATHS = { ...RESOURCE_PATHS, ...PLAN_PATHS, ...PROPOSAL_PATHS };
