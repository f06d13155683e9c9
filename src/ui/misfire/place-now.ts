import { type Story, whereNow } from '@/core/misfire/case-entry';
import { partOf } from '@/core/misfire/cure';
import type { Hypothesis } from '@/core/misfire/misfire-case';

/** Where a part that a test put elsewhere is to be looked for; null: where its name says. */
export function placeNow({ cause, cylinders }: Hypothesis, away: Story['away']): string | null {
  const part = partOf(cause);
  const [home] = cylinders;
  if (!part || home === undefined || cylinders.length > 1) return null;
  const now = whereNow(away, part, home);
  return now === home ? null : `sits in ${now} now`;
}
