import Joi from 'joi';
import { rowVersion } from '../../base/checking/fields.js';

/** Where a workshop is found, as letters, papers and calendars say it. Empty: it was not said. */
export interface Contact {
  /** street and town, as it stands on a letter */
  readonly address: string;
  readonly phone: string;
  readonly email: string;
  /** under which this server is reached from outside, "https://desk.example": codes, feeds and links are made from it */
  readonly publicAddress: string;
}
export const NO_CONTACT: Contact = { address: '', phone: '', email: '', publicAddress: '' };

export type ContactEdit = Contact & { readonly version: number };
const text = (most: number): Joi.StringSchema => Joi.string().trim().allow('').max(most).required();
export const contactSchema = Joi.object({
  address: text(300),
  phone: text(60),
  email: Joi.string().trim().email({ tlds: false }).allow('').max(200).required(),
  publicAddress: Joi.string()
    .trim()
    .allow('')
    .max(200)
    .uri({ scheme: ['http', 'https'] })
    .custom((value: string, helpers) => {
      const { origin, pathname, search, hash } = new URL(value);
      const bare = pathname === '/' && search === '' && hash === '';
      return bare ? origin : helpers.message({ custom: '{{#label}} is the address of the server alone, such as https://desk.example' });
    })
    .required(),
  version: rowVersion(),
});
