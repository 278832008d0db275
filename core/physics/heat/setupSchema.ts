import Joi from 'joi';
import { finite } from '../../base/checking/fields.js';

const share = (): Joi.NumberSchema => finite().min(0).max(1).required();
const byPart = (value: Joi.Schema): Joi.ObjectSchema => Joi.object().pattern(Joi.string().min(1).max(120), value).max(200).required();

/** What is said of a loop's air and load, as it is stored. */
export const heatSetupSchema = Joi.object({
  roomC: finite().min(-10).max(60).required(),
  caseHeatW: finite().min(0).max(5000).required(),
  pumpSpeed: share(),
  fanSpeed: share(),
  loadsW: byPart(finite().min(0).max(3000).allow(null)),
  limitsC: byPart(finite().min(0).max(130).allow(null)),
  air: byPart(
    Joi.object({
      from: Joi.string().valid('room', 'case').required(),
      to: Joi.string().valid('out', 'case').required(),
      blockage: share(),
    }),
  ),
  paces: byPart(share()).optional().default({}),
  fanEnds: Joi.object({ restShare: share(), restSpeed: share(), loadSpeed: share() }),
});
