import { procedureNow } from './alsoPulled.js';
import { changesProcedure, definitionOf, type RunEventBody } from './entries/all.js';
import { refusal, type Override, type Refusal, type Standing } from './entry.js';
import { CAN_OVERRIDE, type Lock } from './locks.js';
import { isKnownKind, type RunEvent } from './log.js';
import type { Procedure, ProcedureStep } from './procedure.js';
import type { RunState, Wait } from './state.js';
import { waitingNow } from './waiting.js';

/** Every lock that stands against an entry. Empty: nothing does. */
export const locksAgainst = (planned: Procedure, state: RunState, body: RunEventBody, nowMs: number): Lock[] =>
  definitionOf(body).locks?.(body, { procedure: procedureNow(planned, state), state, nowMs }) ?? [];

/** Decides whether an entry may join the log as it stands. null: yes. The same rule runs on the device and on the server. */
export function refuseEntry(
  planned: Procedure,
  state: RunState,
  events: readonly RunEvent[],
  body: RunEventBody,
  nowMs: number,
): Refusal | null {
  if (!isKnownKind(body.type)) return refusal('unknown-item', { why: 'unknown-kind', kind: (body as { type: string }).type });
  const definition = definitionOf(body);
  const procedure = procedureNow(planned, state);
  const standing: Standing = { procedure, state, nowMs };
  if (body.type === 'correction') return definition.refuse?.(body, standing) ?? null;
  if (state.signedOff) return refusal('signed-off', { why: 'signed-off' });
  if (body.type === 'withdrawn') return refuseUndo(events, state, body.event);
  const waiting = waitingNow(state);
  if (waiting && !definition.whileWaiting) return refuseWaiting(waiting);
  return refuseLocked(planned, state, body, nowMs) ?? refuseTooEarly(body, standing) ?? definition.refuse?.(body, standing) ?? null;
}

const refuseWaiting = (waiting: Wait): Refusal =>
  refusal('waits', { why: 'waits', waitsFor: waiting.for, what: waiting.what, until: waiting.until });

/** The first lock that stands against an entry, unless it may be passed over and was, with a reason. */
function refuseLocked(procedure: Procedure, state: RunState, body: RunEventBody, nowMs: number): Refusal | null {
  const passed = (body as { override?: Override }).override?.rule;
  const against = locksAgainst(procedure, state, body, nowMs).filter(({ rule }) => !(rule === passed && CAN_OVERRIDE[rule]));
  // what cannot be passed over is said first
  const first = against.find(({ rule }) => !CAN_OVERRIDE[rule]) ?? against[0];
  return first ? { code: 'interlock', fact: first.fact, rule: first.rule, mayOverride: CAN_OVERRIDE[first.rule] } : null;
}

/** Entries of a step wait for the steps before it. */
function refuseTooEarly(body: RunEventBody, { procedure: { steps }, state }: Standing): Refusal | null {
  const definition = definitionOf(body);
  const belongs = typeof definition.belongs === 'function' ? definition.belongs(body) : definition.belongs;
  if (belongs === 'anytime' || belongs === 'log') return null;
  const own = belongs === 'own-step' ? (body as { step: string }).step : null;
  const isOwn = (step: ProcedureStep): boolean =>
    typeof belongs === 'string'
      ? step.id === own
      : step.kind === belongs.kind && step.does.includes('measures-before') === (belongs.before ?? false);
  const index = steps.findIndex(isOwn);
  const step = steps[index];
  if (!step) return refusal('unknown-item', { why: 'no-step', step: own ?? (belongs as { kind: string }).kind });
  const currentIndex = steps.findIndex(({ id }) => id === state.current);
  return index > currentIndex && !definition.ahead
    ? refusal('too-early', { why: 'too-early', first: steps[currentIndex]?.title ?? '', then: step.title })
    : null;
}

const CARRIES_MACHINE: readonly string[] = ['waits', 'resumed'];

function refuseUndo(events: readonly RunEvent[], state: RunState, eventId: string): Refusal | null {
  const event = events.find(({ id }) => id === eventId);
  if (!event) return refusal('unknown-item', { why: 'no-entry' });
  if (state.withdrawn.has(eventId)) return refusal('not-yours-to-undo', { why: 'already-withdrawn' });
  if (event.body.type === 'withdrawn') return refusal('not-yours-to-undo', { why: 'undo-of-undo' });
  // a machine was carried: a bench was freed or taken with it; or steps and loop themselves changed
  if (CARRIES_MACHINE.includes(event.body.type) || changesProcedure(event.body)) return refusal('not-yours-to-undo', { why: 'not-undone' });
  return refuseUndoAfterWait(events, state, event);
}

/** What others were told of stays said; while a run waits only what was written since is taken back. */
function refuseUndoAfterWait(events: readonly RunEvent[], state: RunState, { id }: RunEvent): Refusal | null {
  if (state.waits.some(({ told }) => told.includes(id))) return refusal('not-yours-to-undo', { why: 'told-already' });
  const waiting = waitingNow(state);
  const began = waiting ? events.findIndex((event) => event.id === waiting.eventId) : -1;
  if (!waiting || events.findIndex((event) => event.id === id) > began) return null;
  return refuseWaiting(waiting);
}

/** The entry that undo would take back next, newest first, so that undo walks back the way the hands went; or null. */
export function lastUndoable(events: readonly RunEvent[], state: RunState): RunEvent | null {
  return events.findLast(({ id, body }) => body.type !== 'correction' && refuseUndo(events, state, id) === null) ?? null;
}
