import { say, sayText } from '../words/say.js';
import type Joi from 'joi';
import { refusalMessages } from './refusals.js';

/** One thing that is wrong with an input, and where. `path` starts at the document's root, e.g. `loop.components[2].ports`. */
export interface FieldProblem {
  readonly path: string;
  readonly message: string;
}

/** Input that was refused whole. `fields` holds every problem found; `message` and `path` are those of the first. */
export class InputProblem extends Error {
  readonly code = 'invalid-input';
  readonly path: string;
  readonly fields: readonly FieldProblem[];

  constructor(fields: readonly FieldProblem[]) {
    const first = fields[0] ?? { path: '', message: 'the input is not valid' };
    super(first.message);
    this.name = 'InputProblem';
    this.path = first.path;
    this.fields = fields;
  }
}

/** Throws an `InputProblem` about one place. */
export function refuse(path: string, message: string): never {
  throw new InputProblem([{ path, message }]);
}

/** `['components', 2, 'ports']` → `components[2].ports`. */
export function formatPath(segments: readonly (string | number)[]): string {
  return segments.reduce<string>((path, segment) => {
    if (typeof segment === 'number') return `${path}[${segment}]`;
    return path === '' ? segment : `${path}.${segment}`;
  }, '');
}

/** Shows a refused value beside the rule it broke, shortened so that a 10 MB string does not come back. */
function describeValue(value: unknown): string {
  if (value === undefined) return '';
  if (typeof value === 'number' && !Number.isFinite(value)) return say(' (got {value})', { value: String(value) });
  const text = JSON.stringify(value) as string | undefined;
  if (text === undefined) return '';
  return say(' (got {value})', { value: text.length > 40 ? `${text.slice(0, 37)}…` : text });
}

/** More than a screen can show helps nobody. */
const MOST_PROBLEMS = 50;

/** Codes whose message gains nothing from repeating the value. */
const SELF_EXPLAINING = new Set(['any.required', 'object.unknown', 'string.empty', 'any.custom']);

/**
 * Checks raw input once, at the edge. After this call the core trusts the type.
 * No value is converted: "12" is not a number. Unknown fields are refused unless the schema allows them.
 * @throws InputProblem with every problem found
 */
export function readInput<T>(schema: Joi.Schema, input: unknown): T {
  const { error, value } = schema.required().validate(input, {
    abortEarly: false,
    convert: false,
    errors: { wrap: { label: false }, label: 'path' },
    messages: refusalMessages(),
  }) as { error?: Joi.ValidationError; value: unknown };
  if (!error) return value as T;
  // One value can break several rules; the first says what matters.
  const first = new Map<string, FieldProblem>();
  for (const detail of error.details) {
    if (first.size === MOST_PROBLEMS) break;
    const path = formatPath(detail.path);
    // a schema's own messages were made when the program was loaded, whoever reads them now
    if (!first.has(path)) first.set(path, { path, message: sayText(readable(detail)) });
  }
  throw new InputProblem([...first.values()]);
}

/** Fields whose value never comes back, wherever a message is shown or kept. */
const SECRETS: readonly (string | number | undefined)[] = ['password', 'current', 'secret', 'token'];
const isSecret = (path: readonly (string | number)[]): boolean => SECRETS.includes(path.at(-1));

function readable(detail: Joi.ValidationErrorItem): string {
  if (detail.type === 'object.unknown')
    return say('{path} is not a known field; remove it or check its spelling', { path: formatPath(detail.path) });
  if (detail.path.length === 0)
    return detail.message.replace(/^value/, say('the document')) + (detail.type.endsWith('.base') ? describeShape(detail) : '');
  return SELF_EXPLAINING.has(detail.type) || isSecret(detail.path) ? detail.message : `${detail.message}${describeValue(detail.context?.value)}`; // prettier-ignore
}

function describeShape(detail: Joi.ValidationErrorItem): string {
  const value: unknown = detail.context?.value;
  if (value === undefined) return '';
  return Array.isArray(value) ? say(' (got a list)') : say(' (got {value})', { value: value === null ? 'null' : `a ${typeof value}` });
}

/** Refuses a day that lies in the future, of something that is said to have happened. @throws InputProblem */
export function demandPast(path: string, on: string, today: string): void {
  if (on > today) refuse(path, say('cannot lie in the future; today is {today} (got {on})', { today, on }));
}
