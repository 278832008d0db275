import type Joi from 'joi';
import { reading, type Reading } from '../units/reading.js';
import { say } from '../words/say.js';

/**
 * What is said of a field that breaks a rule, by the code that the schema library gives it. English is the library's own; here stands what
 * another language says anew. `{label}` is the field, `{limit}` what the rule allows.
 */
const REFUSAL_WORDS = {
  'any.required': '{label} is required',
  'any.only': '{label} must be one of {valids}',
  'any.invalid': '{label} holds a value that is not allowed',
  'string.base': '{label} must be a text',
  'string.empty': '{label} may not be empty',
  'string.min': '{label} needs {limit} characters at least',
  'string.max': '{label} may have {limit} characters at most',
  'string.email': '{label} must be an e-mail address',
  'string.guid': '{label} must be an id',
  'string.uri': '{label} must be an address of the web',
  'string.pattern.name': '{label} must be {name}',
  'number.base': '{label} must be a number',
  'number.unsafe': '{label} must be a smaller number',
  'number.integer': '{label} must be a whole number',
  'number.min': '{label} must be at least {limit}',
  'number.max': '{label} may be at most {limit}',
  'number.greater': '{label} must be more than {limit}',
  'number.less': '{label} must be less than {limit}',
  'number.positive': '{label} must be more than zero',
  'boolean.base': '{label} must be yes or no',
  'array.base': '{label} must be a list',
  'array.min': '{label} needs {limit} entries at least',
  'array.max': '{label} may have {limit} entries at most',
  'array.unique': '{label} stands in the list twice',
  'object.base': '{label} must be an object',
} as const satisfies Record<string, string>;

/** places that the library fills in itself */
const places = { label: '{{#label}}', limit: '{{#limit}}', valids: '{{#valids}}', name: '{{#name}}' } as const;

const english: Joi.LanguageMessages = {
  // a named pattern is named by what would be right
  'string.pattern.name': '{{#label}} must be {{#name}}',
};
const made = new Map<Reading['language'], Joi.LanguageMessages>([['en', english]]);

/** The library's messages in the reader's language. */
export function refusalMessages(): Joi.LanguageMessages {
  const { language } = reading();
  const known = made.get(language);
  if (known) return known;
  const messages = Object.fromEntries(Object.entries(REFUSAL_WORDS).map(([code, words]) => [code, say(words, places)]));
  made.set(language, messages);
  return messages;
}
