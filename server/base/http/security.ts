import { timingSafeEqual } from 'node:crypto';
import type { RequestHandler } from 'express';
import 'express-session';
import helmet from 'helmet';
import { DomainError } from './errors.js';

/**
 * Headers. No inline script anywhere; everything comes from the app itself. Styles may be inline because the
 * framework's theme writes a style element. Behind a proxy that speaks TLS browsers are told never to come without it; on loopback there is none.
 */
export const securityHeaders = (overTls: boolean): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: overTls ? { maxAge: 31_536_000, includeSubDomains: false } : false,
    crossOriginEmbedderPolicy: false,
    referrerPolicy: { policy: 'same-origin' },
  });

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Two checks against forged requests: a browser must say that the page is ours, and whoever is signed in must send the
 * session's token in a header, which no foreign page can do.
 */
export const csrfGuard: RequestHandler = (request, _response, next) => {
  if (SAFE.has(request.method)) return next();
  const site = request.get('sec-fetch-site');
  if (site !== undefined && site !== 'same-origin' && site !== 'none')
    throw new DomainError('csrf', 'This request came from another site and was refused.');
  const origin = request.get('origin');
  if (origin !== undefined && hostOf(origin) !== request.get('host'))
    throw new DomainError('csrf', 'This request came from another site and was refused.');
  if (!request.session.signedIn) return next();
  if (!sameToken(request.get('x-lavacrum-token') ?? '', request.session.csrf ?? '')) {
    throw new DomainError('csrf', 'The page is out of date with its session. Reload it; what you typed is still on this device.');
  }
  next();
};

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}

function sameToken(given: string, expected: string): boolean {
  const a = Buffer.from(given);
  const b = Buffer.from(expected);
  return a.length === b.length && a.length > 0 && timingSafeEqual(a, b);
}
