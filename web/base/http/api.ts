import { say } from '@core/base/words/say.js';
import type { FieldProblem } from '@core/base/checking/input.js';
import { answeredAhead, forgetAhead } from './ahead.js';

/** An answer that is not a success: what is wrong, where, and what would be right. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly fields: readonly FieldProblem[],
    readonly details: Record<string, unknown>,
  ) {
    super(message);
    this.name = 'ApiError';
  }
}

let token: string | null = null;
let onSignedOut: () => void = () => undefined;
let renewToken: () => Promise<unknown> = async () => undefined;

export function setToken(value: string | null): void {
  token = value;
}

/** Called when the session has ended while somebody was working. */
export function whenSignedOut(handler: () => void): void {
  onSignedOut = handler;
}

/** How to fetch the session's token anew: a page that was opened without the network has none. */
export function whenTokenIsOld(renew: () => Promise<unknown>): void {
  renewToken = renew;
}

interface Options {
  readonly body?: unknown;
  /** the same key makes a repeated submit count once */
  readonly idempotencyKey?: string;
  readonly signal?: AbortSignal;
}

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

export async function call<T>(method: Method, path: string, options: Options = {}): Promise<T> {
  // a page that was opened without the network has no token yet: fetched first, instead of learning so by a refusal
  if (method !== 'GET' && token === null && path !== '/session')
    await renewToken().catch((error: unknown) => {
      // still away: sent without a token it would be refused if the network came back in between
      if (error instanceof ApiError && error.status === 0) throw error;
    });
  for (let again = 0; ; again += 1) {
    try {
      return await ask<T>(method, path, options);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.code === 'csrf' && again === 0) {
        // nothing was written: the token goes first, the work only after it
        await renewToken();
        continue;
      }
      const waitMs = AGAIN_MS[again];
      // a question does nothing twice: asked again before anybody is told to come back later
      if (method !== 'GET' || !OVER_SOON.has(error.code) || waitMs === undefined) throw error;
      await pause(waitMs, options.signal);
    }
  }
}

/** What a server says that is overrun, or whose database is just coming back. */
const OVER_SOON: ReadonlySet<string> = new Set(['busy', 'database-away']);
/** ms before a question is asked again, each time */
const AGAIN_MS = [300, 900, 2000] as const;

const pause = (ms: number, signal?: AbortSignal): Promise<void> =>
  new Promise((resolve, reject) => {
    const ended = (): void => {
      clearTimeout(timer);
      reject(new DOMException('no longer asked for', 'AbortError'));
    };
    const timer = setTimeout(() => {
      signal?.removeEventListener('abort', ended);
      resolve();
    }, ms);
    if (signal?.aborted) ended();
    else signal?.addEventListener('abort', ended, { once: true });
  });

async function ask<T>(method: Method, path: string, options: Options): Promise<T> {
  const headers: Record<string, string> = { accept: 'application/json' };
  if (options.body !== undefined) headers['content-type'] = 'application/json';
  if (token !== null) headers['x-lavacrum-token'] = token;
  if (options.idempotencyKey) headers['idempotency-key'] = options.idempotencyKey;
  if (method !== 'GET') forgetAhead();
  let response = method === 'GET' ? await answeredAhead(path) : null;
  try {
    response ??= await fetch(`/api${path}`, {
      method,
      headers,
      body: options.body === undefined ? undefined : JSON.stringify(options.body),
      signal: options.signal,
      credentials: 'same-origin',
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ApiError(0, 'unreachable', say('The server cannot be reached. Nothing was saved; what you typed is still here.'), [], {});
  }
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as T;
  const error = toApiError(response.status, answer);
  if (error.code === 'signed-out') onSignedOut();
  throw error;
}

function toApiError(status: number, answer: unknown): ApiError {
  const body = (answer as { error?: Record<string, unknown> } | null)?.error;
  if (!body) return new ApiError(status, 'internal', say('The server gave an answer that cannot be read. Nothing was saved.'), [], {});
  const { code, message, fields, ...details } = body as { code: string; message: string; fields?: FieldProblem[] };
  return new ApiError(status, code, message, fields ?? [], details);
}

export const get = <T>(path: string, signal?: AbortSignal): Promise<T> => call<T>('GET', path, { signal });

/** Words for any failure, for showing beside the button that was pressed. */
export const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : say('Something failed. Nothing was saved.'));
