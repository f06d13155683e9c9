'use client';

import { Pagination } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import NextLink from 'next/link';

/** Links to the pages of a list that has several, under it. */
export function PageLinks({
  path,
  query,
  page,
  count,
  pageSize,
}: {
  path: string;
  query: string;
  /** From 1. */
  page: number;
  /** Rows of the whole list. */
  count: number;
  pageSize: number;
}) {
  if (count <= pageSize) return null;
  const to = (n: number) => {
    const next = new URLSearchParams(query);
    next.set('page', String(n));
    return `${path}?${next}`;
  };
  const last = Math.ceil(count / pageSize);
  return (
    <Pagination.Root page={page} count={count} pageSize={pageSize} siblingCount={1} data-no-print>
      {page > 1 && (
        <Pagination.PrevTrigger asChild>
          <NextLink href={to(page - 1)}>
            <ChevronLeft size={18} />
          </NextLink>
        </Pagination.PrevTrigger>
      )}
      <Pagination.Items
        render={({ value }) => (
          <NextLink href={to(value)} aria-current={value === page ? 'page' : undefined}>
            {value}
          </NextLink>
        )}
      />
      {page < last && (
        <Pagination.NextTrigger asChild>
          <NextLink href={to(page + 1)}>
            <ChevronRight size={18} />
          </NextLink>
        </Pagination.NextTrigger>
      )}
    </Pagination.Root>
  );
}
