import type { Request, RequestHandler } from 'express';
import { rateLimit, type Options } from 'express-rate-limit';
import type { Database } from '../database/client.js';
import { SharedAttempts } from '../servers/attempts.js';
import { answerOf, DomainError } from './errors.js';

export interface Limit extends Partial<Pick<Options, 'skip' | 'skipSuccessfulRequests'>> {
  /** what is counted; two limits of one name count together */
  readonly what: string;
  readonly most: number;
  readonly windowMs: number;
  readonly keyOf: (request: Request) => string;
  /** what is said beyond it, to whoever asks */
  readonly words: () => string;
}

/** So many requests in a while, over all servers; beyond, they are refused in words. */
export const limited = (database: Database, { what, most, windowMs, keyOf, words, ...more }: Limit): RequestHandler =>
  rateLimit({
    ...more,
    windowMs,
    limit: most,
    store: new SharedAttempts(database, what, windowMs),
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    keyGenerator: keyOf,
    handler: (_request, response) => {
      const { status, body } = answerOf(new DomainError('too-many', words()));
      response.status(status).json(body);
    },
  });
