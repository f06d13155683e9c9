import { z } from 'zod';
import { readingsQuery } from '@/server/odometer/list-readings';
import { CALCULATIONS } from '../calc';
import { CATALOGUE_LISTS } from '../catalogue';
import {
  dueList,
  dueQuery,
  findingList,
  fitmentAnswer,
  followUpList,
  followUpsQuery,
  loadList,
  readingList,
  readingsAnswer,
  readingsBody,
  vehicleList,
  vehiclesQuery,
} from '../resources';
import {
  closeBody,
  entriesAnswer,
  entriesBody,
  followUpBody,
  openBody,
  opened,
  verdictBody,
  workOrderList,
  workOrdersQuery,
  workOrderWhole,
} from '../work-order-resources';

const json = (schema: z.ZodType, io: 'input' | 'output') => ({
  'application/json': { schema: z.toJSONSchema(schema, { io, unrepresentable: 'any' }) },
});

const PROBLEM = {
  description: 'Problem details (RFC 9457)',
  content: {
    'application/problem+json': {
      schema: {
        type: 'object',
        required: ['type', 'title', 'status'],
        properties: {
          type: { type: 'string' },
          title: { type: 'string' },
          status: { type: 'integer' },
          detail: { type: 'string' },
          errors: {
            type: 'array',
            items: { type: 'object', properties: { pointer: { type: 'string' }, message: { type: 'string' } } },
          },
        },
      },
    },
  },
};
const REFUSALS = { 401: PROBLEM, 403: PROBLEM, 422: PROBLEM };

function parameters(schema: z.ZodObject) {
  const { properties = {}, required = [] } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return Object.entries(properties).map(([name, shape]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema: shape,
  }));
}

const list = (summary: string, query: z.ZodObject, output: z.ZodType) => ({
  get: {
    summary,
    parameters: parameters(query),
    responses: {
      200: {
        description: 'A page of the list; text/csv on request',
        content: { ...json(output, 'output'), 'text/csv': { schema: { type: 'string' } } },
      },
      ...REFUSALS,
    },
  },
});

const ID = { name: 'id', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } };

const write = (summary: string, input: z.ZodType, output: z.ZodType) => ({
  summary,
  requestBody: { required: true, content: json(input, 'input') },
  responses: {
    200: { description: 'What was written', content: json(output, 'output') },
    400: PROBLEM,
    404: PROBLEM,
    409: PROBLEM,
    ...REFUSALS,
  },
});

/** Made from the same schemas that check the requests. */
export function GET(): Response {
  const calculations = Object.entries(CALCULATIONS).map(([name, { about, input, output }]) => [
    `/api/v1/calc/${name}`,
    {
      post: {
        summary: about,
        requestBody: { required: true, content: json(input, 'input') },
        responses: {
          200: { description: 'The result', content: json(output, 'output') },
          400: PROBLEM,
          413: PROBLEM,
          ...REFUSALS,
        },
      },
    },
  ]);
  const health = z.object({ status: z.string(), database: z.string(), version: z.string() });
  return Response.json({
    openapi: '3.1.0',
    info: {
      title: 'Isobar',
      version: '1',
      description:
        'Quantities carry their unit in the key; dates are ISO 8601. The manufacturer’s service information comes first.',
    },
    components: { securitySchemes: { token: { type: 'http', scheme: 'bearer' } } },
    security: [{ token: [] }],
    paths: {
      '/api/v1/health': {
        get: {
          summary: 'Whether app and database answer',
          security: [],
          responses: {
            200: { description: 'Both do', content: json(health, 'output') },
            503: { description: 'The database does not', content: json(health, 'output') },
          },
        },
      },
      '/api/v1/vehicles': list('Vehicles of the fleet', vehiclesQuery, vehicleList),
      '/api/v1/vehicles/{id}/fitment': {
        get: {
          summary: 'What goes into a vehicle: a match, the one question that decides, or no spec',
          parameters: [ID],
          responses: {
            200: { description: 'The answer', content: json(fitmentAnswer, 'output') },
            401: PROBLEM,
            404: PROBLEM,
          },
        },
      },
      '/api/v1/vehicles/{id}/history': {
        get: {
          summary: 'All parts that are or were in a vehicle, with gaps, torque and what was seen, for its next keeper',
          parameters: [ID],
          responses: {
            200: { description: 'A row a part and site', content: { 'text/csv': { schema: { type: 'string' } } } },
            401: PROBLEM,
            404: PROBLEM,
          },
        },
      },
      ...Object.fromEntries(
        CATALOGUE_LISTS.map(({ path, about, columns }) => [
          path,
          list(
            about,
            z.object({}),
            z.object({ items: z.array(z.object(Object.fromEntries(columns.map((c) => [c, z.string()])))) }),
          ),
        ]),
      ),
      '/api/v1/odometer-readings': {
        ...list('Odometer readings by vehicle and day', readingsQuery, readingList),
        post: {
          summary: 'Odometer readings, up to 1,000 at once; each is judged on its own',
          parameters: [
            { name: 'Idempotency-Key', in: 'header', required: false, schema: { type: 'string', maxLength: 200 } },
          ],
          requestBody: {
            required: true,
            description:
              'JSON, or a CSV file of any size with unit_number, read_on, odometer and where known unit and source: written whole or not at all, its progress under /api/v1/odometer-loads',
            content: { ...json(readingsBody, 'input'), 'text/csv': { schema: { type: 'string' } } },
          },
          responses: {
            200: { description: 'A result for each, or the sums of a file', content: json(readingsAnswer, 'output') },
            400: PROBLEM,
            413: PROBLEM,
            ...REFUSALS,
          },
        },
      },
      '/api/v1/odometer-loads': {
        get: {
          summary: 'Large files of readings: how far each has come, and what came of it',
          responses: { 200: { description: 'The latest first', content: json(loadList, 'output') }, 401: PROBLEM },
        },
      },
      '/api/v1/odometer-loads/{id}': {
        delete: {
          summary: 'Cancels a running load: it writes nothing',
          parameters: [ID],
          responses: { 200: { description: 'It stops at its next step' }, 401: PROBLEM, 404: PROBLEM },
        },
      },
      '/api/v1/notices.atom': {
        get: {
          summary: 'The latest notices as an Atom feed',
          responses: {
            200: { description: 'RFC 4287', content: { 'application/atom+xml': { schema: { type: 'string' } } } },
            401: PROBLEM,
          },
        },
      },
      '/api/v1/follow-ups': {
        ...list('What is to be seen to later', followUpsQuery, followUpList),
        post: write('Puts something down to be done later', followUpBody, z.object({ id: z.uuid() })),
      },
      '/api/v1/work-orders': {
        ...list('Work orders, the latest first', workOrdersQuery, workOrderList),
        post: write('Opens a work order for a unit', openBody, opened),
      },
      '/api/v1/work-orders/{id}': {
        get: {
          summary: 'One work order with its sites, steps and counts',
          parameters: [ID],
          responses: {
            200: { description: 'The order', content: json(workOrderWhole, 'output') },
            401: PROBLEM,
            404: PROBLEM,
          },
        },
      },
      '/api/v1/work-orders/{id}/entries': {
        post: {
          ...write(
            'Entries made at the vehicle, merged by site and field; an id that is known is kept once',
            entriesBody,
            entriesAnswer,
          ),
          parameters: [ID],
        },
      },
      '/api/v1/work-orders/{id}/close': {
        post: {
          ...write('Verifies and closes a work order', closeBody, z.object({ closed: z.literal(true) })),
          parameters: [ID],
        },
      },
      '/api/v1/work-orders/{id}/findings': {
        post: {
          ...write('What a person makes of a finding', verdictBody, z.object({ kept: z.literal(true) })),
          parameters: [ID],
        },
        get: {
          summary: 'What the removed parts of a work order say, and what people said to that',
          parameters: [ID],
          responses: {
            200: { description: 'The most urgent first', content: json(findingList, 'output') },
            401: PROBLEM,
            404: PROBLEM,
          },
        },
      },
      '/api/v1/due': list('The due list, most life used first', dueQuery, dueList),
      ...Object.fromEntries(calculations),
    },
  });
}
