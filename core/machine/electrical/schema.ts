import Joi from 'joi';
import { say } from '../../base/words/say.js';
import { finite, name } from '../../base/checking/fields.js';
import { BOARD, CABLES, CONNECTOR_KIND_KEYS, MOST_WHY, SUPPLY, type ElectricalSheet, type Connector } from './sheet.js';

export interface SheetInput {
  readonly sheet: ElectricalSheet;
  /** how often it had been saved when it was read; 0: there was none */
  readonly version: number;
}

const connectorId = (): Joi.StringSchema =>
  Joi.string()
    .pattern(/^[a-z][a-z0-9-]{0,30}$/)
    .invalid(SUPPLY, BOARD);

const connector = Joi.object({
  id: connectorId().required(),
  kind: Joi.string()
    .valid(...CONNECTOR_KIND_KEYS)
    .required(),
  name: name().required(),
  from: Joi.alternatives(Joi.string().valid(SUPPLY, BOARD), connectorId()).required(),
  openWhy: Joi.string().trim().min(1).max(MOST_WHY).allow(null).required(),
  cable: Joi.string()
    .valid(...Object.keys(CABLES))
    .required(),
  of: Joi.object({ loopId: Joi.string().guid().required(), part: Joi.string().min(1).max(120).required() })
    .allow(null)
    .required(),
  fans: Joi.object({
    count: Joi.number().integer().min(1).max(20).required(),
    sizeMm: finite().min(40).max(250).required(),
  })
    .allow(null)
    .required(),
});

/** What a sheet must keep so that it can be followed at the bench; the first that it does not, in words. */
function brokenRule(connectors: readonly Connector[]): string | null {
  const hubs = new Map(connectors.filter(({ kind }) => kind === 'hub').map((each) => [each.id, each]));
  if (new Set(connectors.map(({ id }) => id)).size < connectors.length) return say('two connectors have the same id');
  const names = connectors.map((each) => each.name.trim().toLowerCase());
  const twice = connectors.find((_, index) => names.indexOf(names[index] as string) !== index);
  if (twice) return say('"{name}" stands there twice: what is pulled must come back by one name', { name: twice.name });
  if (connectors.filter(({ kind }) => kind === 'board-main').length > 1) return say('a board has one main connector');
  for (const { name: own, from, kind, of } of connectors) {
    if (from !== SUPPLY && from !== BOARD && !hubs.has(from)) return say('"{name}" hangs on a hub that is not there', { name: own });
    if (kind === 'pump' && of === null) return say('"{name}" drives no pump of a loop: say which', { name: own });
    if (kind.startsWith('board-') && from !== SUPPLY) return say('"{name}" comes from the supply', { name: own });
  }
  for (const { id, name: own } of hubs.values()) {
    const seen = new Set([id]);
    for (let up = hubs.get(id)?.from; up !== undefined; up = hubs.get(up)?.from) {
      if (seen.has(up)) return say('"{name}" feeds itself', { name: own });
      seen.add(up);
    }
  }
  return null;
}

export const sheetSchema = Joi.object({
  version: Joi.number().integer().min(0).max(1_000_000).required(),
  sheet: Joi.object({
    supply: Joi.string().trim().max(120).allow('').required(),
    connectors: Joi.array().items(connector).max(80).required(),
  })
    .required()
    .custom((sheet: ElectricalSheet, helpers) => {
      const why = brokenRule(sheet.connectors);
      return why === null ? sheet : helpers.message({ custom: why });
    }),
});
