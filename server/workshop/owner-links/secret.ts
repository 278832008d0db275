import { createHash, randomBytes } from 'node:crypto';
import { LINK } from '../../../core/workshop/owner-door/address.js';

export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('base64url');
export const newSecret = (): string => randomBytes(LINK.secretBytes).toString('base64url');
