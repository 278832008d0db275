/** What people of a workshop do. Constants stand apart from the schemas, so that screens need not load the checker. */
export const ROLES = { technician: 'technician', lead: 'lead', 'front-desk': 'front desk' } as const;
export type Role = keyof typeof ROLES;

/** Length is what protects a password; composition rules only make people write it down. */
export const LEAST_PASSWORD_LENGTH = 10;

/** What somebody signs in on, as the device itself tells. */
export const DEVICES = { computer: 'a computer', tablet: 'a tablet', phone: 'a phone' } as const;
export type Device = keyof typeof DEVICES;
