/** What people of a workshop do. Constants stand apart from the schemas, so that screens need not load the checker. */
export const ROLES = { technician: 'technician', lead: 'lead', 'front-desk': 'front desk' } as const;
export type Role = keyof typeof ROLES;

/** Length is what protects a password; composition rules only make people write it down. */
export const LEAST_PASSWORD_LENGTH = 10;
