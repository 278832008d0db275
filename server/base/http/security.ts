import { say } from '../../../core/base/words/say.js';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import type { ServerResponse } from 'node:http';
import { Router, type RequestHandler, type Response } from 'express';
import 'express-session';
import helmet from 'helmet';
import { DomainError } from './errors.js';

/** Where the page of the app holds the nonce of its styles. */
export const NONCE_MARK = '%STYLE_NONCE%';

/** A nonce for the styles of one answer; the page that is sent with it holds the same. */
export const styleNonce = (response: ServerResponse): string => ((response as Response).locals.styleNonce as string | undefined) ?? '';

const giveNonce: RequestHandler = (_request, response, next) => {
  response.locals.styleNonce = randomBytes(16).toString('base64');
  next();
};

/**
 * Headers. No inline script anywhere; everything comes from the app itself. The only style element is the framework's
 * theme, by its nonce; styles of single elements are set by script, which needs no leave. Behind a proxy that speaks TLS browsers are told never to come without it; on loopback there is none.
 */
export const securityHeaders = (overTls: boolean): Router =>
  Router().use(
    giveNonce,
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", (_request, response) => `'nonce-${styleNonce(response)}'`],
          styleSrcAttr: ["'none'"],
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
    }),
  );

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Two checks against forged requests: a browser must say that the page is ours, and whoever is signed in must send the
 * session's token in a header, which no foreign page can do.
 */
export const csrfGuard: RequestHandler = (request, _response, next) => {
  if (SAFE.has(request.method)) return next();
  const site = request.get('sec-fetch-site');
  if (site !== undefined && site !== 'same-origin' && site !== 'none')
    throw new DomainError('csrf', say('This request came from another site and was refused.'));
  const origin = request.get('origin');
  if (origin !== undefined && hostOf(origin) !== request.get('host'))
    throw new DomainError('csrf', say('This request came from another site and was refused.'));
  if (!request.session.signedIn) return next();
  if (!sameToken(request.get('x-lavacrum-token') ?? '', request.session.csrf ?? '')) {
    throw new DomainError('csrf', say('The page is out of date with its session. Reload it; what you typed is still on this device.'));
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
