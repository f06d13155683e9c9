import { Validator } from '@seriousme/openapi-schema-validator';
import { describe, expect, it } from 'vitest';
import { openApiDocument } from './openapi';

const document = JSON.parse(JSON.stringify(openApiDocument('https://isobar.example'))) as Record<string, unknown>;

function refsOf(node: unknown): string[] {
  if (Array.isArray(node)) return node.flatMap(refsOf);
  if (typeof node !== 'object' || node === null) return [];
  return Object.entries(node).flatMap(([key, value]) =>
    key === '$ref' && typeof value === 'string' ? [value] : refsOf(value),
  );
}

const resolves = (ref: string): boolean =>
  ref
    .split('/')
    .slice(1)
    .reduce<unknown>((node, key) => (node as Record<string, unknown> | undefined)?.[key], document) !== undefined;

describe('the description of the HTTP interface', () => {
  it('is a valid OpenAPI document', async () => {
    expect(await new Validator().validate(document)).toMatchObject({ valid: true });
  });

  it('refers to nothing that is not there', () => {
    const refs = refsOf(document);
    expect(refs.length).toBeGreaterThan(0);
    expect(refs.filter((ref) => !resolves(ref))).toEqual([]);
    expect(JSON.stringify(document)).not.toContain('$defs');
  });

  it('says where it is served', () => {
    expect(document.servers).toEqual([{ url: 'https://isobar.example' }]);
  });
});
