import { say } from '../../../core/base/words/say.js';
import { bypassPart, cannotBypass, type BypassHindrance } from '../../../core/machine/drawing/bypass.js';
import { partName, type LoopFile } from '../../../core/machine/loop-file/loopFile.js';
import { jointAgainst } from '../../../core/bench/runs/locks.js';
import type { Procedure } from '../../../core/bench/runs/procedure.js';
import type { RunState } from '../../../core/bench/runs/state.js';
import { waitingNow } from '../../../core/bench/runs/waiting.js';
import { wouldLeave } from '../../../core/bench/runs/wouldLeave.js';
import { heldByBook, procedureWithout } from '../../../core/bench/services/withoutPart.js';
import type { BypassInput } from '../../../core/bench/services/bypassSchema.js';
import { formatMl } from '../../../core/base/units/display.js';
import { eq } from 'drizzle-orm';
import { moveHands } from '../commands/commands.js';
import { commissioningProcedure } from '../procedures/ofCommissioning.js';
import { insertEvent, refusedBy } from '../runs/append.js';
import { keepContents } from '../runs/contents.js';
import { foldOf, forgetFold } from '../runs/folds.js';
import type { RunRow } from '../runs/openDates.js';
import { readRun } from '../runs/runs.js';
import { idFrom, type Ask } from '../../base/http/context.js';
import { DomainError, notFound } from '../../base/http/errors.js';
import { loop, loopRevision } from '../../base/database/tables/loops.js';
import { run } from '../../base/database/tables/runs.js';
import { addRevision } from '../../machine/loops/revisions.js';
import { loadJob } from '../../workshop/jobs/jobs.js';
import { serviceProcedure } from '../procedures/ofService.js';

const HINDERED: Readonly<Record<BypassHindrance, string>> = {
  'no-such-part': 'is not a part of this loop.',
  reservoir: 'is the reservoir: a loop that loses it is filled another way. Draw the loop anew and end this run.',
  'one-piece': 'is one piece with its reservoir: it does not come out alone.',
  'only-pump': 'is the only pump: without it nothing goes round.',
  'not-two-tubes': 'does not stand between two tubes: they cannot be joined past it. Draw the loop anew instead.',
  'bare-branch':
    'is alone in its branch: an empty branch would take the flow from the ones beside it. Take the whole branch out of the drawing.',
};

/** mL that may run at the part's joints when they are undone: drops */
const MAY_RUN_ML = 5;

/**
 * A part is left out of the loop in the middle of a run. The loop gets a revision without it, what is inside passes over to that, and
 * what is still to come (joints to test, what to pour) is made for it.
 */
export async function bypass(ask: Ask, input: BypassInput) {
  const { scope, account, clock } = ask;
  const runId = idFrom(ask.request, 'id', 'run');
  const [row] = await scope.select().from(run).where(eq(run.id, runId)).for('update');
  if (!row) throw notFound('run');
  if (row.state !== 'active') throw new DomainError('refused', say('This run is closed: its loop is changed in the drawing.'));
  if (row.jobId === null) throw new DomainError('refused', say('A practice run keeps the loop that it began with.'));
  const { state, events } = await foldOf(scope, runId);
  const [own] = await scope.select().from(loopRevision).where(eq(loopRevision.id, row.revisionId));
  if (!own) throw notFound('loop revision');
  demandReady(row.procedure, state, own.file, input.part, clock.now().getTime());
  const left = bypassPart(own.file, input.part);
  const made = await procedureAnew(ask, row, left.loop, state);
  const procedure = procedureWithout(row.procedure, made, state, input.part, left);
  const heldMl = input.heldMl ?? Math.round(heldByBook(row.procedure, state, input.part) ?? 0);
  const name = nameOf(own.file, input.part);
  const revision = await addRevision(scope, {
    workshopId: account.workshopId,
    loopId: row.loopId,
    kind: own.kind,
    reason: say('left out: {name} ({text})', { name, text: input.text }),
    personId: account.personId,
    file: left.loop,
    at: clock.now(),
  });
  await scope.update(run).set({ procedure, revisionId: revision.id }).where(eq(run.id, runId));
  const at = clock.now();
  const seq = events.length + 1;
  const step = state.current ?? row.procedure.steps[0]?.id ?? 'kit';
  await insertEvent(ask, {
    id: crypto.randomUUID(),
    runId,
    seq,
    at,
    body: { type: 'bypassed', step, item: input.part, goneTube: left.goneTube, text: input.text, heldMl },
  });
  forgetFold(runId);
  const after = await foldOf(scope, runId);
  await keepContents(scope, { ...row, workshopId: account.workshopId, runId, seq }, after.state.contents);
  // a simulated bench stands for the loop as it was: it is begun again for the one that is there now
  if (row.benchId !== null) await moveHands(scope, account.workshopId, row.benchId, { do: 'leave' });
  return readRun(ask, runId);
}

const nameOf = ({ components }: LoopFile, id: string): string => {
  const part = components.find((each) => each.id === id);
  return part ? partName(part) : id;
};

/** Before its joints are undone: the pump stands, no air is pressed in, and nothing would run out of them. */
function demandReady(procedure: Procedure, state: RunState, file: LoopFile, part: string, nowMs: number): void {
  if (waitingNow(state)) throw new DomainError('refused', say('This run waits: take it up again first.'));
  const hindered = cannotBypass(file, part);
  if (hindered) throw new DomainError('refused', `${nameOf(file, part)} ${say(HINDERED[hindered])}`);
  const [locked] = jointAgainst(procedure, state);
  if (locked) throw refusedBy(procedure, { code: 'interlock', fact: locked.fact, rule: locked.rule, mayOverride: false });
  const runs = file.tubes
    .filter(({ from, to }) => from[0] === part || to[0] === part)
    .map(({ id }) => wouldLeave(procedure, state, id, nowMs)?.alone ?? 0);
  const most = Math.max(0, ...runs);
  if (most > MAY_RUN_ML)
    throw new DomainError(
      'refused',
      say('About {formatMl} would run where {nameOf} is undone: draw it down first.', {
        formatMl: formatMl(most),
        nameOf: nameOf(file, part),
      }),
    );
}

async function procedureAnew({ scope }: Ask, row: RunRow, file: LoopFile, state: RunState): Promise<Procedure> {
  const { service, schools } = row.procedure;
  const kept = new Set(file.tubes.map(({ id }) => id));
  const openedJoints = schools.leak === 'opened-joints' ? [...new Set([...state.openJoints, ...kept])].filter((id) => kept.has(id)) : [];
  const [own] = await scope.select({ coolant: loop.coolantProductId }).from(loop).where(eq(loop.id, row.loopId));
  const about = { loopId: row.loopId, file, schools, openedJoints, coolantProductId: own?.coolant ?? null };
  if (!service || row.jobId === null) return commissioningProcedure(scope, { ...about, lostMl: null, start: row.procedure.start ?? null });
  const { partId } = (await loadJob(scope, row.jobId)).service;
  return serviceProcedure(scope, {
    ...about,
    jobId: row.jobId,
    kind: service.kind,
    partId: file.components.some(({ id }) => id === partId) ? partId : null,
    coolantProductId: service.old?.productId ?? null,
    ...(row.procedure.start ? { start: row.procedure.start } : {}),
  });
}
