/** Fields that hold a password: what was typed in them comes back to no page. */
export const SECRET_FIELDS = ['password', 'current'] as const;
export type SecretField = (typeof SECRET_FIELDS)[number];
