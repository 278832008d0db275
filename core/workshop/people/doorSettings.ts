import Joi from 'joi';
import { rowVersion } from '../../base/checking/fields.js';

/** What owners may do at their door, one by one, as a workshop allows it. */
export const DOOR_ACTS = ['agree', 'slots', 'put-off', 'photo', 'meter', 'log', 'line'] as const;
export type DoorAct = (typeof DOOR_ACTS)[number];

export const DOOR_ACT_WORDS: Readonly<Record<DoorAct, string>> = {
  agree: 'agree to an estimate, or decline it',
  slots: 'choose among slots that you offer, and say which days do not suit',
  'put-off': 'put a service off, having read what that risks',
  photo: 'send a photograph of the level mark',
  meter: 'send the hours of a meter',
  log: 'send a log of the machine’s monitoring program',
  line: 'write a line',
};

export interface DoorSettings {
  /** letters carry a link, and links open */
  readonly open: boolean;
  /** acts that are not allowed */
  readonly without: readonly DoorAct[];
  /** estimates and reports show prices */
  readonly prices: boolean;
}
/** A price that was told on the phone may stand on the page as well; whoever wants it otherwise says so. */
export const DEFAULT_DOOR: DoorSettings = { open: true, without: [], prices: true };

export const mayAtDoor = ({ open, without }: DoorSettings, act: DoorAct): boolean => open && !without.includes(act);

export type DoorSettingsEdit = DoorSettings & { readonly version: number };
export const doorSettingsSchema = Joi.object({
  open: Joi.boolean().required(),
  without: Joi.array()
    .items(Joi.string().valid(...DOOR_ACTS))
    .unique()
    .required(),
  prices: Joi.boolean().required(),
  version: rowVersion(),
});
