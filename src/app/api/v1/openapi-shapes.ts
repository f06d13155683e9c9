import { z } from 'zod';

/* How a path of the API is described. */

export const json = (schema: z.ZodType, io: 'input' | 'output') => ({
  'application/json': { schema: z.toJSONSchema(schema, { io, unrepresentable: 'any' }) },
});

export const PROBLEM = {
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
export const REFUSALS = { 401: PROBLEM, 403: PROBLEM, 422: PROBLEM };

export function parameters(schema: z.ZodObject) {
  const { properties = {}, required = [] } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
  return Object.entries(properties).map(([name, shape]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema: shape,
  }));
}

export const list = (summary: string, query: z.ZodObject, output: z.ZodType) => ({
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

export const ID = { name: 'id', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } };

export const PHOTO = { ...ID, name: 'photo' };
export const PICTURE = Object.fromEntries(
  ['image/jpeg', 'image/png', 'image/webp'].map((type) => [type, { schema: { type: 'string', format: 'binary' } }]),
);
export const write = (summary: string, input: z.ZodType, output: z.ZodType) => ({
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
