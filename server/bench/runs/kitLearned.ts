import { and, asc, eq, isNull } from 'drizzle-orm';
import type { LearnedForKit } from '../../../core/bench/procedures/answers.js';
import type { ProcedureKind } from '../../../core/bench/procedures/procedureKinds.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import type { Scope } from '../../base/database/client.js';
import { kitLearned } from '../../base/database/tables/kitLearned.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { notFound } from '../../base/http/errors.js';

/** What the kit of a kind of work learned. */
export const learnedFor = (scope: Scope, kind: ProcedureKind): Promise<LearnedForKit[]> =>
  scope
    .select({ id: kitLearned.id, name: kitLearned.name, on: kitLearned.missedOn })
    .from(kitLearned)
    .where(and(eq(kitLearned.kind, kind), isNull(kitLearned.goneAt)))
    .orderBy(asc(kitLearned.name));

/** What a run missed is asked for from its day on; what was struck out once and is missed again comes back. */
export async function learnKit(scope: Scope, workshopId: string, kind: ProcedureKind, { missed }: RunState, on: string): Promise<void> {
  // the same thing twice in one run is one line
  const names = new Map(missed.map(({ name }) => [name.toLowerCase(), name]));
  if (names.size === 0) return;
  await scope
    .insert(kitLearned)
    .values([...names].map(([key, name]) => ({ workshopId, kind, name, key, missedOn: on })))
    .onConflictDoUpdate({
      target: [kitLearned.workshopId, kitLearned.kind, kitLearned.key],
      set: { missedOn: on, goneAt: null },
    });
}

/** Struck out by the lead, and back. */
export async function askFor({ scope, request, clock }: Ask, asked: boolean): Promise<{ id: string }> {
  const [row] = await scope
    .update(kitLearned)
    .set({ goneAt: asked ? null : clock.now() })
    .where(eq(kitLearned.id, idFrom(request, 'id', 'line of a kit')))
    .returning({ id: kitLearned.id });
  if (!row) throw notFound('line of a kit');
  return row;
}
