import { partOfPlace } from '../../machine/seals/places.js';
import { rinseStandOf, type DrainStand, type ServiceFacts } from '../runs/facts.js';
import type { RunEventBody } from '../runs/entries/all.js';
import { stepOf, type Procedure, type ProcedureStep } from '../runs/procedure.js';
import type { RunState } from '../runs/state.js';
import type { HandMove } from './hands.js';

/** degrees that a case is turned through where a sheet says "on its back" */
const LAID_DEG = 90;

interface Around {
  /** after the entry */
  readonly state: RunState;
  readonly procedure: Procedure;
  /** whether an entry with this source moved something itself: what a gauge showed has been pumped up already */
  moved(source: string | undefined): boolean;
}

type Entry<T extends RunEventBody['type']> = Extract<RunEventBody, { type: T }>;
type Moves = { readonly [T in RunEventBody['type']]?: (entry: Entry<T>, around: Around) => HandMove[] };

const MOVES: Moves = {
  pump: ({ on, speed }) => (on ? [{ do: 'speed', speed: speed ?? null }] : []),
  outflow: ({ way, volumeMl, at }) => (way === 'drawn-off' ? [{ do: 'draw', ml: volumeMl, ...(at === undefined ? {} : { at }) }] : []),
  'timer-started': () => [{ do: 'speed', speed: null }],
  turn: ({ to, angleDeg }) => [{ do: 'turn', to, angleDeg }],
  port: ({ port, open }) => [{ do: 'port', port, open }],
  joint: ({ joint, open }) => [ofJoint(joint, open)],
  pour: ({ volumeMl }) => [{ do: 'pour', ml: volumeMl, said: true }],
  rinse: ({ volumeMl }) => [{ do: 'pour', ml: volumeMl, said: true }],
  drained: () => [{ do: 'pour-away' }],
  lost: () => [{ do: 'pour-away' }],
  // a hand that types a pressure has pumped up to it
  'dry-reading': ({ gaugeKpa, source }, { moved }) => (moved(source) ? [{ do: 'pump-up', gaugeKpa }] : []),
  // who notes how it warms has started the load
  warming: ({ source }, { moved }) => (moved(source) ? [{ do: 'load', on: true }] : []),
  'fill-trouble-solved': ({ cause }) => (cause === 'kink' ? [{ do: 'clear', why: 'kink' }] : cause === 'block-choked' ? [{ do: 'clear', why: 'choked' }] : []), // prettier-ignore
  'leak-mended': ({ leak }, { state }) => {
    const found = state.leaks.find(({ eventId }) => eventId === leak);
    return found ? [{ do: 'mend', at: partOfPlace(found.where) }] : [];
  },
  soak: ({ on }) => (on ? [] : [{ do: 'soaked' }]),
  check: ({ mark, step, check }, { procedure }) => (mark === 'done' ? ofTick(procedure, step, check) : []),
  checks: ({ step, checks }, { procedure }) => checks.flatMap((check) => ofTick(procedure, step, check)),
  'step-done': ({ step }, { procedure, state }) => ofStepDone(stepOf(procedure, step), state),
};

/**
 * The movements behind an entry of a run; none where it only says what was read.
 * @param state after the entry
 * @param again true when a bench that was switched off catches up with its run: then everything moves anew
 */
export function movesOfEntry<T extends RunEventBody['type']>(
  body: Entry<T>,
  state: RunState,
  procedure: Procedure,
  again = false,
): HandMove[] {
  const moves = MOVES[body.type as T] as ((entry: Entry<T>, around: Around) => HandMove[]) | undefined;
  const moved = (source: string | undefined): boolean => again || source === undefined || source === 'hand';
  return moves?.(body, { state, procedure, moved }) ?? [];
}

const ofJoint = (joint: string, open: boolean): HandMove =>
  open
    ? { do: 'open', openings: [`${joint}.from`, `${joint}.to`], jug: false }
    : { do: 'shut', openings: [`${joint}.from`, `${joint}.to`] };

/** A line of the drain's sheet, ticked, was done; so was a joint that was made tight. */
function ofTick(procedure: Procedure, step: string, check: string): HandMove[] {
  const { service } = procedure;
  const kind = stepOf(procedure, step)?.kind;
  const [first = '', what = ''] = check.split(':');
  if (first === 'joint') return [ofJoint(what, false)];
  if (!service || kind !== 'drain') return [];
  if (first === 'part') return service.takeOut ? ofPart(service.takeOut, what) : [];
  const index = Number(first.replace(/^stand-/, ''));
  const stand = first.startsWith('stand-') ? service.stands[index] : undefined;
  return stand ? ofStand(stand, service.stands[index - 1]?.standing ?? 'upright', what) : [];
}

function ofStand(stand: DrainStand, before: DrainStand['standing'], what: string): HandMove[] {
  const turned: HandMove[] =
    stand.standing === before ? [] : [{ do: 'turn', to: stand.standing, angleDeg: stand.standing === 'upright' ? 0 : LAID_DEG }];
  switch (what) {
    case 'cap':
    case 'made-up':
      return [{ do: 'shut', openings: stand.capFirst }];
    case 'air':
      return [...turned, ...inlets(stand)];
    case 'drain':
      return [...turned, { do: 'open', openings: [stand.drain], jug: true }];
    case 'shut':
      return [{ do: 'shut', openings: null }];
    default:
      return [];
  }
}

/** A jug stands under an inlet where the sheet warned of it. */
function inlets({ airs, mayRun = [] }: DrainStand): HandMove[] {
  return airs.map((air) => ({ do: 'open', openings: [air], jug: mayRun.some(({ opening }) => opening === air) }));
}

function ofPart(
  { airs, drawFirstMl, drawAt = null, joints, part, parts = [part] }: NonNullable<ServiceFacts['takeOut']>,
  what: string,
): HandMove[] {
  switch (what) {
    case 'air':
      return airs.map((air) => ({ do: 'open', openings: [air], jug: false }));
    case 'draw':
      return drawFirstMl > 0 ? [{ do: 'draw', ml: drawFirstMl, jug: true, ...(drawAt === null ? {} : { at: drawAt }) }] : [];
    case 'out':
      return [
        { do: 'open', openings: joints.map(({ joint }) => joint), jug: true },
        ...parts.map((each) => ({ do: 'take-out', part: each }) as const),
      ];
    default:
      return [];
  }
}

function ofStepDone(step: ProcedureStep | undefined, { stand }: RunState): HandMove[] {
  if (step?.does.includes('empties')) return [{ do: 'take-apart' }];
  if (step?.does.includes('closes')) return [{ do: 'shut', openings: null }];
  if (step?.kind !== 'drain') return [];
  return [
    { do: 'shut', openings: null },
    // one that was written down as lying is stood up by its own entry
    ...(stand.angleDeg > 0 ? [] : [{ do: 'turn', to: 'upright', angleDeg: 0 } as const]),
  ];
}

/** A rinse is let out over the jug, as the machine stands, and shut again. */
export function movesOfRinseOut(service: ServiceFacts): HandMove[] {
  const stand = rinseStandOf(service);
  if (!stand) return [];
  const drain: HandMove = { do: 'open', openings: [stand.drain], jug: true };
  return [...(stand.airsFollow ? [drain, ...inlets(stand)] : [...inlets(stand), drain]), { do: 'shut', openings: null }];
}
