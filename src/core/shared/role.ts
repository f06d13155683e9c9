/** What a person may do hangs on one of these. */
export const ROLES = ['supervisor', 'technician', 'parts_clerk', 'viewer'] as const;
export type Role = (typeof ROLES)[number];
