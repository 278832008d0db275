import { say } from '../../../core/base/words/say.js';
import { refuse } from '../../../core/base/checking/input.js';
import { looksAtAll } from '../../../core/bench/runs/entries/relaid.js';
import { jointAgainst } from '../../../core/bench/runs/locks.js';
import { broughtMl, type RunState } from '../../../core/bench/runs/state.js';
import type { RelaidInput } from '../../../core/bench/services/relaidSchema.js';
import { formatMl } from '../../../core/base/units/display.js';
import { changeBetween, tubesLeaving } from '../../../core/machine/loop-change/loopChange.js';
import { and, eq, gt } from 'drizzle-orm';
import type { Scope } from '../../base/database/client.js';
import { loopRevision } from '../../base/database/tables/loops.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { demandOneCircuit } from '../../machine/loops/circuits.js';
import { refusedBy } from '../runs/append.js';
import { stepNow } from './bypass.js';
import { goOnWith, runInProgress } from './goOn.js';

/** mL beside what tested parts brought: drops, not a loop that was filled */
const DROPS_ML = 5;

/** Before its joints are undone: nothing but drops inside, no air pressed in, the pump stands. */
function demandDryBuild(state: RunState): void {
  const insideMl = (state.contents.insideMl ?? 0) - broughtMl(state);
  if (insideMl > DROPS_ML)
    throw new DomainError(
      'refused',
      say('About {insideMl} stand inside: let them out and enter what came, then the build goes on with the other drawing.', {
        insideMl: formatMl(insideMl),
      }),
    );
}

/** A drawing of this loop that is wanted, and was drawn since. */
async function wantedSince(scope: Scope, loopId: string, number: number, since: number) {
  const [row] = await scope
    .select()
    .from(loopRevision)
    .where(
      and(
        eq(loopRevision.loopId, loopId),
        eq(loopRevision.kind, 'wanted'),
        eq(loopRevision.number, number),
        gt(loopRevision.number, since),
      ),
    );
  if (!row) refuse('wanted', say('is no drawing that was wanted since this build has its loop'));
  return row;
}

/**
 * A build goes on with another drawing of its loop, while nothing wet is inside: what it brings is flushed, put together, closed and tested
 * like everything else, what it leaves as it was stays ticked.
 */
export async function relaid(ask: Ask, { wanted }: RelaidInput) {
  const { row, state, own } = await runInProgress(ask);
  if (row.procedure.service)
    throw new DomainError('refused', say('What a filled loop shall become is a job of its own: book it from the drawing.'));
  const drawn = await wantedSince(ask.scope, row.loopId, wanted, own.number);
  demandOneCircuit(drawn.file);
  demandDryBuild(state);
  const [locked] = jointAgainst(row.procedure, state);
  if (locked) throw refusedBy(row.procedure, { code: 'interlock', fact: locked.fact, rule: locked.rule, mayOverride: false });
  const change = changeBetween(own.file, drawn.file);
  const body = {
    type: 'relaid' as const,
    step: stepNow(row.procedure, state),
    revision: drawn.number,
    reason: drawn.reason,
    outParts: change.out.map(({ id }) => id),
    outTubes: tubesLeaving(change),
  };
  return goOnWith(ask, {
    row,
    kind: own.kind,
    file: drawn.file,
    reason: drawn.reason || say('as wanted in revision {number}', { number: drawn.number }),
    gone: [...body.outParts, ...body.outTubes],
    body,
    again: looksAtAll,
  });
}
