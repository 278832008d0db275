import { say } from '../../../core/base/words/say.js';
import { lacksOf } from '../../../core/bench/runs/criteria.js';
import { jointAgainst } from '../../../core/bench/runs/locks.js';
import { currentStep } from '../../../core/bench/runs/state.js';
import { rebuiltEntry } from '../../../core/bench/services/changedLoop.js';
import { whyWords } from '../../../core/edge/words/bench.js';
import type { Ask } from '../../base/http/context.js';
import { DomainError } from '../../base/http/errors.js';
import { refusedBy } from '../runs/append.js';
import { wantedFile } from '../../workshop/jobs/wanted.js';
import { loadJob } from '../../workshop/jobs/jobs.js';
import { goOnWith, runInProgress } from './goOn.js';

/**
 * Hands made of the loop the one that its job wanted: the loop gets that revision, and the run goes on with it. Said once every line of
 * the work is ticked and every part that came out has a place.
 */
export async function rebuilt(ask: Ask) {
  const { row, state } = await runInProgress(ask);
  const { procedure } = row;
  const change = procedure.service?.change;
  const step = currentStep(state);
  if (!change || !step?.does.includes('changes-loop'))
    throw new DomainError('refused', say('The step at hand changes no loop: go on to it first.'));
  if (state.service.rebuilds.length > 0) throw new DomainError('refused', say('The loop is the one that was wanted already.'));
  const lacks = lacksOf(procedure, state, step.id, ask.clock.now().getTime()).filter(({ why }) => why !== 'not-rebuilt');
  const [lack] = lacks;
  if (lack) throw new DomainError('refused', whyWords(procedure, lack));
  const [locked] = jointAgainst(procedure, state);
  if (locked) throw refusedBy(procedure, { code: 'interlock', fact: locked.fact, rule: locked.rule, mayOverride: false });
  const { service } = await loadJob(ask.scope, row.jobId as string);
  const number = (await wantedFile(ask.scope, service.wantedRevisionId))?.number;
  const body = rebuiltEntry(procedure, step.id);
  return goOnWith(ask, {
    row,
    kind: 'change',
    file: change.wanted,
    reason: number === undefined ? say('as wanted') : say('as wanted in revision {number}', { number }),
    gone: [...body.outParts, ...body.outTubes],
    body,
  });
}
