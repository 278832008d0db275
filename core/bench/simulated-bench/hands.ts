import Joi from 'joi';
import { readInput } from '../../base/checking/input.js';
import { finite } from '../../base/checking/fields.js';
import { STANDING_NAMES, type StandingName } from '../../machine/loop-file/orientation.js';

/** What hands do at a simulated bench. A real bench has real ones. */
export type HandMove =
  | { readonly do: 'pump-up'; readonly gaugeKpa: number }
  | { readonly do: 'let-out' }
  | { readonly do: 'brush'; readonly joint: string }
  /**
   * `toMark`: no further than the mark, however much is left in the bottle. `said`: an entry says so, of what hands have
   * poured since the last one, or else of a jug that stands on no scale
   */
  | { readonly do: 'pour'; readonly ml: number; readonly toMark?: boolean; readonly said?: boolean }
  | { readonly do: 'look' }
  /** two fingers along a tube, or an eye into a part that is flushed by itself */
  | { readonly do: 'feel'; readonly at: string }
  /** what held the flow up is put right */
  | { readonly do: 'clear'; readonly why: 'kink' | 'choked' }
  | { readonly do: 'knock' }
  | { readonly do: 'turn'; readonly to: StandingName; readonly angleDeg: number }
  | { readonly do: 'port'; readonly port: string; readonly open: boolean }
  | { readonly do: 'mend'; readonly at: string }
  /** the pump's speed is set; null: as its file says */
  | { readonly do: 'speed'; readonly speed: number | null }
  /** out of the reservoir again, by syringe or hose; `at`: at a valve instead; `jug`: it is measured there */
  | { readonly do: 'draw'; readonly ml: number; readonly at?: string; readonly jug?: boolean }
  /** the load test is started, or ended */
  | { readonly do: 'load'; readonly on: boolean }
  | { readonly do: 'skip'; readonly seconds: number }
  /** ports, or one end of a joint ("tube.from"); `jug`: one stands under it */
  | { readonly do: 'open'; readonly openings: readonly string[]; readonly jug: boolean }
  | ServiceMove;

/** What hands do at a loop that was in use. */
export type ServiceMove =
  /** null: everything that stands open */
  | { readonly do: 'shut'; readonly openings: readonly string[] | null }
  | { readonly do: 'read-jug' }
  /** the jug is emptied */
  | { readonly do: 'pour-away' }
  /** a part leaves the loop over the jug, its joints undone */
  | { readonly do: 'take-out'; readonly part: string }
  | { readonly do: 'take-apart' }
  /** at what came out last, with a strip */
  | { readonly do: 'look-at-water' }
  /** at one thing on the inspection sheet */
  | { readonly do: 'look-close'; readonly at: string }
  /** a cleaner came out again */
  | { readonly do: 'soaked' };
const key = Joi.string().min(1).max(120).required();
const openings = Joi.array().items(Joi.string().min(1).max(120)).max(200);
const OF_SERVICE: Record<ServiceMove['do'], Joi.SchemaMap> = {
  shut: { openings: openings.allow(null).required() },
  'read-jug': {},
  'pour-away': {},
  'take-out': { part: key },
  'take-apart': {},
  'look-at-water': {},
  'look-close': { at: key },
  soaked: {},
};
export const isServiceMove = (move: HandMove): move is ServiceMove => Object.hasOwn(OF_SERVICE, move.do);

const MOVES: Record<HandMove['do'], Joi.SchemaMap> = {
  'pump-up': { gaugeKpa: finite().min(0).max(200).required() },
  'let-out': {},
  brush: { joint: key },
  pour: { ml: finite().greater(0).max(5000).required(), toMark: Joi.boolean(), said: Joi.boolean() },
  look: {},
  feel: { at: key },
  clear: { why: Joi.string().valid('kink', 'choked').required() },
  knock: {},
  turn: {
    to: Joi.string()
      .valid(...STANDING_NAMES)
      .required(),
    angleDeg: finite().min(0).max(180).required(),
  },
  port: { port: key, open: Joi.boolean().required() },
  mend: { at: key },
  speed: { speed: finite().greater(0).max(1).allow(null).required() },
  draw: { ml: finite().greater(0).max(5000).required(), at: Joi.string().min(1).max(120), jug: Joi.boolean() },
  load: { on: Joi.boolean().required() },
  skip: { seconds: finite().greater(0).max(172_800).required() },
  open: { openings: openings.min(1).required(), jug: Joi.boolean().required() },
  ...OF_SERVICE,
};

/** @throws InputProblem with the field that is wrong */
export function readMove(input: unknown): HandMove {
  const kind = readInput<{ do: HandMove['do'] }>(
    Joi.object({
      do: Joi.string()
        .valid(...Object.keys(MOVES))
        .required(),
    }).unknown(true),
    input,
  ).do;
  return readInput<HandMove>(Joi.object({ do: Joi.string().required(), ...MOVES[kind] }), input);
}
