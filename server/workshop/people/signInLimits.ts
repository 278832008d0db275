import { say } from '../../../core/base/words/say.js';
import { Router, type Request, type RequestHandler, type Response } from 'express';
import { ipKeyGenerator } from 'express-rate-limit';
import { limited } from '../../base/http/limits.js';
import type { Database } from '../../base/database/client.js';
import type { Secrets } from '../../base/servers/secrets.js';

/** Failed sign-ins allowed in the window. */
export interface SignInLimit {
  readonly windowMs: number;
  /** for one account from one caller's address, or from a device that signed in to it before */
  readonly tries: number;
  /** for one account from all addresses together, devices that know it left out */
  readonly accountTries: number;
  /** from one address for all accounts together, devices that know theirs left out: a whole shop may share one address */
  readonly addressTries: number;
}
export const SIGN_IN_LIMIT: SignInLimit = { windowMs: 5 * 60_000, tries: 10, accountTries: 50, addressTries: 100 };

/** ms that a device is known after a sign-in */
const KNOWN_MS = 180 * 86_400_000;
/** characters of an address that count: no more are ever an account's */
const MOST_EMAIL = 320;

/**
 * Limits on guessing passwords: by account and by address. A device on which somebody signed in before carries a signed
 * cookie for that account and has tries of its own, so that a neighbour behind the same address, or somebody far away who
 * knows an e-mail address, cannot close the shop.
 */
export function signInLimits(database: Database, limit: SignInLimit, devices: KnownDevices): RequestHandler {
  const { windowMs } = limit;
  const minutes = Math.ceil(windowMs / 60_000);
  const words = (): string =>
    say('Too many failed sign-ins. Wait {say}, then try again.', {
      say: minutes === 5 ? say('five minutes') : say('{minutes} min', { minutes }),
    });
  const limiter = (what: string, most: number, keyOf: (request: Request) => string, sparesKnown: boolean): RequestHandler =>
    limited(database, {
      what,
      most,
      windowMs,
      keyOf,
      words,
      skipSuccessfulRequests: true,
      skip: (request) => sparesKnown && devices.knows(request, emailOf(request)),
    });
  return Router().use(
    limiter('sign-in by address', limit.addressTries, addressOf, true),
    limiter('sign-in by account', limit.accountTries, emailOf, true),
    limiter(
      'sign-in',
      limit.tries,
      (request) => `${devices.knows(request, emailOf(request)) ? 'known' : addressOf(request)} ${emailOf(request)}`,
      false,
    ),
  );
}

export const addressOf = (request: Request): string => ipKeyGenerator(request.ip ?? '');

/** The account that somebody asks for; the body is not checked yet. */
export function emailOf(request: Request): string {
  const { email } = (request.body ?? {}) as { email?: unknown };
  return typeof email === 'string' ? email.trim().toLowerCase().slice(0, MOST_EMAIL) : '';
}

/** Devices that have signed in: a cookie that only this server can make, for one account. */
export class KnownDevices {
  private readonly cookie: string;

  constructor(
    private readonly secrets: Secrets,
    private readonly overTls: boolean,
  ) {
    this.cookie = overTls ? '__Host-lavacrum-device' : 'lavacrum-device';
  }

  knows(request: Request, email: string): boolean {
    const given = (request.get('cookie') ?? '')
      .split(';')
      .map((each) => each.trim())
      .find((each) => each.startsWith(`${this.cookie}=`))
      ?.slice(this.cookie.length + 1);
    return this.secrets.recognises('known device', email, given ?? '');
  }

  remember(response: Response, email: string): void {
    response.cookie(this.cookie, this.secrets.mark('known device', email), {
      httpOnly: true,
      sameSite: 'strict',
      secure: this.overTls,
      maxAge: KNOWN_MS,
      path: '/',
    });
  }
}
