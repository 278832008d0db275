import { say } from '../../../core/base/words/say.js';
import type { Request, RequestHandler, Response, Router } from 'express';
import { may, rightOf, WHOSE } from '../../../core/workshop/people/rights.js';
import { runScoped, type App, type Ask } from './context.js';
import { DomainError } from './errors.js';
import { Gate } from './gate.js';
import { once, type Fingerprints } from './idempotency.js';

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
  /** answers 201; a repeated idempotency key gets the first answer again. `secret`: the answer is shown once and kept nowhere */
  post<T extends object>(path: string, work: Work<T>, options?: { readonly secret: true }): void;
}

/**
 * Shares of the pool's twelve connections: what changes one thing (the first id of an address), and all that one workshop
 * asks at once. A row that somebody keeps locked, or a workshop that asks for everything, leaves connections to the others.
 */
const SHARE = { row: 3, rowWaiting: 200, workshop: 8, workshopWaiting: 1000 } as const;
const FIRST_ID = /[0-9a-f]{8}-[0-9a-f-]{27}/i;

export function routesOn(router: Router, app: App, prints: Fingerprints): Routes {
  const rows = new Gate(SHARE.row, SHARE.rowWaiting);
  const workshops = new Gate(SHARE.workshop, SHARE.workshopWaiting);
  const inTurn = <T>(request: Request, work: () => Promise<T>): Promise<T> => {
    const own = (): Promise<T> => workshops.through(request.session.signedIn?.workshopId ?? '', work);
    const id = request.method === 'GET' ? undefined : FIRST_ID.exec(request.path)?.[0];
    return id === undefined ? own() : rows.through(`${request.session.signedIn?.workshopId} ${id.toLowerCase()}`, own);
  };
  const on = <T extends object>(method: Method, path: string, work: Work<T>, status: number, isSecret = false): void => {
    const right = rightOf(method, path);
    const allowed = (ask: Ask): Promise<object> => {
      if (right !== null && !may(ask.account.role, right)) throw new DomainError('forbidden', say(WHOSE[right]));
      return method === 'post' ? once(ask, { status, isSecret, prints }, work) : work(ask);
    };
    const handler: RequestHandler = async (request, response) => {
      const result = await inTurn(request, () => runScoped(app, request, allowed));
      send(response, status, result);
    };
    router[method](path, handler);
  };
  return {
    get: (path, work) => on('get', path, work, 200),
    put: (path, work) => on('put', path, work, 200),
    delete: (path, work) => on('delete', path, work, 200),
    post: (path, work, options) => on('post', path, work, 201, options?.secret),
  };
}

function send(response: Response, status: number, body: object): void {
  response.status(status).json(body);
}
