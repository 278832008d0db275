import Joi from 'joi';
import { finite, rowVersion } from '../../base/checking/fields.js';
import type { PartKind } from '../diagnosis/sensors.js';

/** What a workshop takes for too hot. */
export interface HeatLimits {
  /** °C of the room on a hot day */
  readonly hotRoomC: number;
  /** °C that each kind of part may reach on such a day; `other` for what is none of them */
  readonly partC: Readonly<Record<PartKind | 'other', number>>;
  /** share by which a part may stand higher above its room, per watt, than on its best days */
  readonly riseShare: number;
}

/** General estimates; a maker's own figure goes before them where the workshop enters it. */
export const USUAL_LIMITS: HeatLimits = {
  hotRoomC: 32,
  partC: { processor: 90, graphics: 85, memory: 95, other: 85 },
  riseShare: 0.3,
};

export type HeatLimitsEdit = HeatLimits & { readonly version: number };
const partC = (): Joi.NumberSchema => finite().min(40).max(120).required();
export const heatLimitsSchema = Joi.object({
  hotRoomC: finite().min(10).max(50).required(),
  partC: Joi.object({ processor: partC(), graphics: partC(), memory: partC(), other: partC() }).required(),
  riseShare: finite().min(0.05).max(2).required(),
  version: rowVersion(),
});
