import type { Contact } from '../../../core/workshop/people/contact.js';

/** Where a workshop is, in one line of a paper. */
export const whereOf = ({ address, phone, email }: Contact): string => [address, phone, email].filter(Boolean).join(' · ');
