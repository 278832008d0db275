import Joi from 'joi';
import { day, id, readText } from '../../base/checking/fields.js';
import { readJson } from '../../base/checking/readJson.js';
import { PAGE } from './pages.js';
import { ATTENTION_ORDER, type Attention } from '../due-dates/attention.js';

/** Which machines of the list, and from where on. */
export interface LinesQuery {
  /** words that all must occur in what a machine is found by */
  readonly q: string;
  readonly attention?: Attention;
  /** near dates of machines that are not overdue, up to the horizon of Today */
  readonly coming: boolean;
  /** the place in the list after which the page begins */
  readonly after?: LinePlace;
  readonly limit: number;
  /** what is called like the words comes first: one page, without counts */
  readonly closest?: true;
}

/** A place in the order of the list: rank of its attention, its date, its name as names are sorted, itself. */
export type LinePlace = readonly [rank: number, dueOn: string, nameKey: string, id: string];

const placeSchema = Joi.array()
  .ordered(
    Joi.number()
      .integer()
      .min(0)
      .max(ATTENTION_ORDER.length - 1)
      .required(),
    Joi.alternatives().try(Joi.valid('infinity'), day()).required(),
    // twelve places for each of at most 120 digits
    Joi.string().allow('').max(1500).required(),
    id().required(),
  )
  .required();

/** A place as an address carries it. */
export const placeText = (place: LinePlace): string => JSON.stringify(place);

const readPlace = (text: string): LinePlace | null => readJson<LinePlace>(placeSchema, text, { convert: false });

export const linesQuerySchema = Joi.object({
  q: Joi.string().trim().allow('').max(120).default(''),
  attention: Joi.string().valid(...ATTENTION_ORDER),
  coming: Joi.boolean().default(false).prefs({ convert: true }),
  after: readText(4000, readPlace),
  limit: Joi.number().integer().min(1).max(PAGE.most).default(PAGE.usual).prefs({ convert: true }),
});
