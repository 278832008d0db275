import { refusal, type Refusal, type Standing } from '../entry.js';

/** A commissioning has no such entries. */
export const onlyInService = (_entry: unknown, { procedure }: Standing): Refusal | null =>
  procedure.service ? null : refusal('unknown-item', { why: 'not-a-service' });
