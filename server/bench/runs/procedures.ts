import { say } from '../../../core/base/words/say.js';
import type { TemplateCreate } from '../../../core/bench/procedures/templateSchema.js';
import { PROCEDURE_KINDS, standardProcedure, type ProcedureKind } from '../../../core/bench/procedures/procedureKinds.js';
import { desc, eq } from 'drizzle-orm';
import { refuse } from '../../../core/base/checking/input.js';
import { person } from '../../base/database/tables/people.js';
import type { Scope } from '../../base/database/client.js';
import { type Ask } from '../../base/http/context.js';
import { stale } from '../../base/http/errors.js';
import { learnedFor } from './kitLearned.js';
import { procedureVersion } from '../../base/database/tables/runs.js';

/** The kind that an address asks for; the commissioning where it names none. */
function kindOf({ request }: Pick<Ask, 'request'>): ProcedureKind {
  const { kind = 'commissioning' } = request.query;
  return PROCEDURE_KINDS.find((each) => each === kind) ?? refuse('kind', say('is one of {join}', { join: PROCEDURE_KINDS.join(', ') }));
}

/** The workshop's procedure of a kind in all its versions, newest first, and the standard one it began with. */
export const listProcedures = (ask: Ask) => versionsOf(ask.scope, kindOf(ask));

async function versionsOf(scope: Scope, kind: ProcedureKind) {
  const versions = await scope
    .select({
      number: procedureVersion.number,
      template: procedureVersion.template,
      note: procedureVersion.note,
      by: person.name,
      at: procedureVersion.createdAt,
    })
    .from(procedureVersion)
    .innerJoin(person, eq(person.id, procedureVersion.personId))
    .where(eq(procedureVersion.kind, kind))
    .orderBy(desc(procedureVersion.number));
  return { standard: standardProcedure(kind), versions, learned: await learnedFor(scope, kind) };
}

/** What the next run of a kind is made from: the newest version, or null for the standard procedure. */
export async function newestProcedure(scope: Scope, kind: ProcedureKind) {
  const [newest] = await scope
    .select()
    .from(procedureVersion)
    .where(eq(procedureVersion.kind, kind))
    .orderBy(desc(procedureVersion.number))
    .limit(1);
  return newest ?? null;
}

/** Adds a version. Runs that have begun keep theirs. */
export async function addProcedure(ask: Ask, { kind, template, note, from }: TemplateCreate) {
  const { scope, account, clock } = ask;
  const newest = await newestProcedure(scope, kind);
  if ((newest?.number ?? 0) !== from) throw stale('procedure', { template, note }, newest);
  await scope.insert(procedureVersion).values({
    workshopId: account.workshopId,
    kind,
    number: from + 1,
    template,
    note,
    personId: account.personId,
    createdAt: clock.now(),
  });
  return versionsOf(scope, kind);
}
