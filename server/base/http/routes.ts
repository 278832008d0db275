import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { Request, RequestHandler, Response, Router } from 'express';
import { id } from '../../../core/base/checking/fields.js';
import { idempotency } from '../database/tables/people.js';
import { runScoped, type App, type Ask } from './context.js';
import { DomainError } from './errors.js';

/** An answer as a route makes it: an instant may still be a date, which becomes its ISO string on the way. */
export type Made<T> = T extends string
  ? string extends T
    ? T | Date
    : T
  : T extends readonly (infer E)[]
    ? readonly Made<E>[]
    : T extends object
      ? { readonly [K in keyof T]: Made<T[K]> }
      : T;
/** What a route does; its type is that of the answer, which stands in core beside the request's schema. */
type Work<T> = (ask: Ask) => Promise<Made<T>>;
type Method = 'get' | 'post' | 'put' | 'delete';

/** Registers routes that need a session. Each is a transaction of its own: it answers, or nothing was written. */
export interface Routes {
  get<T extends object>(path: string, work: Work<T>): void;
  put<T extends object>(path: string, work: Work<T>): void;
  delete<T extends object>(path: string, work: Work<T>): void;
  /** answers 201; a repeated idempotency key gets the first answer again */
  post<T extends object>(path: string, work: Work<T>): void;
}

export function routesOn(router: Router, app: App): Routes {
  const on = <T extends object>(method: Method, path: string, work: Work<T>, status: number): void => {
    const handler: RequestHandler = async (request, response) => {
      const result = await runScoped(app, request, (ask) => (method === 'post' ? once(ask, status, work) : work(ask)));
      send(response, status, result);
    };
    router[method](path, handler);
  };
  return {
    get: (path, work) => on('get', path, work, 200),
    put: (path, work) => on('put', path, work, 200),
    delete: (path, work) => on('delete', path, work, 200),
    post: (path, work) => on('post', path, work, 201),
  };
}

function send(response: Response, status: number, body: object): void {
  response.status(status).json(body);
}

/**
 * Does the work once for an idempotency key. The key's row is taken first, inside the same transaction: a second submit
 * at the same moment waits for the first and then finds its answer.
 */
async function once(ask: Ask, status: number, work: (ask: Ask) => Promise<object>): Promise<object> {
  const key = keyOf(ask.request);
  if (key === null) return work(ask);
  const { scope, account, request } = ask;
  const route = `${request.method} ${request.originalUrl.split('?')[0]}`;
  const requestHash = createHash('sha256')
    .update(JSON.stringify(request.body ?? null))
    .digest('hex');
  const taken = await scope
    .insert(idempotency)
    .values({
      workshopId: account.workshopId,
      key,
      personId: account.personId,
      route,
      requestHash,
      status,
      answer: {},
      createdAt: ask.clock.now(),
    })
    .onConflictDoNothing()
    .returning({ key: idempotency.key });
  const mine = and(eq(idempotency.workshopId, account.workshopId), eq(idempotency.key, key));
  if (taken.length === 0) {
    const [before] = await scope.select().from(idempotency).where(mine);
    if (!before || before.route !== route || before.requestHash !== requestHash) {
      throw new DomainError('conflict', 'This idempotency key was already used for something else; use a fresh one.');
    }
    return before.answer as object;
  }
  const answer = await work(ask);
  await scope.update(idempotency).set({ answer }).where(mine);
  return answer;
}

function keyOf(request: Request): string | null {
  const key = request.get('idempotency-key');
  if (key === undefined) return null;
  if (id().validate(key).error) throw new DomainError('invalid-input', 'The idempotency key must be a UUID.');
  return key.toLowerCase();
}
