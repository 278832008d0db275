import { say, sayWord } from '../../../core/base/words/say.js';
import { InputProblem, type FieldProblem } from '../../../core/base/checking/input.js';

export type ErrorCode =
  | 'invalid-input'
  | 'broken-json'
  | 'too-large'
  | 'wrong-type'
  | 'signed-out'
  | 'wrong-credentials'
  | 'forbidden'
  | 'csrf'
  | 'not-found'
  | 'stale'
  | 'conflict'
  | 'refused'
  | 'too-many'
  | 'busy'
  | 'database-away'
  | 'internal';

const STATUS: Record<ErrorCode, number> = {
  'invalid-input': 422,
  'broken-json': 400,
  'too-large': 413,
  'wrong-type': 415,
  'signed-out': 401,
  'wrong-credentials': 401,
  forbidden: 403,
  csrf: 403,
  'not-found': 404,
  stale: 409,
  conflict: 409,
  refused: 409,
  'too-many': 429,
  busy: 503,
  'database-away': 503,
  internal: 500,
};

/** An error the person at the screen can act on. `details` travels in the answer beside the message. */
export class DomainError extends Error {
  readonly status: number;

  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message);
    this.name = 'DomainError';
    this.status = STATUS[code];
  }
}

export const notFound = (what: string): DomainError =>
  new DomainError('not-found', say('There is no such {what} in this workshop.', { what }));

/** A save that was made from an older version. Both versions travel back, so that the screen can show them side by side. */
export const stale = (what: string, yours: unknown, theirs: unknown): DomainError =>
  new DomainError(
    'stale',
    say('Somebody saved this {what} after you opened it. Nothing of yours was written; compare and save again.', { what }),
    {
      yours,
      theirs,
    },
  );

export interface ErrorAnswer {
  readonly error: { code: string; message: string; path?: string; fields?: readonly FieldProblem[] } & Record<string, unknown>;
}

export function answerOf(error: unknown): { status: number; body: ErrorAnswer } {
  const known = toDomain(error);
  if (known instanceof InputProblem) {
    return {
      status: STATUS['invalid-input'],
      body: { error: { code: known.code, message: known.message, path: known.path, fields: known.fields } },
    };
  }
  return { status: known.status, body: { error: { code: known.code, message: known.message, ...known.details } } };
}

/** Constraint names whose breach has a plain explanation. */
const CONSTRAINT_WORDS: Record<string, string> = {
  person_email_once: 'That e-mail address already has an account.',
  bench_name_once: 'There is already a bench of that name.',
  coolant_product_name_once: 'There is already a coolant of that name.',
  own_part_label_once: 'There is already a part of that name.',
  loop_layout_name_once: 'There is already a layout of that name.',
  case_template_label_once: 'There is already a case of that name.',
  coolant_lot_once: 'That lot is already recorded for this coolant.',
  run_one_active_per_loop: 'This loop is already being commissioned; open the run in progress.',
};

interface DatabaseError {
  readonly code: string;
  readonly constraint?: string;
}

/** The driver's error sits under the query builder's; only its SQLSTATE and constraint are used, never its parameters. */
export function databaseErrorOf(error: unknown): DatabaseError | null {
  for (let current: unknown = error, depth = 0; current instanceof Error && depth < 5; current = current.cause, depth += 1) {
    const { code, constraint } = current as Error & { code?: unknown; constraint?: string };
    if (typeof code === 'string') return { code, constraint };
  }
  return null;
}

/** refuses or breaks connections: down, starting, told to end a session that paused too long, full of connections, closed or away while it is brought back */
const AWAY = new Set([
  ...['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND'],
  ...['57P01', '57P02', '57P03', '25P03', '53300', '55000', '3D000'],
]);

export const isDatabaseAway = (error: unknown): boolean => {
  const code = databaseErrorOf(error)?.code;
  if (code !== undefined) return AWAY.has(code) || code.startsWith('08');
  return (
    error instanceof Error &&
    /Connection terminated|timeout exceeded when trying to connect/.test(
      `${error.message} ${error.cause instanceof Error ? error.cause.message : ''}`,
    )
  );
};

function toDomain(error: unknown): DomainError | InputProblem {
  if (error instanceof DomainError || error instanceof InputProblem) return error;
  if (isDatabaseAway(error))
    return new DomainError('database-away', say('The database does not answer. Nothing was saved; try again in a moment.'));
  const fromBody = bodyError(error);
  if (fromBody) return fromBody;
  const database = databaseErrorOf(error);
  const words = SQLSTATES[database?.code ?? ''];
  if (!database || !words) return new DomainError('internal', say('Something failed on the server. Nothing was saved.'));
  const own = database.constraint === undefined ? undefined : sayWord(CONSTRAINT_WORDS[database.constraint]);
  if (words[0] === 'conflict' && own !== undefined) return new DomainError('conflict', own);
  return new DomainError(words[0], words[1].replace('{constraint}', database.constraint ? ` (${database.constraint})` : ''));
}

const TOO_LARGE = ['invalid-input', 'A number or a date is larger than can be stored.'] as const;
const CHARACTERS = ['invalid-input', 'A text holds a character that cannot be stored; remove control characters.'] as const;
const REFUSED_VALUE = ['invalid-input', 'The database refused a value{constraint}.'] as const;
const AT_ONCE = ['conflict', 'Somebody else saved at the same moment. Nothing of yours was written; save again.'] as const;
const DISK = [
  'database-away',
  'The disk of the server is full or cannot be written. Nothing was saved; free space, then try again.',
] as const;
const BUSY = [
  'busy',
  'Somebody else is saving the same thing, and it takes too long. Nothing of yours was written; try again in a moment.',
] as const;

/** What a person can do about what the database refused, by its SQLSTATE (PostgreSQL, appendix A). */
const SQLSTATES: Readonly<Record<string, readonly [ErrorCode, string]>> = {
  '23505': ['conflict', 'That already exists.'],
  '23503': ['not-found', 'Something this refers to is not in this workshop.'],
  '23514': REFUSED_VALUE,
  '23502': REFUSED_VALUE,
  '22003': TOO_LARGE,
  '22007': TOO_LARGE,
  '22008': TOO_LARGE,
  '22P02': CHARACTERS,
  '22P05': CHARACTERS,
  '22021': CHARACTERS,
  '40001': AT_ONCE,
  '40P01': AT_ONCE,
  '53100': DISK,
  '58030': DISK,
  '55P03': BUSY,
  '57014': BUSY,
  LC001: ['refused', 'A log or a signed record is never rewritten; add a correction.'],
};

/** Errors of the JSON body reader. */
function bodyError(error: unknown): DomainError | null {
  const type = (error as { type?: unknown } | null)?.type;
  if (type === 'entity.parse.failed') return new DomainError('broken-json', say('The request is not valid JSON.'));
  if (type === 'entity.too.large') {
    const { limit = 0 } = error as { limit?: number };
    const most = limit >= 2 ** 20 ? `${limit / 2 ** 20} MB` : `${limit / 2 ** 10} kB`;
    return new DomainError('too-large', say('The request is larger than it may be, {most}.', { most }));
  }
  if (type === 'encoding.unsupported' || type === 'charset.unsupported') return new DomainError('wrong-type', say('Send UTF-8 JSON.'));
  if (type === 'request.aborted' || type === 'request.size.invalid') return new DomainError('broken-json', say('The request ended early.'));
  if (error instanceof URIError) return new DomainError('broken-json', say('The address is not a valid one.'));
  // what the framework itself blames on the request: a body that is not packed as it says, an address with a zero byte
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 500
    ? new DomainError('broken-json', say('The request cannot be read.'))
    : null;
}
