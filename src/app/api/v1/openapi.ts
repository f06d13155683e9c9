import { z } from 'zod';
import {
  componentList,
  componentsQuery,
  dueList,
  dueQuery,
  findingList,
  fitmentAnswer,
  followUpList,
  followUpsQuery,
  loadAccepted,
  loadAnswer,
  loadList,
  readingList,
  readingsAnswer,
  readingsBody,
  vehicleList,
  vehiclesQuery,
} from '@/contracts/http/resources';
import {
  closeBody,
  codesBody,
  entriesAnswer,
  entriesDescribed,
  floorAnswer,
  followUpBody,
  liftBody,
  openBody,
  opened,
  photoQuery,
  splitBody,
  tasksAdded,
  tasksBody,
  verdictBody,
  workingBody,
  workOrderList,
  workOrdersQuery,
  workOrderWhole,
} from '@/contracts/http/work-orders';
import { readingsQuery } from '@/server/odometer/list-readings';
import { CALCULATIONS } from './calc';
import { CATALOGUE_LISTS } from './catalogue';
import { MISFIRE_PATHS } from './openapi-misfire';
import { PLANNING_PATHS } from './openapi-planning';
import { ID, json, list, PHOTO, PICTURE, PROBLEM, parameters, REFUSALS, write } from './openapi-shapes';

const health = z.object({ status: z.string(), database: z.string(), version: z.string() });

/** Vehicles, catalogue, due list, notices. */
const FLEET_PATHS = {
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
  '/api/v1/components': list('What sits where, from when on', componentsQuery, componentList),
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
  '/api/v1/notices.atom': {
    get: {
      summary: 'The latest notices as an Atom feed',
      responses: {
        200: { description: 'RFC 4287', content: { 'application/atom+xml': { schema: { type: 'string' } } } },
        401: PROBLEM,
      },
    },
  },
  '/api/v1/due': list('The due list, most life used first', dueQuery, dueList),
};

/** Odometer readings, single and by the file. */
const READINGS_PATHS = {
  '/api/v1/odometer-readings': {
    ...list('Odometer readings by vehicle and day', readingsQuery, readingList),
    post: {
      summary: 'Odometer readings, up to 1,000 at once; each is judged on its own',
      parameters: [
        { name: 'Idempotency-Key', in: 'header', required: false, schema: { type: 'string', maxLength: 200 } },
        {
          name: 'Prefer',
          in: 'header',
          required: false,
          description: 'respond-async: a file is answered with 202 as soon as it has come',
          schema: { type: 'string' },
        },
      ],
      requestBody: {
        required: true,
        description:
          'JSON, or a CSV file of any size with unit_number, read_on, odometer and where known unit and source: written whole or not at all, its progress under /api/v1/odometer-loads',
        content: { ...json(readingsBody, 'input'), 'text/csv': { schema: { type: 'string' } } },
      },
      responses: {
        200: {
          description: 'A result for each, or the sums of a file',
          content: json(z.union([readingsAnswer, loadAnswer]), 'output'),
        },
        202: {
          description: 'The file has come; a worker loads it',
          content: json(loadAccepted, 'output'),
        },
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
};

/** Work orders, what is done at the vehicle, and what follows. */
const ORDERS_PATHS = {
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
  '/api/v1/work-orders/{id}/tasks': {
    post: { ...write('Puts more tasks on a work order that is open', tasksBody, tasksAdded), parameters: [ID] },
  },
  '/api/v1/work-orders/{id}/split': {
    post: {
      ...write('Moves places that are not done to another visit of the same vehicle', splitBody, opened),
      parameters: [ID],
    },
  },
  '/api/v1/work-orders/{id}/entries': {
    post: {
      ...write(
        'Entries made at the vehicle, merged by site and field; an id that is known is kept once',
        entriesDescribed,
        entriesAnswer,
      ),
      parameters: [ID],
    },
  },
  '/api/v1/work-orders/{id}/floor': {
    get: {
      summary: 'A work order as a device at the vehicle carries it',
      parameters: [ID],
      responses: {
        200: { description: 'All that is needed with the network gone', content: json(floorAnswer, 'output') },
        401: PROBLEM,
        404: PROBLEM,
      },
    },
  },
  '/api/v1/work-orders/{id}/working': {
    post: {
      ...write('Says that the person who asks begins or stops to work at the order', workingBody, floorAnswer),
      parameters: [ID],
    },
  },
  '/api/v1/work-orders/{id}/codes': {
    post: {
      ...write('Reads the fault codes with the reader that is connected, or takes those typed', codesBody, floorAnswer),
      parameters: [ID],
    },
  },
  '/api/v1/work-orders/{id}/lifts': {
    post: {
      ...write('Lifts a gate for this visit; supervisors only, the reason stays on its record', liftBody, floorAnswer),
      parameters: [ID],
    },
  },
  '/api/v1/work-orders/{id}/photos/{photo}': {
    get: {
      summary: 'A picture',
      parameters: [ID, PHOTO],
      responses: { 200: { description: 'The picture itself', content: PICTURE }, 401: PROBLEM, 404: PROBLEM },
    },
    put: {
      summary: 'Keeps a picture with an order; sent twice it is kept once',
      parameters: [ID, PHOTO, ...parameters(photoQuery)],
      requestBody: { required: true, content: PICTURE },
      responses: {
        200: { description: 'It is kept', content: json(z.object({ id: z.uuid() }), 'output') },
        413: PROBLEM,
        404: PROBLEM,
        ...REFUSALS,
      },
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
};

/** Each calculation by its name. */
const calculationPaths = () =>
  Object.fromEntries(
    Object.entries(CALCULATIONS).map(([name, { about, input, output, conflict }]) => [
      `/api/v1/calc/${name}`,
      {
        post: {
          summary: about,
          requestBody: { required: true, content: json(input, 'input') },
          responses: {
            200: { description: 'The result', content: json(output, 'output') },
            400: PROBLEM,
            ...(conflict ? { 409: PROBLEM } : {}),
            413: PROBLEM,
            ...REFUSALS,
          },
        },
      },
    ]),
  );

/** The whole description, made from the same schemas that check the requests and the answers. @param server its address */
export const openApiDocument = (server: string) =>
  hoisted({
    openapi: '3.1.0',
    info: {
      title: 'Isobar',
      version: '1',
      description:
        'Quantities carry their unit in the key; dates are ISO 8601. The manufacturer’s service information comes first.',
    },
    servers: [{ url: server }],
    components: { securitySchemes: { token: { type: 'http', scheme: 'bearer' } } },
    security: [{ token: [] }],
    paths: {
      ...FLEET_PATHS,
      ...PLANNING_PATHS,
      ...MISFIRE_PATHS,

      ...READINGS_PATHS,
      ...ORDERS_PATHS,
      ...calculationPaths(),
    },
  });

interface Described {
  readonly components: Readonly<Record<string, unknown>>;
  readonly [key: string]: unknown;
}

/**
 * Recursive shapes come with their own definitions, to which they refer from their own root; in a document they have to
 * stand among its components, once each.
 */
function hoisted(document: Described): unknown {
  const schemas: Record<string, unknown> = {};
  const nameOf = new Map<string, string>();
  const visit = (node: unknown, names: Readonly<Record<string, string>>): unknown => {
    if (Array.isArray(node)) return node.map((item) => visit(item, names));
    if (typeof node !== 'object' || node === null) return node;
    const { $defs, $schema: _, ...rest } = node as Record<string, unknown>;
    const known = { ...names };
    for (const [defName, definition] of Object.entries(($defs as Record<string, unknown>) ?? {})) {
      const text = JSON.stringify(definition);
      const name = nameOf.get(text) ?? `Json${nameOf.size + 1}`;
      nameOf.set(text, name);
      known[`#/$defs/${defName}`] = `#/components/schemas/${name}`;
    }
    for (const [defName, definition] of Object.entries(($defs as Record<string, unknown>) ?? {}))
      schemas[known[`#/$defs/${defName}`]?.split('/').at(-1) ?? defName] = visit(definition, known);
    return Object.fromEntries(
      Object.entries(rest).map(([key, value]) => [
        key,
        key === '$ref' && typeof value === 'string' ? (known[value] ?? value) : visit(value, known),
      ]),
    );
  };
  const { components, ...whole } = visit(document, {}) as Described;
  return { ...whole, components: { ...components, ...(Object.keys(schemas).length > 0 ? { schemas } : {}) } };
}
