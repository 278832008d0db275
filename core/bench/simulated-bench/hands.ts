import type { RunEventBody } from '../runs/entries/all.js';
import Joi from 'joi';
import { readInput } from '../../base/checking/input.js';
import { finite } from '../../base/checking/fields.js';
import type { RunState } from '../runs/state.js';
import { STANDING_NAMES, type StandingName } from '../../machine/loop-file/orientation.js';

/** What hands do at a simulated bench. A real bench has real ones. */
export type HandMove =
  | { readonly do: 'pump-up'; readonly gaugeKpa: number }
  | { readonly do: 'let-out' }
  | { readonly do: 'brush'; readonly joint: string }
  /** `toMark`: no further than the mark, however much is left in the bottle */
  | { readonly do: 'pour'; readonly ml: number; readonly toMark?: boolean }
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
  /** out of the reservoir again, with a syringe */
  | { readonly do: 'draw'; readonly ml: number }
  | { readonly do: 'skip'; readonly seconds: number };

const key = Joi.string().min(1).max(120).required();
const MOVES: Record<HandMove['do'], Joi.SchemaMap> = {
  'pump-up': { gaugeKpa: finite().min(0).max(200).required() },
  'let-out': {},
  brush: { joint: key },
  pour: { ml: finite().greater(0).max(5000).required(), toMark: Joi.boolean() },
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
  draw: { ml: finite().greater(0).max(5000).required() },
  skip: { seconds: finite().greater(0).max(172_800).required() },
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

/**
 * The movement behind an entry of a run, or null where the entry only says what was read. A pour that the scale saw
 * has been poured already.
 * @param again true when a bench that was switched off catches up with its run: then everything moves anew
 */
export function moveOfEntry(body: RunEventBody, state: RunState, again = false): HandMove | null {
  const moved = (source: string | undefined): boolean => again || source === undefined || source === 'hand';
  switch (body.type) {
    case 'pump':
      return body.on ? { do: 'speed', speed: body.speed ?? null } : null;
    case 'outflow':
      return body.way === 'drawn-off' ? { do: 'draw', ml: body.volumeMl } : null;
    case 'timer-started':
      return { do: 'speed', speed: null };
    case 'turn':
      return { do: 'turn', to: body.to, angleDeg: body.angleDeg };
    case 'port':
      return { do: 'port', port: body.port, open: body.open };
    case 'pour':
      return moved(body.source) ? { do: 'pour', ml: body.volumeMl } : null;
    case 'dry-reading':
      // a hand that types a pressure has pumped up to it
      return moved(body.source) ? { do: 'pump-up', gaugeKpa: body.gaugeKpa } : null;
    case 'fill-trouble-solved':
      return body.cause === 'kink' ? { do: 'clear', why: 'kink' } : body.cause === 'block-choked' ? { do: 'clear', why: 'choked' } : null;
    case 'leak-mended': {
      const leak = state.leaks.find(({ eventId }) => eventId === body.leak);
      return leak ? { do: 'mend', at: leak.where } : null;
    }
    default:
      return null;
  }
}
