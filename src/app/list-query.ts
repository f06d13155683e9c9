/* A filtered list lives in its address: each parameter once, empty ones left out. */

type Search = Readonly<Record<string, string | string[] | undefined>>;

export const queryOf = (search: Search): URLSearchParams =>
  new URLSearchParams(
    Object.entries(search).flatMap(([name, value]) =>
      typeof value === 'string' && value !== '' ? [[name, value]] : [],
    ),
  );

/** The page asked for, from 1. */
export const pageOf = (query: URLSearchParams): number =>
  Math.max(1, Number.parseInt(query.get('page') ?? '1', 10) || 1);
