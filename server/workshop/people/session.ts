import { randomBytes } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type pg from 'pg';

const COOKIE = 'lavacrum';
/** ms; two weeks, renewed at use: a tablet at the bench is not asked every morning */
const MAX_AGE_MS = 14 * 86_400_000;

export function sessions(pool: pg.Pool, secret: string, secure: boolean): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: COOKIE,
    secret,
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', secure: secure ? 'auto' : false, maxAge: MAX_AGE_MS, path: '/' },
    // pruning by timer keeps a test's process alive; expired sessions are ignored either way
    store: new Store({ pool, tableName: 'session', pruneSessionInterval: process.env.NODE_ENV === 'test' ? false : 3600 }),
  });
}

/** A fresh session id at sign-in, so that one planted beforehand is worth nothing. */
export function beginSession(request: Request, signedIn: { personId: string; workshopId: string }): Promise<string> {
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

export const cookieName = COOKIE;
