import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';

/** A day as YYYY-MM-DD; empty where none is typed. */
export const optionalDay = z
  .string()
  .trim()
  .refine((day) => day === '' || isPlainDate(day), 'Give a day as 2026-12-31, or leave it empty.')
  .default('');
