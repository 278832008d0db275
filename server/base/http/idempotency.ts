import { say } from '../../../core/base/words/say.js';
import { and, eq, lt } from 'drizzle-orm';
import type { Request } from 'express';
import { id } from '../../../core/base/checking/fields.js';
import type { Scope } from '../database/client.js';
import { idempotency } from '../database/tables/people.js';
import type { Ask } from './context.js';
import { DomainError } from './errors.js';
import type { Secrets } from '../servers/secrets.js';

/** days that an answer is kept for whoever sends the same again: longer than any device waits before it asks anew */
const KEPT_DAYS = 7;

/** A request as it counts for its key, under a key of the servers: a password in it cannot be guessed from the fingerprint. */
export interface Fingerprints {
  of(route: string, body: unknown): string;
  /** whether a fingerprint that was kept is this request's, whichever key it was made under */
  isOf(kept: string, route: string, body: unknown): boolean;
}

const textOf = (route: string, body: unknown): string => JSON.stringify([route, body ?? null]);

export const fingerprints = (secrets: Secrets): Fingerprints => ({
  of: (route, body) => secrets.mark('idempotency', textOf(route, body), 'hex'),
  isOf: (kept, route, body) => secrets.recognises('idempotency', textOf(route, body), kept, 'hex'),
});

/**
 * Does the work once for an idempotency key. The key's row is taken first, inside the same transaction: a second submit
 * at the same moment waits for the first and then finds its answer. A key belongs to the person and the route that used it.
 * @param isSecret the answer holds what is shown once: it is not kept, and asked again there is none
 */
export async function once(
  ask: Ask,
  { status, isSecret, prints }: { readonly status: number; readonly isSecret: boolean; readonly prints: Fingerprints },
  work: (ask: Ask) => Promise<object>,
): Promise<object> {
  const key = keyOf(ask.request);
  if (key === null) return work(ask);
  const { scope, account, request } = ask;
  const route = `${request.method} ${request.path}`;
  const own = { workshopId: account.workshopId, key, personId: account.personId, route };
  const body = request.body as unknown;
  const taken = await scope
    .insert(idempotency)
    .values({ ...own, requestHash: prints.of(route, body), status, answer: {}, createdAt: ask.clock.now() })
    .onConflictDoNothing()
    .returning({ key: idempotency.key });
  const mine = and(eq(idempotency.workshopId, account.workshopId), eq(idempotency.key, key));
  if (taken.length === 0) {
    const [before] = await scope.select().from(idempotency).where(mine);
    if (before?.route !== route || before.personId !== account.personId || !prints.isOf(before.requestHash, route, body))
      throw new DomainError('conflict', say('This idempotency key was already used for something else; use a fresh one.'));
    if (isSecret)
      throw new DomainError(
        'conflict',
        say('This was made already, and its secret is shown once. Make a new one; the old one then stops working.'),
      );
    return before.answer as object;
  }
  const answer = await work(ask);
  if (!isSecret) await scope.update(idempotency).set({ answer }).where(mine);
  return answer;
}

/** Answers that nobody asks for any more. */
export const pruneAnswers = (scope: Scope, now: Date): Promise<unknown> =>
  scope.delete(idempotency).where(lt(idempotency.createdAt, new Date(now.getTime() - KEPT_DAYS * 86_400_000)));

function keyOf(request: Request): string | null {
  const key = request.get('idempotency-key');
  if (key === undefined) return null;
  if (id().validate(key).error) throw new DomainError('invalid-input', say('The idempotency key must be a UUID.'));
  return key.toLowerCase();
}
