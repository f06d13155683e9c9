import { z } from 'zod';

/** Why somebody did what others will wonder about: a few words at least. */
export const reasonText = (maxLength: number) => z.string().trim().min(3, 'Say why, in a few words.').max(maxLength);
