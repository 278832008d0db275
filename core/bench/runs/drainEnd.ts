import { standingNow } from './book.js';
import { expectedDrains, judgeDrain } from './contents.js';
import type { ServiceFacts } from './facts.js';
import { stepOf, type Procedure } from './procedure.js';
import type { DrainEnd, RunState } from './state.js';

/** mL; a part that holds less is wet, not filled */
const HOLDS_ML = 5;

/** A closed drain is judged by what the book says at that moment. */
export function noteDrainEnd(procedure: Procedure, state: RunState, stepId: string, at: string): void {
  if (procedure.service && stepOf(procedure, stepId)?.kind === 'drain')
    state.service.drained = drainEnd(procedure, procedure.service, state, at);
}

function drainEnd(procedure: Procedure, service: ServiceFacts, state: RunState, at: string): DrainEnd {
  const { insideMl, insideSdMl } = state.contents;
  const expected = expectedDrains(service);
  return {
    at,
    cameMl: state.service.drains.reduce((sum, { volumeMl }) => sum + volumeMl, 0),
    shouldMl: expected.length > 0 ? expected.reduce((sum, ml) => sum + ml, 0) : null,
    leftMl: insideMl,
    leftSdMl: insideSdMl,
    verdict: judgeDrain(service, state),
    where: whereLeft(procedure, state, Date.parse(at)),
  };
}

function whereLeft(procedure: Procedure, state: RunState, nowMs: number): DrainEnd['where'] {
  const now = standingNow(procedure, state, nowMs);
  if (!now) return [];
  const { network } = now.twin.drive;
  const { partIds, part } = network;
  const held = new Map<string, number>();
  now.twin.contents(now.at).forEach((ml, node) => {
    const id = partIds[part[node] as number] as string;
    held.set(id, (held.get(id) ?? 0) + ml);
  });
  return [...held]
    .map(([id, ml]) => ({ id, ml }))
    .filter(({ ml }) => ml >= HOLDS_ML)
    .sort((a, b) => b.ml - a.ml);
}
