import { randomBytes } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import { Router, type Request, type RequestHandler, type Response } from 'express';
import session from 'express-session';
import type pg from 'pg';
import type { SignedIn } from '../../base/http/context.js';
import type { Secrets } from '../../base/servers/secrets.js';

export const SESSION = {
  /** ms; two weeks without use: a tablet at the bench is not asked every morning */
  idleMs: 14 * 86_400_000,
  /** ms; however often it is used, somebody signs in again after a month */
  mostMs: 30 * 86_400_000,
} as const;

/** ms; the end of a session that is used moves on no more often than that: a page is several requests, each of which would write */
const TOUCH_EVERY_MS = 60_000;
/** sessions whose last move is remembered; above it all are forgotten, and moved once more than needed */
const MOST_REMEMBERED = 10_000;

/** Moves the end of sessions on, seldom. */
class SeldomTouched extends connectPgSimple(session) {
  private readonly touchedMs = new Map<string, number>();

  override touch(sid: string, data: session.SessionData, done?: () => void): void {
    const nowMs = Date.now();
    if (nowMs - (this.touchedMs.get(sid) ?? 0) < TOUCH_EVERY_MS) return done?.();
    if (this.touchedMs.size >= MOST_REMEMBERED) this.touchedMs.clear();
    this.touchedMs.set(sid, nowMs);
    super.touch(sid, data, done);
  }
}

export interface SessionOptions {
  readonly pool: pg.Pool;
  readonly secrets: Secrets;
  /** behind a proxy that speaks TLS: the cookie is sent over TLS alone, and belongs to this host and no other */
  readonly overTls: boolean;
}

/** A cookie that no neighbour under the same domain can plant, where browsers can promise it. */
export const cookieName = (overTls: boolean): string => (overTls ? '__Host-lavacrum' : 'lavacrum');

export function sessions({ pool, secrets, overTls }: SessionOptions): Router {
  const router = Router();
  // pruning by timer keeps a test's process alive; expired sessions are ignored either way
  const store = new SeldomTouched({ pool, tableName: 'session', pruneSessionInterval: process.env.NODE_ENV === 'test' ? false : 3600 });
  let made: { readonly keys: readonly string[]; readonly handler: RequestHandler } | null = null;
  const handlerOf = (keys: readonly string[]): RequestHandler =>
    session({
      name: cookieName(overTls),
      secret: [...keys],
      resave: false,
      saveUninitialized: false,
      rolling: true,
      cookie: { httpOnly: true, sameSite: 'strict', secure: overTls, maxAge: SESSION.idleMs, path: '/' },
      store,
    });
  router.use((request, response, next) => {
    // keys change while the server runs: from then on cookies are signed with the new one
    if (made?.keys !== secrets.all) made = { keys: secrets.all, handler: handlerOf(secrets.all) };
    made.handler(request, response, next);
  }, endsInTime);
  return router;
}

/** A session that is used every day ends as well: what was stolen once is worth something for a month at most. */
const endsInTime: RequestHandler = (request, _response, next) => {
  const { signedIn } = request.session;
  if (!signedIn) return next();
  // by the machine's own clock, like the expiry of the cookie; sessions of older programs have no beginning: it is now
  signedIn.sinceMs ??= Date.now();
  if (Date.now() - signedIn.sinceMs <= SESSION.mostMs) return next();
  request.session.regenerate(next);
};

/** A fresh session id at sign-in, so that one planted beforehand is worth nothing. */
export function beginSession(request: Request, signedIn: SignedIn): Promise<string> {
  return new Promise((resolve, reject) => {
    request.session.regenerate((error: unknown) => {
      if (error) return reject(error instanceof Error ? error : new Error('session store'));
      const token = randomBytes(24).toString('base64url');
      request.session.signedIn = signedIn;
      request.session.csrf = token;
      request.session.save((saveError: unknown) =>
        saveError ? reject(saveError instanceof Error ? saveError : new Error('session store')) : resolve(token),
      );
    });
  });
}

export function endSession(request: Request): Promise<void> {
  return new Promise((resolve, reject) => {
    request.session.destroy((error: unknown) => (error ? reject(error instanceof Error ? error : new Error('session store')) : resolve()));
  });
}

/** Nothing of a session stays in the browser: no cookie, nothing in its cache. Entries that wait to be sent stay on the device. */
export function forget(response: Response, overTls: boolean): Response {
  return response.clearCookie(cookieName(overTls), { path: '/', secure: overTls }).set('clear-site-data', '"cache"');
}
